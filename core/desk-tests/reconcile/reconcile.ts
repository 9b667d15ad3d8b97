import type { Text } from '#core/base/said/index.ts';
import { applyEdit, asAtDesk, type Edit, type Measurement, type Rig, settingKey } from '#core/model/rig/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import { delaySettingsFor, evaluate, uncertain } from '#core/signal/index.ts';
import type { TakeReading } from './reading.ts';
import { say } from './sayings.ts';

/**
 * Which delays were set while a take was made: as the desk stands now (what is still to be done is not done), as it is
 * drawn, none, or these and no others.
 */
export type MadeWith = 'desk' | 'drawn' | 'none' | readonly SetDelay[];

/** A delay as set: `device.setting`, in the setting's own unit. */
export interface SetDelay {
  readonly setting: string;
  readonly value: number;
}

/** A reading of sound against picture, and what it speaks of. */
export interface PictureReading extends TakeReading {
  readonly madeWith: MadeWith;
  readonly offsetMs: number;
  readonly sdMs: number;
}

type DelayMeasurement = Extract<Measurement, { kind: 'delay' }>;

export type Reconciled =
  | {
      readonly ok: true;
      readonly edit: Edit;
      readonly measurement: DelayMeasurement;
      /** What was measured of this pair before, and is replaced. */
      readonly replaces: readonly DelayMeasurement[];
      /** What the rig led one to expect of the take. */
      readonly expected: Figure;
      /** The pair's offset as it is drawn, before and after. */
      readonly now: Figure;
      readonly after: Figure;
    }
  | { readonly ok: false; readonly reason: Text };

const thousandths = (x: number): number => Math.round(x * 1000) / 1000;

/**
 * What a take's offset says about the rig: the uncertain figures on the audio and video paths together are this many
 * ms. Delays that were set while the take was made are taken off first, so that the figure stays true when they change.
 * A take that is in the rig already keeps what was taken off then: its marks may have been corrected, not its making.
 */
export function reconcilePicture(rig: Rig, reading: PictureReading): Reconciled {
  const isPair = (m: { sourceId: string; listenerId: string }) =>
    m.sourceId === reading.sourceId && m.listenerId === reading.listenerId;
  const nowWay = evaluate(rig).pairs.find(isPair)?.ways[0];
  if (!nowWay) return no(say.inThisRigThat());
  if (!nowWay.offset) return no(say.inThisRigThatDestination());
  const replaces = rig.measurements.filter((m): m is DelayMeasurement => m.kind === 'delay' && isPair(m));
  const base: Rig = { ...rig, measurements: rig.measurements.filter((m) => !replaces.some((r) => r.id === m.id)) };
  const way = evaluate(asMade(base, reading)).pairs.find(isPair)!.ways[0]!;
  const open = uncertain(way.offsetTerms);
  if (open.length === 0) return no(say.everyFigureOnThis());
  const same = replaces.find((r) => r.takeId !== undefined && r.takeId === reading.takeId);
  const exactMs = same
    ? same.offsetMs - same.ms.mean
    : way.offsetTerms.filter((t) => !open.includes(t)).reduce((ms, t) => ms + t.count * t.term.ms.nominal, 0);
  const measurement: DelayMeasurement = {
    kind: 'delay',
    id: reading.id,
    label: reading.label,
    ...(reading.takeId === undefined ? {} : { takeId: reading.takeId }),
    takenAt: reading.takenAt,
    sourceId: reading.sourceId,
    listenerId: reading.listenerId,
    terms: open.map((t) => ({ figure: t.term.key, sign: t.count > 0 ? 1 : -1 })),
    ms: { mean: thousandths(reading.offsetMs - exactMs), sd: thousandths(reading.sdMs), count: reading.count },
    offsetMs: thousandths(reading.offsetMs),
  };
  const edit: Edit = {
    kind: 'batch',
    edits: [
      ...replaces.map((r): Edit => ({ kind: 'remove-measurement', measurementId: r.id })),
      { kind: 'add-measurement', measurement },
    ],
  };
  const done = applyEdit(rig, edit);
  if (!done.ok) return no(done.refusal.reason);
  const after = evaluate(done.rig).pairs.find(isPair)!.ways[0]!.offset!;
  return { ok: true, edit, measurement, replaces, expected: way.offset!, now: nowWay.offset, after };
}

const no = (reason: Text): Reconciled => ({ ok: false, reason });

/** The rig as it was while a take of this listener was made. */
export function asMade(rig: Rig, { madeWith, listenerId }: Pick<PictureReading, 'madeWith' | 'listenerId'>): Rig {
  if (madeWith === 'drawn') return rig;
  if (madeWith === 'desk') return asAtDesk(rig);
  const stood = new Map(madeWith === 'none' ? [] : madeWith.map((s) => [s.setting, s.value]));
  const acting = delaySettingsFor(rig, evaluate(rig), listenerId);
  return {
    ...rig,
    devices: rig.devices.map((device) => {
      const own = acting.filter((s) => s.deviceId === device.id);
      const then = Object.fromEntries(
        own.map((s) => [
          s.spec.id,
          { value: stood.get(settingKey(device.id, s.spec.id)) ?? s.spec.min, known: 'confirmed' as const },
        ]),
      );
      return own.length === 0 ? device : { ...device, settings: { ...device.settings, ...then } };
    }),
  };
}

/** Two recorders' clocks against each other; what was measured of the two before is replaced. */
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
): { ok: true; edit: Edit } | { ok: false; reason: Text } {
  const names = [reading.deviceId, reading.againstDeviceId];
  if (names[0] === names[1]) return { ok: false, reason: say.clockCantDriftAgainst() };
  const missing = names.find((id) => !rig.devices.some((d) => d.id === id));
  if (missing) return { ok: false, reason: say.thereIsNoDevice({ missing }) };
  const measurement: Measurement = {
    kind: 'drift',
    id: reading.id,
    label: reading.label,
    ...(reading.takeId === undefined ? {} : { takeId: reading.takeId }),
    takenAt: reading.takenAt,
    deviceId: reading.deviceId,
    againstDeviceId: reading.againstDeviceId,
    ppm: { mean: thousandths(reading.ppm), sd: thousandths(reading.sdPpm), count: reading.count },
  };
  const before = rig.measurements.filter(
    (m) => m.kind === 'drift' && names.includes(m.deviceId) && names.includes(m.againstDeviceId),
  );
  return {
    ok: true,
    edit: {
      kind: 'batch',
      edits: [
        ...before.map((m): Edit => ({ kind: 'remove-measurement', measurementId: m.id })),
        { kind: 'add-measurement', measurement },
      ],
    },
  };
}
