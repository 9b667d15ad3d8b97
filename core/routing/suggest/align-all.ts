import type { Rig, SettingChange } from '#core/model/rig/index.ts';
import { listenerIn, settingKey } from '#core/model/rig/index.ts';
import { frameMs } from '#core/model/units/index.ts';
import {
  type DelaySetting,
  delaySettingsFor,
  type Evaluation,
  type Pair,
  rolesOf,
  toleranceIdOf,
  toleranceOf,
} from '#core/signal/index.ts';

/**
 * Solves an integer program given as text in the CPLEX LP format; the edges load one.
 * @returns values by name; `proven` where no better ones exist, else how far off they may be
 */
export type SolveProgram = (lp: string) => {
  readonly values: Readonly<Record<string, number>>;
  readonly objective: number;
  readonly proven: boolean;
  readonly gap: number;
};

/** What becomes of one source at one listener. Offsets are sound minus picture, ms. */
interface PairAligned {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly beforeMs: number;
  readonly afterMs: number;
  readonly earlyMs: number;
  readonly lateMs: number;
  /** Excess over the tolerance, ms. */
  readonly excessMs: number;
  /** Where it is not met: what would have to come later by how much, and why no setting does it. */
  readonly lacks: { readonly later: 'sound' | 'picture'; readonly ms: number; readonly why: Lack } | null;
}

export type Lack = 'no-setting' | 'out-of-range' | 'pulled-both-ways';

export interface AllAligned {
  readonly changes: readonly SettingChange[];
  readonly pairs: readonly PairAligned[];
  /** Sum of the excess over tolerances, ms: the minimum that these settings can reach. */
  readonly excessMs: number;
  /** Delay that is set in all, ms. */
  readonly delayMs: number;
  readonly proven: boolean;
  readonly gap: number;
}

export interface AlignOptions {
  /** Listeners whose tracks are slipped in the edit: no delay is set for their sake. */
  readonly inEdit?: readonly string[];
  /** `device.setting` that stay as they are. */
  readonly held?: readonly string[];
}

/** What has to be heard counts in full, what may be heard a tenth. */
const WEIGHTS = { must: 1, may: 0.1 } as const;
/** Being off within the tolerance counts as it is, delay as such a twentieth: it is never bought with much offset. */
const DELAY_COST = 0.05;
/** The first objective is held within this while the second is minimized, ms. */
const KEPT_MS = 1e-3;

interface Knob {
  readonly key: string;
  readonly setting: DelaySetting;
  readonly unitMs: number;
  readonly steps: number;
}

interface Row {
  readonly pair: Pair;
  readonly weight: number;
  readonly earlyMs: number;
  readonly lateMs: number;
  /** The offset with every knob at its lowest mark; and what one step of each adds. */
  readonly lowestMs: number;
  readonly perStep: readonly number[];
}

/**
 * Delay settings for all sources and listeners at once: first the least that lies beyond the listeners' tolerances, then
 * the least offset and delay beside it. Settings move in the device's own steps, and one may act on many ways: an
 * integer program, solved to a proof or with the gap that is left.
 */
export function alignAll(
  rig: Rig,
  evaluation: Evaluation,
  solve: SolveProgram,
  { inEdit = [], held = [] }: AlignOptions = {},
): AllAligned {
  const knobs = knobsOf(rig, evaluation).filter((k) => !held.includes(k.key));
  const rows = evaluation.pairs.flatMap((pair) => rowOf(rig, knobs, pair, inEdit));
  const first = solve(program(knobs, rows, null));
  const second = solve(program(knobs, rows, first.objective + KEPT_MS));
  const steps = knobs.map((_, k) => Math.round(second.values[`n${k}`] ?? 0));
  const valueAt = ({ setting }: Knob, n: number) => Number((setting.spec.min + n * setting.spec.step).toFixed(6));
  return {
    changes: knobs.flatMap((knob, k): SettingChange[] => {
      const value = valueAt(knob, steps[k]!);
      const { deviceId, spec } = knob.setting;
      return value === knob.setting.value ? [] : [{ deviceId, settingId: spec.id, value }];
    }),
    pairs: rows.map((row) => outcome(row, knobs, steps)),
    excessMs: rows.reduce((sum, row) => sum + beyond(row, offsetAt(row, steps)), 0),
    delayMs: knobs.reduce((sum, knob, k) => sum + valueAt(knob, steps[k]!) * knob.unitMs, 0),
    proven: first.proven && second.proven,
    gap: Math.max(first.gap, second.gap),
  };
}

function knobsOf(rig: Rig, evaluation: Evaluation): Knob[] {
  const found = new Map<string, Knob>();
  for (const listener of rig.listeners)
    for (const setting of delaySettingsFor(rig, evaluation, listener.id)) {
      const { spec } = setting;
      const key = settingKey(setting.deviceId, spec.id);
      const unitMs = spec.unit === 'frames' ? frameMs(rig.session.frameRate) : 1;
      if (!found.has(key))
        found.set(key, { key, setting, unitMs, steps: Math.floor((spec.max - spec.min) / spec.step + 1e-9) });
    }
  return [...found.values()];
}

