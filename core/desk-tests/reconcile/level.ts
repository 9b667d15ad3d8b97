import type { Text } from '#core/base/said/index.ts';
import {
  applyEdit,
  asAtDesk,
  type Edit,
  findDevice,
  heldTo,
  type Measurement,
  type Rig,
  settingKey,
  settingOf,
  sourceIn,
} from '#core/model/rig/index.ts';
import type { Interval } from '#core/model/units/index.ts';
import { deviceName, evaluate, ladderOf, type RungSetting, type Scale } from '#core/signal/index.ts';
import type { TakeReading } from './reading.ts';
import { say } from './sayings.ts';

/** Level of a source in a destination's take, and the floor there when nothing played. dBFS, a full-scale sine as 0. */
export interface LevelReading extends TakeReading {
  /** While it sounds. */
  readonly levelDb: number;
  readonly sdDb: number;
  /** Null where it was never heard alone. */
  readonly floor: { readonly db: number; readonly bandHz: readonly [low: number, high: number] } | null;
}

/** What may be the reason that a level is not as expected; each puts the rig right if it is the one. */
export type LevelCause =
  | { readonly kind: 'source'; readonly levelDb: number; readonly scale: Scale }
  | {
      readonly kind: 'knob';
      readonly setting: RungSetting;
      readonly where: string;
      readonly drawn: number;
      readonly stands: number;
      /** No one has seen where it stands. */
      readonly assumed: boolean;
    };

export type LevelReconciled =
  | {
      readonly ok: true;
      readonly expected: Interval;
      /** Measured minus expected. */
      readonly offDb: number;
      /** Likeliest first: what no one has seen before what someone has. */
      readonly causes: readonly LevelCause[];
      readonly expectedNoiseDb: number | null;
      readonly noiseDb: number | null;
    }
  | { readonly ok: false; readonly reason: Text };

/** Noise floors are given for the audible band, as converters are rated. */
const HEARD_HZ = 20_000;
const no = (reason: Text): LevelReconciled => ({ ok: false, reason });

/**
 * What a take's level says of the rig as the desk stands: how far it is from what was to be expected, and which knob or
 * source would explain it.
 */
export function reconcileLevel(rig: Rig, reading: LevelReading): LevelReconciled {
  const desk = withoutNoiseAt(asAtDesk(rig), reading.listenerId);
  const evaluation = evaluate(desk);
  const way = evaluation.pairs.find((p) => p.sourceId === reading.sourceId && p.listenerId === reading.listenerId)
    ?.ways[0];
  if (!way) return no(say.inThisRigThat());
  if (way.scale !== 'dbfs') return no(say.thatDestinationIsnt());
  const offDb = reading.levelDb - way.levelDb.nominal;
  const source = sourceIn(rig, reading.sourceId);
  const ladder = ladderOf(desk, evaluation.graph, evaluation.noiseDb, way.arrival);
  const knobs = ladder.rungs.flatMap(({ setting }): LevelCause[] => {
    if (!setting) return [];
    const { deviceId, spec } = setting;
    const { value, known } = settingOf(findDevice(desk, deviceId)!, spec);
    const drawn = value as number;
    const stands = heldTo(spec, drawn + offDb);
    // A knob that would have to stand beyond its end is not the reason.
    if (Math.abs(drawn + offDb - stands) > spec.step) return [];
    return [
      {
        kind: 'knob',
        setting,
        where: `${deviceName(desk, deviceId)}, ${spec.name}`,
        drawn,
        stands,
        assumed: known === 'assumed',
      },
    ];
  });
  const own: LevelCause = { kind: 'source', levelDb: source.level[1] + offDb, scale: ladder.rungs[0]!.scale };
  const unseen = knobs.filter((k) => k.kind === 'knob' && k.assumed);
  return {
    ok: true,
    expected: way.levelDb,
    offDb,
    causes: [...unseen, own, ...knobs.filter((k) => !unseen.includes(k))],
    expectedNoiseDb: way.noiseDb,
    noiseDb: reading.floor && wholeBand(reading.floor),
  };
}

