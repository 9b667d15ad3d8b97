import { chakra } from '@chakra-ui/react';
import { Link, useSearchParams } from 'react-router';
import type { Rig, ToleranceId } from '#core/model/rig/index.ts';
import { findListener, sourceIn } from '#core/model/rig/index.ts';
import { alignListener } from '#core/routing/suggest/index.ts';
import {
  delaySettingsFor,
  type Evaluation,
  type State,
  TOLERANCES,
  toleranceIdOf,
  toleranceOf,
} from '#core/signal/index.ts';
import { ArrivalChart, useWidth } from '#web/shared/charts/index.ts';
import { MomentNote } from '#web/shared/moment/index.ts';
import { Choice, formatSigned, Page, rich, useKey, useListenersByWeight } from '#web/shared/parts/index.ts';
import { applyStep, selectScene, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { Decide, useTrial } from '#web/shared/trial/index.ts';
import { common, sync as say, textOf } from '#words/index.ts';
import { AllListeners } from './AllListeners.tsx';
import { DelayTable } from './DelayTable.tsx';
import { PathCard } from './PathCard.tsx';

/** Sync: the arrivals at one listener, the delay settings that act on them, and what becomes of both. */
export function SyncScreen() {
  const scene = useAppSelector(selectScene);
  const [params, setParams] = useSearchParams();
  if (!scene) return null;
  if (params.get('listener') !== ALL) return <Sync {...scene} />;
  const { rig, evaluation } = scene;
  return (
    <AllListeners
      rig={rig}
      evaluation={evaluation}
      onListener={(id) => setParams({ listener: id }, { replace: true })}
      options={listenerOptions(rig, evaluation)}
    />
  );
}

const ALL = 'all';
const listenerOptions = (rig: Rig, shown: Evaluation): [string, string][] => [
  ...rig.listeners.map((l): [string, string] => [l.id, withState(l.name, l.id, shown)]),
  [ALL, say.allDestinationsAtOnce()],
];

/** A listener's name and what is wrong there, so that one need not open each. */
function withState(name: string, listenerId: string, { pairs }: Evaluation): string {
  const here = (state: State) => pairs.filter((p) => p.listenerId === listenerId && p.verdict.state === state).length;
  const [fix, watch] = [here('fix'), here('watch')];
  if (fix > 0) return say.toFix({ name, fix });
  return watch > 0 ? say.warning({ name, watch }) : say.ok({ name });
}

/** What is heard in time, or out of it, with some picture: what this page is about. */
const timed = ({ pairs }: Evaluation) => ({ pairs: pairs.filter((p) => p.ways[0]?.offset) });

function Sync({ rig, evaluation }: { rig: Rig; evaluation: Evaluation }) {
  const dispatch = useAppDispatch();
  const [params, setParams] = useSearchParams();
  const [ref, width] = useWidth<HTMLDivElement>();
  const trying = useTrial(rig, evaluation);
  const { tried, shown, trial } = trying;
  const [worst = 0] = useListenersByWeight(rig, () => timed(evaluation));
  const listener = findListener(rig, params.get('listener')) ?? rig.listeners[worst];
  const choose = (key: string, value: string) =>
    setParams(
      (all) => {
        all.set(key, value);
        return all;
      },
      { replace: true },
    );
  const putRight = () => {
    if (!listener) return;
    trying.propose(alignListener(rig, evaluation, listener.id).changes);
  };
  const nextListener = () =>
    listener && choose('listener', rig.listeners[(rig.listeners.indexOf(listener) + 1) % rig.listeners.length]!.id);
  const here = listener ? shown.pairs.filter((p) => p.listenerId === listener.id && p.ways[0]?.offset) : [];
  const tappedId = params.get('source') ?? here[0]?.sourceId ?? null;
  const move = (by: number) => {
    const at = here.findIndex((p) => p.sourceId === tappedId);
    const next = here[(at + by + here.length) % here.length];
    if (next) choose('source', next.sourceId);
  };
  useKey('l', say.nextDestination(), nextListener);
  useKey('a', say.allDestinationsAtOnce(), () => choose('listener', ALL));
  useKey('j,arrowdown', say.nextSource(), () => move(1));
  useKey('k,arrowup', say.previousSource(), () => move(-1));
  useKey('p', say.suggestDelays(), putRight);
  if (!listener) return <p className="page quiet">{say.noDestinationsYetAdd()}</p>;

  const tolerance = toleranceOf(toleranceIdOf(rig, listener));
  const before = evaluation.pairs.filter((p) => p.listenerId === listener.id);
  const silent = shown.pairs.filter((p) => p.listenerId === listener.id && !p.ways[0]?.offset);
  const settings = delaySettingsFor(rig, shown, listener.id);
  const tapped = shown.pairs.find((p) => p.listenerId === listener.id && p.sourceId === tappedId);
  return (
    <Page
      title={rich(say.arrivalsAt, { listener: listener.name })}
      actions={
        <span className="row">
          <Link to="paths">{say.syncTest()}</Link>
          <Choice
            label={common.destination()}
            value={listener.id}
            onChange={(id) => choose('listener', id)}
            options={listenerOptions(rig, shown)}
          />
          <Choice
            label={say.tolerance()}
            value={tolerance.id}
            onChange={(id) =>
              dispatch(
                applyStep(
                  { kind: 'set-session', session: { ...rig.session, toleranceId: id as ToleranceId } },
                  say.toleranceWith({ name: textOf(toleranceOf(id as ToleranceId).name) }),
                ),
              )
            }
            options={TOLERANCES.map((t) => [
              t.id,
              say.toleranceOption({
                t: textOf(t.name),
                earlyMs: formatSigned(t.earlyMs),
                lateMs: formatSigned(t.lateMs),
              }),
            ])}
            {...(listener.toleranceId ? { disabled: say.thisDestinationHasIts() } : {})}
          />
        </span>
      }
      card={tapped && <PathCard rig={tried} pair={tapped} listenerName={listener.name} tolerance={tolerance} />}
    >
      <MomentNote edits="into-all" />
      <p className="quiet">{rich(say.legend, { source: textOf(tolerance.source) })}</p>
      <chakra.div ref={ref} marginTop="6px">
        {here.length > 0 ? (
          <ArrivalChart
            rig={tried}
            pairs={here}
            before={before}
            tolerance={tolerance}
            widthPx={width}
            tappedId={tappedId}
            onTap={(id) => choose('source', id)}
          />
        ) : (
          <chakra.p padding="24px 0">{say.noSourceHereHas()}</chakra.p>
        )}
      </chakra.div>
      {silent.some((p) => p.ways.length > 0) && (
        <p className="quiet small">
          {say.noVideoToSync({
            join: silent
              .filter((p) => p.ways.length > 0)
              .map((p) =>
                say.sourceDelay({
                  name: sourceIn(rig, p.sourceId).name,
                  nominal: Math.round(p.ways[0]!.delay.value.nominal),
                }),
              )
              .join(', '),
          })}
        </p>
      )}
      {settings.length > 0 && (
        <DelayTable
          rig={tried}
          evaluation={shown}
          listenerId={listener.id}
          settings={settings}
          now={rig}
          trial={trial}
          onTry={trying.put}
        >
          <Decide trying={trying} find={say.suggestDelays()} onFind={putRight} />
        </DelayTable>
      )}
    </Page>
  );
}