function rowOf(rig: Rig, knobs: readonly Knob[], pair: Pair, inEdit: readonly string[]): Row[] {
  const way = pair.ways[0];
  if (!way?.offset || pair.want === 'must-not' || inEdit.includes(pair.listenerId)) return [];
  const tolerance = toleranceOf(toleranceIdOf(rig, listenerIn(rig, pair.listenerId)));
  const times = knobs.map(({ key }) => {
    const count = (keys: readonly string[]) => keys.filter((k) => k === key).length;
    return count(way.settings) - count(pair.picture?.settings ?? []);
  });
  const perStep = knobs.map(({ setting, unitMs }, k) => times[k]! * setting.spec.step * unitMs);
  const lowestMs = knobs.reduce(
    (ms, { setting, unitMs }, k) => ms + times[k]! * (setting.spec.min - setting.value) * unitMs,
    way.offset.value.nominal,
  );
  const weight = pair.want === 'must' ? WEIGHTS.must : WEIGHTS.may;
  return [{ pair, weight, earlyMs: tolerance.earlyMs, lateMs: tolerance.lateMs, lowestMs, perStep }];
}

const offsetAt = (row: Row, steps: readonly number[]): number =>
  row.perStep.reduce((ms, per, k) => ms + per * steps[k]!, row.lowestMs);
const beyond = ({ earlyMs, lateMs }: Row, ms: number): number => Math.max(0, ms - lateMs, earlyMs - ms);

/** A number that every reader of the format takes: no exponent. */
const say = (x: number): string => {
  const text = Math.abs(x)
    .toFixed(9)
    .replace(/\.?0+$/, '');
  return `${x < 0 ? '-' : '+'} ${text || '0'}`;
};

/** The program as text: the least excess; or, with a bound on that, the least offset and delay. */
function program(knobs: readonly Knob[], rows: readonly Row[], mostExcess: number | null): string {
  const sum = (row: Row, sign: 1 | -1): string =>
    row.perStep.map((per, k) => (per === 0 ? '' : `${say(sign * per)} n${k}`)).join(' ');
  const excess = rows.map((row, r) => `${say(row.weight)} e${r}`).join(' ');
  const second =
    rows.map((row, r) => `${say(row.weight)} a${r}`).join(' ') +
    knobs.map((k, i) => ` ${say(DELAY_COST * k.setting.spec.step * k.unitMs)} n${i}`).join('');
  const lines = ['Minimize', ` obj: ${(mostExcess === null ? excess : second) || '0 nothing'}`, 'Subject To'];
  rows.forEach((row, r) => {
    lines.push(` l${r}: e${r} ${sum(row, -1)} >= ${row.lowestMs - row.lateMs}`);
    lines.push(` s${r}: e${r} ${sum(row, 1)} >= ${row.earlyMs - row.lowestMs}`);
    if (mostExcess === null) return;
    lines.push(` p${r}: a${r} ${sum(row, -1)} >= ${row.lowestMs}`);
    lines.push(` m${r}: a${r} ${sum(row, 1)} >= ${-row.lowestMs}`);
  });
  if (mostExcess !== null && rows.length > 0) lines.push(` kept: ${excess} <= ${mostExcess}`);
  lines.push('Bounds', ' 0 <= nothing <= 0');
  knobs.forEach((k, i) => {
    lines.push(` 0 <= n${i} <= ${k.steps}`);
  });
  if (knobs.length > 0) lines.push('General', ` ${knobs.map((_, i) => `n${i}`).join(' ')}`);
  return [...lines, 'End'].join('\n');
}

function outcome(row: Row, knobs: readonly Knob[], steps: readonly number[]): PairAligned {
  const afterMs = offsetAt(row, steps);
  const excessMs = beyond(row, afterMs);
  const late = afterMs > row.lateMs;
  const acting = knobs.flatMap((knob, k) =>
    row.perStep[k] === 0 ? [] : [{ knob, at: steps[k]!, per: row.perStep[k]! }],
  );
  const helps = acting.filter(({ per, at, knob }) => (late === per < 0 ? at < knob.steps : at > 0));
  const why: Lack = acting.length === 0 ? 'no-setting' : helps.length === 0 ? 'out-of-range' : 'pulled-both-ways';
  return {
    sourceId: row.pair.sourceId,
    listenerId: row.pair.listenerId,
    beforeMs: row.pair.ways[0]!.offset!.value.nominal,
    afterMs,
    earlyMs: row.earlyMs,
    lateMs: row.lateMs,
    excessMs,
    lacks: excessMs > KEPT_MS ? { later: late ? 'picture' : 'sound', ms: excessMs, why } : null,
  };
}

/** Destinations that record: what arrives there can also be moved in the edit. */
export const recordedListeners = (rig: Rig): string[] =>
  rig.listeners.filter((l) => rolesOf(rig).listener(l) === 'track').map((l) => l.id);
