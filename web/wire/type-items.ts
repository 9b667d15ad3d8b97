import { useMemo } from 'react';
import { findTypes, type Rig } from '#core/rig/index.ts';
import type { PickItem } from '#web/parts/index.ts';

const price = (range: readonly [number, number] | undefined): string =>
  range ? ` ${range[0]} to ${range[1]} euros.` : '';

/** One search over every type, own ones first. */
export function useTypeItems(rig: Rig): PickItem[] {
  return useMemo(() => {
    const own = new Set(rig.types.map((t) => t.id));
    return [...findTypes(rig).values()]
      .sort((a, b) => Number(own.has(b.id)) - Number(own.has(a.id)))
      .map((t) => ({ id: t.id, label: t.name, note: `${t.summary}${price(t.priceEur)}` }));
  }, [rig]);
}
