import { type Text, textOf } from '#core/base/said/index.ts';
import { findTypes, type Rig } from '#core/model/rig/index.ts';
import { chainOf, leadsOf } from '#core/rules/index.ts';

/** A thing to have, how often, and what it costs each, in euros as such things usually cost. */
export interface Item {
  readonly name: Text;
  readonly count: number;
  /** One length for each cable, the shortest first; none for adapters. */
  readonly lengthsM: readonly number[];
  readonly price: readonly [number, number];
}

/** Cables and adapters of a rig, each kind once, by name. */
export function shoppingList(rig: Rig): Item[] {
  const items = new Map<string, { name: Text; count: number; lengthsM: number[]; price: readonly [number, number] }>();
  for (const lead of leadsOf(rig, findTypes(rig)).filter((l) => !l.twin)) {
    const chain = chainOf(lead);
    if (!chain || chain === 'nothing-to-plug') continue;
    for (const part of chain.parts) {
      const item = items.get(part.id) ?? { name: part.name, count: 0, lengthsM: [], price: part.price };
      item.count++;
      if (part.kind === 'lead') item.lengthsM.push(lead.cable.lengthM);
      items.set(part.id, item);
    }
  }
  return [...items.values()]
    .map((item) => ({ ...item, lengthsM: item.lengthsM.sort((a, b) => a - b) }))
    .sort((a, b) => textOf(a.name).localeCompare(textOf(b.name), 'en'));
}
