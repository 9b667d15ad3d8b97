import type { FaultId } from '#core/audio/measure/index.ts';
import { type Said, type Text, textOf } from '#core/base/said/index.ts';
import type { Cable, PortRef, PortSpec, Rig } from '#core/model/rig/index.ts';
import { check, type Finding } from '#core/rules/index.ts';
import { deviceName, type Evaluation, type Ladder, type Pair, type Rung } from '#core/signal/index.ts';
import { say } from '../sayings.ts';

/** A place of the rig that could have caused a fault, and where to check next: the tap point that decides it. */
export interface Place {
  readonly where: Text;
  readonly why: Text;
  readonly tap: PortRef;
  /** 0 to 1 among the places of this fault: how likely, by what the rig's figures say. */
  readonly weight: number;
}

/** What is known of the fault beside its name. */
export interface FaultSeen {
  readonly id: FaultId;
  /** The delay of an echo, ms. */
  readonly delayMs?: number;
}

/** The basis for suspects: one destination with all that arrives there. */
export interface Scene {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly listener: Rig['listeners'][number];
  /** Ways of everything that is heard there. */
  readonly pairs: readonly Pair[];
  readonly ladders: readonly Ladder[];
  readonly portOf: (ref: PortRef) => PortSpec | undefined;
}

export type Suspects = (scene: Scene, fault: FaultSeen) => Place[];

/** Every cable that something goes by to the listener. */
export function cablesTo({ rig, pairs }: Scene): Cable[] {
  const ids = new Set<string>();
  for (const pair of pairs)
    for (const { arrival } of pair.ways)
      for (let at: typeof arrival | null = arrival; at?.edge; at = at.from)
        if ('cableId' in at.edge.via) ids.add(at.edge.via.cableId);
  return rig.cables.filter((c) => ids.has(c.id));
}

export const sayLead = ({ rig }: Scene, cable: Cable): Said =>
  say.cable({ from: deviceName(rig, cable.from.deviceId), to: deviceName(rig, cable.to.deviceId) });

/** Findings whose cables or devices are on a path to the destination. */
export function findingsOnWays(scene: Scene, wanted: (f: Finding) => boolean): Place[] {
  const cables = new Set(cablesTo(scene).map((c) => c.id));
  const boxes = new Set(scene.pairs.flatMap((p) => p.ways.flatMap((w) => w.deviceIds)));
  return check(scene.rig, scene.evaluation)
    .filter((f) => !f.dismissed && wanted(f))
    .flatMap((f): Place[] => {
      const cable = scene.rig.cables.find((c) => f.where.cableIds.includes(c.id) && cables.has(c.id));
      const box = f.where.deviceIds.find((id) => boxes.has(id));
      if (!cable && !box) return [];
      const tap = cable ? cable.to : tapOf(scene, box!);
      return tap
        ? [
            {
              where: cable ? sayLead(scene, cable) : deviceName(scene.rig, box!),
              why: textOf(f.says),
              tap,
              weight: f.severity === 'watch' ? 0.5 : 0.9,
            },
          ]
        : [];
    });
}

/** Where something leaves a device on its way to the listener. */
export function tapOf({ pairs, evaluation }: Scene, deviceId: string): PortRef | null {
  for (const { ways } of pairs)
    for (const { arrival } of ways)
      for (let at: typeof arrival | null = arrival; at; at = at.from) {
        const { deviceId: id, portId } = evaluation.graph.nodes[at.node]!;
        if (id === deviceId) return { deviceId, portId };
      }
  return null;
}

/** Steps of all ways with what a rule makes of each. */
export function onRungs(scene: Scene, read: (rung: Rung) => Omit<Place, 'where' | 'tap'> | null): Place[] {
  return scene.ladders.flatMap((ladder) =>
    ladder.rungs.flatMap((rung): Place[] => {
      const found = rung.deviceId ? read(rung) : null;
      const tap = found && tapOf(scene, rung.deviceId!);
      return found && tap ? [{ ...found, where: say.stageOf({ device: rung.box, stage: rung.stage }), tap }] : [];
    }),
  );
}
