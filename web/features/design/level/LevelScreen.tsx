import { chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn, settingKey, sourceIn } from '#core/model/rig/index.ts';
import { aimOf, type GainsFound, ladderFor, setTheGains } from '#core/routing/suggest/index.ts';
import { type Evaluation, mainVoiceOf, type Pair, SCALE_UNITS } from '#core/signal/index.ts';
import { LadderChart, useWidth } from '#web/shared/charts/index.ts';
import { MomentNote } from '#web/shared/moment/index.ts';
import { Choice, formatNumber, hueOf, NumberInput, Page, rich, Term, useKey } from '#web/shared/parts/index.ts';
import { selectScene, useAppSelector } from '#web/shared/store/index.ts';
import { Decide, useTrial } from '#web/shared/trial/index.ts';
import { common, level as say } from '#words/index.ts';
import { Ears } from './Ears.tsx';
import { LiveMeter } from './LiveMeter.tsx';
import { OpenChannels } from './OpenChannels.tsx';
import { Proposal } from './Proposal.tsx';
import { RungCard } from './RungCard.tsx';
import { noiseShares, sayTightest, sayWorst } from './say.ts';

/** Level: the gain ladder of one source to one listener, and the gains that put it right. */
export function LevelScreen() {
  const scene = useAppSelector(selectScene);
  return scene ? <Level {...scene} /> : null;
}

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
}

/** The pair that is asked for, else the main voice where it is wanted, else the first that is, else what arrives. */
function pairShown(
  rig: Rig,
  { pairs }: Evaluation,
  sourceId: string | null,
  listenerId: string | null,
): Pair | undefined {
  const arrives = pairs.filter((p) => p.ways.length > 0);
  const fits = arrives.filter(
    (p) => (!sourceId || p.sourceId === sourceId) && (!listenerId || p.listenerId === listenerId),
  );
  const here = fits.length > 0 ? fits : arrives.filter((p) => !listenerId || p.listenerId === listenerId);
  const wanted = here.filter((p) => p.want === 'must');
  return wanted.find((p) => p.sourceId === mainVoiceOf(rig)) ?? wanted[0] ?? here[0] ?? arrives[0];
}

function Level({ rig, evaluation }: Props) {
  const [params, setParams] = useSearchParams();
  const pair = pairShown(rig, evaluation, params.get('source'), params.get('listener'));
  const choose = (sourceId: string, listenerId: string) =>
    setParams({ source: sourceId, listener: listenerId }, { replace: true });
  if (!pair)
    return (
      <main className="page">
        <h1>{say.gainStaging()}</h1>
        <p className="quiet">{say.noSignalReachesDestination()}</p>
      </main>
    );
  return (
    <Shown
      key={`${pair.sourceId} ${pair.listenerId}`}
      rig={rig}
      evaluation={evaluation}
      pair={pair}
      onChoose={choose}
    />
  );
}

interface ShownProps extends Props {
  readonly pair: Pair;
  readonly onChoose: (sourceId: string, listenerId: string) => void;
}

