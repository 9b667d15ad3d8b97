import { listOf, type Said } from '#core/base/said/index.ts';
import { say } from './sayings.ts';
import { type DayBox, type DayScene, volumesOf } from './scene.ts';

type StepKind =
  | 'quiet'
  | 'phantom-off'
  | 'unplug'
  | 'plug'
  | 'look'
  | 'fasten'
  | 'power-on'
  | 'phantom-on'
  | 'balance'
  | 'set'
  | 'start'
  | 'volume-up'
  | 'end'
  | 'power-off'
  | 'recharge';

/** One thing to do, why just then, and what to mind. */
export interface Step {
  /** The same for the same thing, whatever else changes: a tick stays with it. */
  readonly id: string;
  readonly kind: StepKind;
  readonly says: Said;
  readonly why: Said;
  readonly cautions: readonly Caution[];
  readonly deviceIds: readonly string[];
  readonly cableId?: string;
  /** Ids of steps that come before it. */
  readonly after: readonly string[];
}

export type Caution = 'ears' | 'phantom' | 'earth' | 'floor' | 'batteries' | 'consent' | 'rights';

/** What a caution says where it applies; local rules come first in all of them. */
export const CAUTIONS: Readonly<Record<Caution, Said>> = {
  ears: say.keepHeadphonesOffUntil(),
  phantom: say.switchPhantomPowerOn(),
  earth: say.neverDefeatSafetyGround(),
  floor: say.tapeCablesDownOr(),
  batteries: say.dontChargeOrUse(),
  consent: say.askEveryoneBeforeYou(),
  rights: say.onlyStreamMusicAnd(),
};

/** What comes first where nothing else decides. */
const RANK: readonly StepKind[] = [
  'end',
  'quiet',
  'phantom-off',
  'unplug',
  'plug',
  'look',
  'fasten',
  'power-on',
  'set',
  'balance',
  'phantom-on',
  'start',
  'volume-up',
  'power-off',
  'recharge',
];

/** A step before it has its place. */
export type Draft = Omit<Step, 'cautions'> & { cautions?: readonly Caution[]; readonly rank?: number };
export const ids = (steps: readonly { readonly id: string }[]): string[] => steps.map((s) => s.id);
export const names = (boxes: readonly DayBox[]): string => [...new Set(boxes.map((b) => b.device.name))].join(', ');
export const socket = (box: DayBox, port: string): string => `${box.device.name}, ${port}`;

export function quietOf(box: DayBox): Draft[] {
  const knobs = volumesOf(box);
  if (knobs.length === 0) return [];
  return [
    {
      id: `quiet:${box.device.id}`,
      kind: 'quiet',
      says: say.turnDown({
        device: box.device.name,
        and: listOf(
          'and',
          knobs.map((s) => s.name),
        ),
      }),
      why: say.pluggingAndSwitchingCause(),
      cautions: ['ears'],
      deviceIds: [box.device.id],
      after: [],
    },
  ];
}

/**
 * Steps in an order in which none comes before what it rests on (Kahn 1962); where several may be next, kinds in their
 * own order, then by rank, then by their order in the rig.
 */
export function inOrder(scene: DayScene, drafts: readonly Draft[]): Step[] {
  const place = new Map(scene.rig.devices.map((d, i) => [d.id, i]));
  const known = new Set(ids(drafts));
  const waits = new Map(drafts.map((d) => [d.id, new Set(d.after.filter((a) => known.has(a) && a !== d.id))]));
  const frees = new Map<string, string[]>();
  for (const [id, on] of waits) for (const a of on) frees.set(a, [...(frees.get(a) ?? []), id]);
  const weight = new Map(
    drafts.map((d) => [
      d.id,
      RANK.indexOf(d.kind) * 1e9 + ((d.rank ?? 0) + 1000) * 1e4 + (place.get(d.deviceIds[0] ?? '') ?? 0),
    ]),
  );
  const byId = new Map(drafts.map((d) => [d.id, d]));
  const left = new Map([...waits].map(([id, on]) => [id, on.size]));
  const ready = drafts.filter((d) => waits.get(d.id)!.size === 0).map((d) => d.id);
  const out: Step[] = [];
  while (ready.length > 0) {
    let best = 0;
    for (let i = 1; i < ready.length; i++) if (weight.get(ready[i]!)! < weight.get(ready[best]!)!) best = i;
    const [id] = ready.splice(best, 1);
    const { rank: _, cautions = [], ...step } = byId.get(id!)!;
    out.push({ ...step, cautions, after: [...waits.get(id!)!] });
    for (const freed of frees.get(id!) ?? []) {
      const still = left.get(freed)! - 1;
      left.set(freed, still);
      if (still === 0) ready.push(freed);
    }
  }
  if (out.length !== drafts.length) throw new Error('Steps rest on each other in a circle.');
  return out;
}
