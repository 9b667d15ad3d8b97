import { Button, chakra } from '@chakra-ui/react';
import { useNavigate, useParams } from 'react-router';
import {
  addTasks,
  findDevice,
  findSetting,
  findTypes,
  listenerIn,
  markDone,
  type PlanCell,
  type Rig,
  type SettingChange,
  sayValue,
  settingKey,
  sourceIn,
  type Verb,
} from '#core/model/rig/index.ts';
import type { Finding } from '#core/rules/index.ts';
import {
  type BlockingSetting,
  deviceName,
  type Evaluation,
  type ReceivedPath,
  SCALE_UNITS,
  sayBreak,
  whereItStops,
} from '#core/signal/index.ts';
import { ListenButton } from '#web/shared/listen/index.ts';
import {
  BandSaid,
  figures,
  focusCell,
  formatNumber,
  formatSpread,
  Head,
  NumberInput,
  StateMark,
  sayUnder,
  Table,
  Term,
  TwoVerbs,
  WANTS,
  Why,
} from '#web/shared/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/shared/store/index.ts';
import { common, route as say, textOf } from '#words/index.ts';
import type { Cell } from './cells.ts';
import { Mutes } from './Mutes.tsx';
import { stepsOf } from './steps.ts';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly cell: Cell;
  readonly findings: readonly Finding[];
  /** The rig is as it would be, not as it is: it is looked at, and nothing of it is changed from here. */
  readonly proposed: boolean;
  readonly onWant: (want: PlanCell['want'] | null) => void;
  /** How far under the main voice it is wanted; undefined: nothing is said. */
  readonly onUnderVoice: (db: number | undefined) => void;
}

/** One source at one listener: what is wanted, the way it takes stage by stage, or where it stops and what opens it. */
export function PairCard({ rig, evaluation, cell, findings, proposed, onWant, onUnderVoice }: Props) {
  const { rigId } = useParams();
  const navigate = useNavigate();
  const { pair, state, word } = cell;
  const { underVoiceDb } = pair;
  const wanted = rig.plan.find((c) => c.sourceId === pair.sourceId && c.listenerId === pair.listenerId);
  const source = sourceIn(rig, pair.sourceId);
  const listener = listenerIn(rig, pair.listenerId);
  const here = (proposed ? [] : findings).filter(
    (f) => f.where.sourceId === source.id && f.where.listenerId === listener.id,
  );
  return (
    <aside className="card" aria-label={say.sourceAndDestination()}>
      <h2>
        {source.name} → {listener.name}
      </h2>
      <chakra.p className={state === 'none' ? 'quiet' : state} marginTop="6px">
        {state !== 'none' && <StateMark state={state} />} {word || say.noSignal()}
        {underVoiceDb !== null && (
          <span className="quiet">{say.againstMainVoice({ underVoiceDb: sayUnder(underVoiceDb) })}</span>
        )}
        {proposed && <span className="quiet">{say.asSuggested()}</span>}
      </chakra.p>
      <chakra.p marginTop="8px">
        <ListenButton rig={rig} spot={{ at: listener.sound, name: listener.name }} keyOutside />
      </chakra.p>
      <div className="answers">
        {WANTS.map(({ want, key, says }) => (
          <Button key={says} variant={pair.want === want ? 'solid' : 'outline'} onClick={() => onWant(want)}>
            {says} <kbd>{key === 'backspace' ? '⌫' : key}</kbd>
          </Button>
        ))}
      </div>
      {wanted && wanted.want !== 'must-not' && underVoiceDb !== null && (
        <chakra.p className="row" marginTop="8px">
          <NumberInput
            key={`${pair.sourceId} ${pair.listenerId}`}
            label={say.targetBelowMainVoice()}
            value={wanted.underVoiceDb}
            min={-40}
            max={60}
            onEnter={focusCell}
            onValue={onUnderVoice}
          />
          <span className="quiet small">{say.dbBelowMainVoice()}</span>
        </chakra.p>
      )}
      {here.map((f) => (
        <chakra.p key={f.id} marginTop="10px">
          <StateMark state={f.severity} /> {textOf(f.asks ?? f.says)}{' '}
          <Button onClick={() => navigate(`/rigs/${rigId}/wire?finding=${encodeURIComponent(f.id)}`)}>
            {common.fixes()}
          </Button>
        </chakra.p>
      ))}
      {pair.ways.map((way, i) => (
        <Way
          key={`${way.arrival.way} ${way.arrival.delayMs.nominal}`}
          rig={rig}
          evaluation={evaluation}
          way={way}
          number={pair.ways.length > 1 ? i + 1 : null}
        />
      ))}
      {pair.ways.length > 0 && <Mutes rig={rig} evaluation={evaluation} pair={pair} />}
      {pair.ways.length === 0 && <Stopped rig={rig} evaluation={evaluation} cell={cell} proposed={proposed} />}
    </aside>
  );
}

