import { useMemo } from 'react';
import { findTypes, purposesOf, type Rig } from '#core/model/rig/index.ts';
import type { PickItem } from '#web/shared/parts/index.ts';
import { wire as say } from '#words/index.ts';

const price = (range: readonly [number, number] | undefined): string =>
  range ? say.toEuros({ n0: range[0], n1: range[1] }) : '';

/** Families as headings. */
const FAMILIES: Readonly<Record<string, string>> = {
  people: say.people(),
  consoles: say.gameConsoles(),
  hdmi: say.hdmiSwitchesSplitters(),
  capture: say.usbAndInternalCapture(),
  screens: say.displays(),
  cameras: say.cameras(),
  computers: say.computersAndPhones(),
  microphones: say.microphones(),
  instruments: say.instrumentsAndPlayers(),
  interfaces: say.audioInterfaces(),
  mixers: say.mixers(),
  recorders: say.recorders(),
  converters: say.converters(),
  headphones: say.headphonesAndHeadsets(),
  loudspeakers: say.speakers(),
  'two-way': say.twoWayRadios(),
  'radio-links': say.wirelessLinksAndIn(),
  controllers: say.controllers(),
  power: say.powerAndUsbHubs(),
  programs: say.apps(),
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
        group: own.has(t.id) ? say.yourOwn() : (FAMILIES[t.family] ?? t.family),
      }));
  }, [rig]);
}
