import { type Cable, type Change, type Edit, findCable, type Rig } from '#core/model/rig/index.ts';

/** How long things take someone who knows how, s: typical; they are said as 'about'. */
export const TYPICAL_SECONDS = {
  /** To look at a device and press a key. */
  look: 15,
  /** To set one setting, in a program or on a device. */
  set: 20,
  /** To put in, take out or swap a cable; and for each metre of it. */
  plug: 40,
  plugPerMetre: 4,
  /** To put one device more where it belongs, and power it. */
  addDevice: 120,
  /** To weigh what no change mends, and say so. */
  decide: 60,
  /** To record three claps and look at them. */
  measure: 150,
  /** To say in the plan what has to be heard. */
  describe: 180,
  /** Steps and checks of a run, each. */
  runStep: 20,
} as const;

const cableSeconds = (cable: Cable | null | undefined): number =>
  TYPICAL_SECONDS.plug + TYPICAL_SECONDS.plugPerMetre * (cable?.lengthM ?? 0);

/** Typical time to carry out changes at their places, without the walking, s. */
export function secondsFor(rig: Rig, changes: readonly Change[], first?: Edit): number {
  const each = changes.map((change) =>
    'cableId' in change ? cableSeconds(change.cable ?? findCable(rig, change.cableId)) : TYPICAL_SECONDS.set,
  );
  return each.reduce((sum, s) => sum + s, first ? TYPICAL_SECONDS.addDevice : 0);
}