/** White noise measured in part of the band, extrapolated to all of it. */
const wholeBand = ({ db, bandHz: [low, high] }: NonNullable<LevelReading['floor']>): number | null =>
  high > low ? db + 10 * Math.log10(HEARD_HZ / (high - low)) : null;

const withoutNoiseAt = (rig: Rig, listenerId: string): Rig => ({
  ...rig,
  measurements: rig.measurements.filter((m) => !(m.kind === 'noise' && m.listenerId === listenerId)),
});

const rounded = (db: number): number => Math.round(10 * db) / 10;

/**
 * Takes a level, and the noise with it, into the rig: the cause that was chosen is set, and both are kept as measured.
 * What was measured of the same pair before is replaced. @returns the edit, or why there is none
 */
export function levelEdit(
  rig: Rig,
  reading: LevelReading,
  cause: LevelCause,
): { readonly ok: true; readonly edit: Edit } | { readonly ok: false; readonly reason: Text } {
  const read = reconcileLevel(rig, reading);
  if (!read.ok) return read;
  const { sourceId, listenerId, label, takenAt, takeId } = reading;
  const base = { label, takenAt, ...(takeId === undefined ? {} : { takeId }) };
  const spread = (mean: number) => ({ mean: rounded(mean), sd: rounded(reading.sdDb), count: reading.count });
  const index = rig.sources.findIndex((s) => s.id === sourceId);
  const source = rig.sources[index]!;
  const width = Math.max(0.1, rounded(2 * reading.sdDb));
  const set: Edit =
    cause.kind === 'source'
      ? {
          kind: 'batch',
          edits: [
            { kind: 'remove-source', sourceId },
            {
              kind: 'add-source',
              at: index,
              source: {
                ...source,
                level: [-width, 0, width].map((d) => rounded(cause.levelDb + d)) as [number, number, number],
              },
            },
          ],
        }
      : {
          kind: 'set-setting',
          deviceId: cause.setting.deviceId,
          settingId: cause.setting.spec.id,
          setting: { value: cause.stands, known: 'measured' },
        };
  const replaced = rig.measurements.filter(
    (m) =>
      (m.kind === 'level' && m.sourceId === sourceId && m.listenerId === listenerId) ||
      (m.kind === 'noise' && m.listenerId === listenerId && read.noiseDb !== null),
  );
  const measured: Measurement[] = [
    {
      ...base,
      kind: 'level',
      id: reading.id,
      sourceId,
      listenerId,
      db: spread(reading.levelDb),
      means: cause.kind === 'source' ? 'source' : settingKey(cause.setting.deviceId, cause.setting.spec.id),
    },
  ];
  if (read.noiseDb !== null)
    measured.push({
      ...base,
      kind: 'noise',
      id: `${reading.id}-noise`,
      listenerId,
      db: spread(read.noiseDb),
      expectedDb:
        read.expectedNoiseDb === null ? null : rounded(noiseAfter(rig, listenerId, set) ?? read.expectedNoiseDb),
    });
  const edit: Edit = {
    kind: 'batch',
    edits: [
      ...replaced.map((m): Edit => ({ kind: 'remove-measurement', measurementId: m.id })),
      set,
      ...measured.map((measurement): Edit => ({ kind: 'add-measurement', measurement })),
    ],
  };
  const done = applyEdit(rig, edit);
  return done.ok ? { ok: true, edit } : { ok: false, reason: done.refusal.reason };
}

/** What the rig expects of the noise once the cause is set: it was there when the noise was measured, too. */
function noiseAfter(rig: Rig, listenerId: string, set: Edit): number | null {
  const done = applyEdit(withoutNoiseAt(rig, listenerId), set);
  if (!done.ok) return null;
  return (
    evaluate(done.rig).pairs.find((p) => p.listenerId === listenerId && p.ways.length > 0)?.ways[0]?.noiseDb ?? null
  );
}
