import { TUNES } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';

/** Which tune a source plays, and what is known of its player. */
export interface Player {
  readonly sourceId: string;
  readonly tune: number;
  /** Sources with the same one are played by one device at one press. */
  readonly playerId: string;
  /** Takes for which its acoustic delay is known: the phone was at that microphone. */
  readonly knownAt: readonly string[];
}
export type Players = readonly Player[];

/**
 * Every source with its own tune, in the rig's order: any machine deals the same. Beyond sixteen there are none.
 * @param before  what is already known of the players
 * @param isBegun  takes were made: a source then keeps the tune that it had, and those that are new get free ones
 */
export function playersOf(rig: Rig, before: Players = [], isBegun = false): Player[] {
  const isHere = (id: string) => rig.sources.some((s) => s.id === id);
  const kept = new Map(before.filter((p) => isHere(p.sourceId)).map((p) => [p.sourceId, p]));
  const taken = isBegun ? [...kept.values()].map((p) => p.tune) : [];
  const free = Array.from({ length: TUNES }, (_, tune) => tune).filter((tune) => !taken.includes(tune));
  return rig.sources.flatMap(({ id }): Player[] => {
    const own = kept.get(id);
    const tune = isBegun && own ? own.tune : free.shift();
    if (tune === undefined) return [];
    const playerId = own && isHere(own.playerId) ? own.playerId : id;
    const knownAt = (own?.knownAt ?? []).filter((l) => rig.listeners.some((r) => r.id === l));
    return [{ sourceId: id, tune, playerId, knownAt }];
  });
}
