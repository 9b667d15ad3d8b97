import type { Caution } from '#core/live/run/index.ts';
import { type Carried, findPort, findTypes, type Rig } from '#core/model/rig/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import type { Draft } from './draft.ts';

/** Longer cables cross where people walk, typical. */
const FLOOR_M = 3;
/** More is a fright in someone's ears. */
const LOUDER_DB = 6;

/** What to mind while something is changed. */
export function cautionsFor(rig: Rig, after: Rig, { changes, first }: Carried): Caution[] {
  const cautions: Caution[] = [];
  const types = findTypes(after);
  const cables = changes.flatMap((c) =>
    'cableId' in c ? [c.cable ?? rig.cables.find((k) => k.id === c.cableId)] : [],
  );
  const givesPhantom = cables.some((c) => c && findPort(after, types, c.to)?.gives?.kind === 'phantom');
  if (givesPhantom) cautions.push('phantom');
  if (getsLouder(rig, after)) cautions.push('ears');
  if (cables.some((c) => c && c.lengthM > FLOOR_M)) cautions.push('floor');
  const type = first?.kind === 'add-device' ? types.get(first.device.typeId) : undefined;
  if (type?.power?.earthed) cautions.push('earth');
  return cautions;
}

/** Something begins at someone's ears, or is much louder there. */
function getsLouder(rig: Rig, after: Rig): boolean {
  const before = new Map(evaluationAt(rig, null).pairs.map((p) => [`${p.sourceId}>${p.listenerId}`, p.ways[0]]));
  return evaluationAt(after, null).pairs.some(({ sourceId, listenerId, ways: [now] }) => {
    if (now?.scale !== 'spl') return false;
    const was = before.get(`${sourceId}>${listenerId}`);
    return !was || now.levelDb.nominal - was.levelDb.nominal > LOUDER_DB;
  });
}

const plugs = ({ act }: Draft): boolean => act.do === 'change' && act.changes.some((c) => 'cableId' in c);

/** Whether one has to be done before the other: everything is plugged before anything gets louder at someone's ears. */
export const isSafeFirst = (first: Draft, then: Draft): boolean =>
  plugs(first) && !plugs(then) && then.cautions.includes('ears');