function Shown({ rig, evaluation, pair, onChoose }: ShownProps) {
  const { sourceId, listenerId } = pair;
  const [ref, width] = useWidth<HTMLDivElement>();
  const [at, setAt] = useState<number | null>(null);
  const [held, setHeld] = useState<readonly string[]>([]);
  const [aimed, setAimed] = useState<number | undefined>(undefined);
  const [found, setFound] = useState<GainsFound | null>(null);
  const trying = useTrial(rig, evaluation);
  const { tried, shown, changes } = trying;
  const now = shown.pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId);
  const ladder = useMemo(() => ladderFor(tried, shown, now), [tried, shown, now]);
  const before = useMemo(() => ladderFor(rig, evaluation, pair), [rig, evaluation, pair]);
  const source = sourceIn(rig, sourceId);
  const listener = listenerIn(rig, listenerId);
  const aim = aimed ?? Math.round(aimOf(rig, evaluation, pair));
  const find = () => {
    const next = setTheGains(rig, evaluation, { sourceId, listenerId, aimDb: aim, held });
    setFound(next);
    if (next) trying.propose(next.changes);
  };
  const chosen = at ?? ladder?.worst ?? 0;
  const rung = ladder?.rungs[Math.max(0, chosen)];
  const walk = (by: number) => ladder && setAt((chosen + by + ladder.rungs.length) % ladder.rungs.length);
  const arriving = evaluation.pairs.filter((p) => p.ways.length > 0);
  const here = arriving.filter((p) => p.listenerId === listenerId);
  const listeners = rig.listeners.filter((l) => arriving.some((p) => p.listenerId === l.id));
  const nextSource = () =>
    onChoose(here[(here.findIndex((p) => p.sourceId === sourceId) + 1) % here.length]!.sourceId, listenerId);
  const nextListener = () => onChoose(sourceId, listeners[(listeners.indexOf(listener) + 1) % listeners.length]!.id);
  useKey('l', say.nextDestination(), nextListener);
  useKey('o', say.nextSource(), nextSource);
  useKey('j,arrowright', say.nextStage(), () => walk(1));
  useKey('k,arrowleft', say.previousStage(), () => walk(-1));
  useKey('p', say.suggestGainSettings(), find);
  if (!ladder || !rung) return null;
  const last = ladder.rungs.at(-1)!;
  const unit = SCALE_UNITS[last.scale];
  const node = now!.ways[0]!.arrival.node;
  const key = rung.setting && settingKey(rung.setting.deviceId, rung.setting.spec.id);
  const worst = sayWorst(ladder);
  const tightest = sayTightest(ladder);
  const shares = noiseShares(tried, shown, node);
  return (
    <Page
      title={
        <>
          <Term id="gain-ladder">{say.gainStaging()}</Term>: {source.name}
        </>
      }
      actions={
        <span className="row">
          <Choice
            label={common.source()}
            value={sourceId}
            onChange={(id) => onChoose(id, listenerId)}
            options={here.map((p) => [p.sourceId, sourceIn(rig, p.sourceId).name])}
          />
          <Choice
            label={common.destination()}
            value={listenerId}
            onChange={(id) => onChoose(sourceId, id)}
            options={listeners.map((l) => [l.id, l.name])}
          />
        </span>
      }
      card={
        <RungCard
          rung={rung}
          index={chosen}
          count={ladder.rungs.length}
          held={key !== null && held.includes(key)}
          onSet={(db) => key && trying.put(key, db)}
          onHold={() => key && setHeld(held.includes(key) ? held.filter((h) => h !== key) : [...held, key])}
        />
      }
    >
      <MomentNote edits="into-the-moment" />
      <p className="quiet">{rich(say.solidLevelAfterEach, {})}</p>
      <chakra.div ref={ref} marginTop="6px">
        <LadderChart
          ladder={ladder}
          hue={hueOf(source)}
          widthPx={width}
          chosen={chosen}
          onChoose={setAt}
          onSet={(at, db) => {
            setFound(null);
            trying.put(at, db);
          }}
        />
      </chakra.div>
      <p>
        {say.atListener({ listener: listener.name })}{' '}
        <span className="strong">
          {formatNumber(last.levelDb.nominal, 1)} {unit}
        </span>
        {last.snrDb !== null && <>{say.snrAbove({ snrDb: formatNumber(last.snrDb) })}</>}
        {say.conversionsAndMost({ conversions: ladder.conversions, worst: worst ?? '', tightest: tightest ?? '' })}
      </p>
      {shares.length > 0 && (
        <p className="quiet">
          {say.whereNoiseComesFrom({ join: shares.map((s) => `${s.where} ${formatNumber(s.percent)}%`).join('; ') })}
        </p>
      )}
      <div className="spread">
        <h2>
          <Term id="set-the-gains">{say.suggestGainSettings()}</Term>
        </h2>
        <chakra.span className="row" marginTop="14px">
          <label className="row" htmlFor="aim">
            {say.toLevel()}
            <NumberInput
              id="aim"
              label={say.targetAt({ listener: listener.name, unit })}
              value={aim}
              min={-100}
              max={140}
              onValue={setAimed}
            />
            {unit}
          </label>
          <Decide trying={trying} find={say.suggestGainSettings()} onFind={find} />
        </chakra.span>
      </div>
      <Proposal rig={rig} ladder={before} found={found} unit={unit} trying={changes} />
      <LiveMeter ladder={ladder} />
      <Ears rig={tried} evaluation={shown} listenerId={listenerId} />
      <OpenChannels rig={tried} evaluation={shown} listenerId={listenerId} />
      <chakra.p className="small quiet" marginTop="10px">
        {say.turnEverythingDownBefore()}
      </chakra.p>
    </Page>
  );
}
