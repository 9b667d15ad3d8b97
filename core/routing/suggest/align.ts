import type { Rig, SettingChange } from '#core/model/rig/index.ts';
import { listenerIn, settingKey } from '#core/model/rig/index.ts';
import { frameMs } from '#core/model/units/index.ts';
import {
  type DelaySetting,
  delaySettingsFor,
  type Evaluation,
  type Pair,
  toleranceIdOf,
  toleranceOf,
} from '#core/signal/index.ts';

/** What becomes of one source: its offset before and after, and why it could not be met, where it could not. */
interface Aligned {
  readonly sourceId: string;
  readonly beforeMs: number;
  readonly afterMs: number;
  readonly met: boolean;
  readonly why: 'met' | 'no-setting' | 'out-of-range' | 'pulled-both-ways';
}

export interface Alignment {
  readonly listenerId: string;
  readonly changes: readonly SettingChange[];
  readonly sources: readonly Aligned[];
}

/**
 * Costs in ms: what lies beyond the tolerance counts most, then being off, then delay as such, so that a setting that is
 * needless by now is taken back instead of another added against it; then touching a setting, and who else hears it.
 */
const COST = { beyond: 1000, elsewhere: 30, off: 1, delay: 0.4, touched: 20, alsoHeard: 0.01 } as const;
const ROUNDS = 40;

interface Row {
  readonly pair: Pair;
  readonly here: boolean;
  readonly earlyMs: number;
  readonly lateMs: number;
  readonly baseMs: number;
  /** How often each setting counts: its sound later, or its picture. */
  readonly gain: readonly number[];
}

interface Knob {
  readonly setting: DelaySetting;
  readonly unitMs: number;
  readonly now: number;
}

/**
 * Delay settings that bring every source a listener has to hear into tolerance, as far as the devices can: one setting
 * or two changed at a time, always to where some source is nulled or at its limit, until nothing gets better.
 * What a setting does to other listeners counts as well. Settings keep to each device's step and range.
 */
export function alignListener(rig: Rig, evaluation: Evaluation, listenerId: string): Alignment {
  const knobs = delaySettingsFor(rig, evaluation, listenerId).map(
    (setting): Knob => ({
      setting,
      unitMs: setting.spec.unit === 'frames' ? frameMs(rig.session.frameRate) : 1,
      now: setting.value,
    }),
  );
  const rows = evaluation.pairs.flatMap((pair) => rowOf(rig, knobs, pair, listenerId));
  const values = search(knobs, rows);
  const changes = knobs.flatMap(({ setting, now }, k) =>
    values[k] === now ? [] : [{ deviceId: setting.deviceId, settingId: setting.spec.id, value: values[k]! }],
  );
  return { listenerId, changes, sources: rows.filter((r) => r.here).map((row) => outcome(row, knobs, values)) };
}

function rowOf(rig: Rig, knobs: readonly Knob[], pair: Pair, listenerId: string): Row[] {
  const loudest = pair.ways[0];
  if (!loudest?.offset || pair.want === 'must-not') return [];
  const here = pair.listenerId === listenerId;
  const gain = knobs.map(({ setting }) => {
    const key = settingKey(setting.deviceId, setting.spec.id);
    const count = (keys: readonly string[]) => keys.filter((k) => k === key).length;
    return count(loudest.settings) - count(pair.picture?.settings ?? []);
  });
  if (!here && gain.every((g) => g === 0)) return [];
  const tolerance = toleranceOf(toleranceIdOf(rig, listenerIn(rig, pair.listenerId)));
  return [
    { pair, here, earlyMs: tolerance.earlyMs, lateMs: tolerance.lateMs, baseMs: loudest.offset.value.nominal, gain },
  ];
}

const offsetOf = (row: Row, knobs: readonly Knob[], values: readonly number[]): number =>
  knobs.reduce((ms, knob, k) => ms + row.gain[k]! * (values[k]! - knob.now) * knob.unitMs, row.baseMs);

const beyond = (row: Row, ms: number): number => Math.max(0, ms - row.lateMs, row.earlyMs - ms);

function cost(rows: readonly Row[], knobs: readonly Knob[], values: readonly number[]): number {
  let total = 0;
  for (const row of rows) {
    const ms = offsetOf(row, knobs, values);
    total += (row.here ? COST.beyond : COST.elsewhere) * beyond(row, ms) + (row.here ? COST.off * Math.abs(ms) : 0);
  }
  knobs.forEach((knob, k) => {
    if (values[k] !== knob.now) total += COST.touched;
    total += (COST.delay + COST.alsoHeard * knob.setting.alsoListeners.length) * values[k]! * knob.unitMs;
  });
  return total;
}

function search(knobs: readonly Knob[], rows: readonly Row[]): number[] {
  let values = knobs.map((k) => k.now);
  let best = cost(rows, knobs, values);
  for (let round = 0; round < ROUNDS; round++) {
    let next = values;
    for (let a = 0; a < knobs.length; a++) {
      for (const va of candidates(rows, knobs, values, a)) {
        const one = values.with(a, va);
        const c1 = cost(rows, knobs, one);
        if (c1 < best - 1e-9) [best, next] = [c1, one];
        for (let b = a + 1; b < knobs.length; b++) {
          for (const vb of candidates(rows, knobs, one, b)) {
            const two = one.with(b, vb);
            const c2 = cost(rows, knobs, two);
            if (c2 < best - 1e-9) [best, next] = [c2, two];
          }
        }
      }
    }
    if (next === values) return values;
    values = next;
  }
  return values;
}

/** Values of one setting at which some source is nulled, or the setting is back at what it is or at nothing. */
function candidates(rows: readonly Row[], knobs: readonly Knob[], values: readonly number[], k: number): number[] {
  const { setting, unitMs, now } = knobs[k]!;
  const { min, max, step } = setting.spec;
  const found = new Set<number>([now, min]);
  for (const row of rows) {
    if (!row.here || row.gain[k] === 0) continue;
    const exact = values[k]! - offsetOf(row, knobs, values) / (row.gain[k]! * unitMs);
    const steps = Math.round((exact - min) / step);
    found.add(Math.min(min + Math.floor((max - min) / step + 1e-9) * step, Math.max(min, min + steps * step)));
  }
  found.delete(values[k]!);
  return [...found];
}

function outcome(row: Row, knobs: readonly Knob[], values: readonly number[]): Aligned {
  const afterMs = offsetOf(row, knobs, values);
  const met = beyond(row, afterMs) === 0;
  const acting = knobs.filter((_, k) => row.gain[k] !== 0);
  const atEnd = acting.some((knob) => {
    const value = values[knobs.indexOf(knob)]!;
    return value >= knob.setting.spec.max || value <= knob.setting.spec.min;
  });
  const why = met ? 'met' : acting.length === 0 ? 'no-setting' : atEnd ? 'out-of-range' : 'pulled-both-ways';
  return { sourceId: row.pair.sourceId, beforeMs: row.baseMs, afterMs, met, why };
}