interface WayProps {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly way: ReceivedPath;
  /** Null where there is one way only. */
  readonly number: number | null;
}

/** A path, device by device: gain of each, and the delay so far. */
function Way({ rig, evaluation: { graph }, way, number }: WayProps) {
  const steps = stepsOf(rig, graph, way);
  return (
    <>
      <h2>{number === null ? common.signalPath() : say.path({ number })}</h2>
      <Table tight>
        <Head columns={[common.device(), figures(say.gainDb()), figures(say.levelAfter())]} />
        <tbody>
          {steps.map((step, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a path may go through one device twice
            <tr key={i}>
              <td>{step.name}</td>
              <td className="number quiet">{step.gainDb === 0 ? '' : formatNumber(step.gainDb, 1)}</td>
              <td className="number">{step.leaves}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="small quiet">
        {common.delay()} <Why figure={way.delay}>{`${formatNumber(way.delay.value.nominal)} ms`}</Why> (
        {common[way.delay.kind]()}, {formatSpread(way.delay) || say.exact()}),{' '}
        {say.conversions({ count: way.conversions })}
        {way.noiseDb !== null && (
          <>
            , <Term id="noise-floor">{say.noiseFloorHead()}</Term> {formatNumber(way.noiseDb)} {SCALE_UNITS[way.scale]}
          </>
        )}
        {way.polarity < 0 && say.polarityInverted()}.
      </p>
      <BandSaid band={way.band} />
    </>
  );
}

/** Why nothing arrives: the doors that are shut on the way, to be opened; or how far it comes where there is no way. */
function Stopped({ rig, evaluation, cell, proposed }: Pick<Props, 'rig' | 'evaluation' | 'cell' | 'proposed'>) {
  const dispatch = useAppDispatch();
  const source = sourceIn(rig, cell.pair.sourceId);
  const listener = listenerIn(rig, cell.pair.listenerId);
  const stop = whereItStops(evaluation.graph, source.sound, listener.sound);
  if (!stop) return null;
  const name = (id: string) => deviceName(rig, id);
  if (stop.kind === 'no-way' && stop.breaks.length > 0)
    return (
      <>
        <h2>{say.whatsInWay()}</h2>
        <ol>
          {stop.breaks.map((b) => (
            <li key={textOf(sayBreak(rig, b))}>{textOf(sayBreak(rig, b))}.</li>
          ))}
        </ol>
      </>
    );
  if (stop.kind === 'no-way')
    return (
      <>
        <h2>{say.noPath()}</h2>
        <p>{say.signalGetsAsFar({ deviceId: stop.reaches.map(name).join(', ') || name(source.sound.deviceId) })}</p>
        <p className="quiet">
          {say.isFedByCable({ listener: listener.name, nothing: stop.fedBy.map(name).join(', ') || 'nothing' })}
        </p>
      </>
    );
  const changes = stop.doors.map((d): SettingChange => ({ ...d, value: d.opensAt }));
  const label = say.openPath({ source: source.name, listener: listener.name });
  const open = (verb: Verb) => {
    const edit = verb === 'done' ? markDone(rig, changes) : addTasks(rig, changes, new Date().toISOString());
    dispatch(applyHere(edit, label, 'fix'));
  };
  return (
    <>
      <h2>{say.whereItStops()}</h2>
      <ol>
        {stop.doors.map((door) => (
          <li key={settingKey(door.deviceId, door.settingId)}>{sayDoor(rig, door)}</li>
        ))}
      </ol>
      <p className="small quiet">{say.pathWithFewestMutes({ join: stop.deviceIds.map(name).join(' → ') })}</p>
      {!proposed && (
        <chakra.p className="row" marginTop="8px">
          <TwoVerbs isKeyed onVerb={open} />
        </chakra.p>
      )}
    </>
  );
}

/** 'Mixer, strip 1, mute: on, has to be off' */
function sayDoor(rig: Rig, { deviceId, settingId, opensAt }: BlockingSetting): string {
  const spec = findSetting(rig, findTypes(rig), deviceId, settingId);
  const now = findDevice(rig, deviceId)?.settings[settingId]?.value ?? spec?.default;
  return say.needsSetting({
    deviceId: deviceName(rig, deviceId),
    settingId: spec?.name ?? settingId,
    now: textOf(sayValue(spec, now)),
    opensAt: textOf(sayValue(spec, opensAt)),
  });
}
