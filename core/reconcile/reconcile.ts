import { applyEdit, type Edit, type Measurement, type Rig } from '#core/rig/index.ts';
import { type Evaluation, evaluate, uncertain } from '#core/signal/index.ts';
import type { Figure } from '#core/units/index.ts';

/** A reading of sound against picture, and what it speaks of. */
export interface PictureReading {
  readonly id: string;
  readonly label: string;
  readonly takeId?: string;
  /** ISO 8601, the caller's clock. */
  readonly takenAt: string;
  readonly sourceId: string;
  readonly listenerId: string;
  readonly offsetMs: number;
  readonly sdMs: number;
  readonly count: number;
}

export type Reconciled =
  | {
      readonly ok: true;
      readonly edit: Edit;
      readonly measurement: Measurement;
      readonly now: Figure;
      readonly after: Figure;
    }
  | { readonly ok: false; readonly reason: string };

const thousandths = (x: number): number => Math.round(x * 1000) / 1000;

/**
 * What a take's offset says of the rig: the uncertain figures on sound's and picture's way, taken together, are so many
 * ms. Delays that were set while the take was made are taken off first, so that the figure stays true when they change.
 */
export function reconcilePicture(rig: Rig, evaluation: Evaluation, reading: PictureReading): Reconciled {
  const pair = evaluation.pairs.find((p) => p.sourceId === reading.sourceId && p.listenerId === reading.listenerId);
  const way = pair?.ways[0];
  if (!pair || !way)
    return {
      ok: false,
      reason: 'By this rig the source does not reach the listener. Choose another pair, or correct the rig.',
    };
  if (!way.offset)
    return {
      ok: false,
      reason: 'By this rig the listener sees no picture of the source. Choose another pair, or correct the rig.',
    };
  const open = uncertain(way.offsetTerms);
  if (open.length === 0) return { ok: false, reason: 'Every figure on the way is known exactly already.' };
  const exactMs = way.offsetTerms
    .filter((t) => !open.includes(t))
    .reduce((ms, t) => ms + t.count * t.term.ms.nominal, 0);
  const measurement: Measurement = {
    kind: 'delay',
    id: reading.id,
    label: reading.label,
    ...(reading.takeId === undefined ? {} : { takeId: reading.takeId }),
    takenAt: reading.takenAt,
    sourceId: reading.sourceId,
    listenerId: reading.listenerId,
    terms: open.map((t) => ({ figure: t.term.key, sign: t.count > 0 ? 1 : -1 })),
    ms: { mean: thousandths(reading.offsetMs - exactMs), sd: thousandths(reading.sdMs), count: reading.count },
  };
  const edit: Edit = { kind: 'add-measurement', measurement };
  const done = applyEdit(rig, edit);
  if (!done.ok) return { ok: false, reason: done.refusal.reason };
  const after = evaluate(done.rig).pairs.find(
    (p) => p.sourceId === reading.sourceId && p.listenerId === reading.listenerId,
  );
  return { ok: true, edit, measurement, now: way.offset, after: after!.ways[0]!.offset! };
}

/** Two recorders' clocks against each other. */
export function reconcileDrift(
  rig: Rig,
  reading: {
    id: string;
    label: string;
    takeId?: string;
    takenAt: string;
    deviceId: string;
    againstDeviceId: string;
    ppm: number;
    sdPpm: number;
    count: number;
  },
): { ok: true; edit: Edit } | { ok: false; reason: string } {
  const names = [reading.deviceId, reading.againstDeviceId];
  if (names[0] === names[1]) return { ok: false, reason: 'A clock does not drift against itself. Choose two devices.' };
  const missing = names.find((id) => !rig.devices.some((d) => d.id === id));
  if (missing) return { ok: false, reason: `There is no device '${missing}' in the rig.` };
  return {
    ok: true,
    edit: {
      kind: 'add-measurement',
      measurement: {
        kind: 'drift',
        id: reading.id,
        label: reading.label,
        ...(reading.takeId === undefined ? {} : { takeId: reading.takeId }),
        takenAt: reading.takenAt,
        deviceId: reading.deviceId,
        againstDeviceId: reading.againstDeviceId,
        ppm: { mean: thousandths(reading.ppm), sd: thousandths(reading.sdPpm), count: reading.count },
      },
    },
  };
}
