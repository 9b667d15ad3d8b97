import { useMemo } from 'react';
import { findTypes, purposesOf, type Rig } from '#core/rig/index.ts';
import type { PickItem } from '#web/parts/index.ts';

const price = (range: readonly [number, number] | undefined): string =>
  range ? ` ${range[0]} to ${range[1]} euros.` : '';

/** Families as headings. */
const FAMILIES: Readonly<Record<string, string>> = {
  people: 'People',
  consoles: 'Game consoles',
  hdmi: 'HDMI: switches, splitters, extractors',
  capture: 'Capture devices',
  screens: 'Screens',
  cameras: 'Cameras',
  computers: 'Computers and phones',
  microphones: 'Microphones',
  instruments: 'Instruments and players',
  interfaces: 'Audio interfaces',
  mixers: 'Mixers',
  recorders: 'Recorders',
  converters: 'Converters',
  headphones: 'Headphones and headsets',
  loudspeakers: 'Loudspeakers',
  'two-way': 'Two-way radios',
  'radio-links': 'Radio links and in-ears',
  controllers: 'Controllers',
  power: 'Power and USB hubs',
  programs: 'Apps',
};

/** One search over every type, own ones first: by its name, by what others call it, by what it is for. */
export function useTypeItems(rig: Rig): PickItem[] {
  return useMemo(() => {
    const own = new Set(rig.types.map((t) => t.id));
    return [...findTypes(rig).values()]
      .sort((a, b) => Number(own.has(b.id)) - Number(own.has(a.id)))
      .map((t) => ({
        id: t.id,
        label: t.name,
        note: `${t.summary}${price(t.priceEur)}`,
        also: [...(t.words ?? []), ...purposesOf(t.id)].join(', '),
        group: own.has(t.id) ? 'Your own' : (FAMILIES[t.family] ?? t.family),
      }));
  }, [rig]);
}
