import { PLUGS, type PlugId } from './connectors.ts';

/** What a lead or adapter is right for: one sound over two wires and a screen, one over a wire and a screen, two sides, a headset, or bits. */
export type Form = 'balanced' | 'mono' | 'stereo' | 'headset' | 'loudspeaker' | 'bits';

interface PartBase {
  readonly id: string;
  readonly name: string;
  readonly forms: readonly Form[];
  /** Euros, low and high, as such things usually cost. */
  readonly price: readonly [number, number];
  /** What it adds to the chance of a bad contact or a bent socket; a plain lead is 1. */
  readonly fragility: number;
}
/** A lead with a plug at each end. One-way leads carry from `ends[0]` to `ends[1]` only. */
export interface Lead extends PartBase {
  readonly kind: 'lead';
  readonly ends: readonly [PlugId, PlugId];
  readonly oneWay: boolean;
}
/** Goes between a plug and a socket: takes the plug, and is itself the other plug. */
export interface Adapter extends PartBase {
  readonly kind: 'adapter';
  readonly takes: PlugId;
  readonly gives: PlugId;
}
export type Part = Lead | Adapter;

const lead = (
  ends: [PlugId, PlugId],
  forms: Form[],
  price: [number, number],
  { name = '', oneWay = false, fragility = 1 } = {},
): Lead => ({
  kind: 'lead',
  id: `lead-${ends[0]}-${ends[1]}`,
  name: name || `lead, ${PLUGS[ends[0]]} to ${PLUGS[ends[1]]}`,
  ends,
  forms,
  price,
  fragility,
  oneWay,
});
const adapter = (takes: PlugId, gives: PlugId, forms: Form[], price: [number, number], fragility = 1.5): Adapter => ({
  kind: 'adapter',
  id: `adapter-${takes}-${gives}`,
  name: `adapter, ${PLUGS[takes]} to ${PLUGS[gives]}`,
  takes,
  gives,
  forms,
  price,
  fragility,
});

/** Leads and adapters that shops have, the usual ones; prices are typical. */
export const PARTS: readonly Part[] = [
  lead(['xlr-f', 'xlr-m'], ['balanced'], [6, 20]),
  lead(['xlr-f', 'trs-635'], ['balanced'], [7, 20]),
  lead(['trs-635', 'xlr-m'], ['balanced'], [7, 20]),
  lead(['trs-635', 'trs-635'], ['balanced', 'stereo'], [6, 18]),
  lead(['xlr-f-pair', 'xlr-m-pair'], ['stereo'], [12, 40]),
  lead(['xlr-f-pair', 'trs-635-pair'], ['stereo'], [14, 40]),
  lead(['trs-635-pair', 'xlr-m-pair'], ['stereo'], [14, 40]),
  lead(['trs-635-pair', 'trs-635-pair'], ['stereo'], [12, 36]),
  lead(['ts-635', 'ts-635'], ['mono'], [5, 18]),
  lead(['ts-635', 'phono'], ['mono'], [4, 12]),
  lead(['ts-635-pair', 'ts-635-pair'], ['stereo'], [8, 25]),
  lead(['phono', 'phono'], ['mono', 'bits'], [3, 12]),
  lead(['phono-pair', 'phono-pair'], ['stereo'], [4, 15]),
  lead(['phono-pair', 'ts-635-pair'], ['stereo'], [6, 18]),
  lead(['phono-pair', 'xlr-m-pair'], ['stereo'], [10, 25]),
  lead(['trs-35', 'trs-35'], ['stereo'], [3, 10], { fragility: 1.2 }),
  lead(['trs-35', 'ts-635-pair'], ['stereo'], [5, 15], { fragility: 1.2 }),
  lead(['trs-35', 'phono-pair'], ['stereo'], [4, 12], { fragility: 1.2 }),
  lead(['trs-35', 'trs-635'], ['stereo'], [4, 12], { fragility: 1.2 }),
  lead(['trs-35', 'xlr-m-pair'], ['stereo'], [10, 25], { fragility: 1.2 }),
  lead(['trs-635', 'ts-635-pair'], ['stereo'], [6, 18]),
  lead(['trs-635', 'phono-pair'], ['stereo'], [6, 16]),
  lead(['ts-35', 'ts-35'], ['mono'], [3, 8], { fragility: 1.2 }),
  lead(['ts-35', 'ts-635'], ['mono'], [4, 10], { fragility: 1.2 }),
  lead(['trs-35', 'trs-25'], ['stereo'], [4, 10], { fragility: 1.4 }),
  lead(['xlr-f', 'ts-635'], ['mono'], [6, 16], { name: 'lead, XLR to unbalanced 6.35 mm' }),
  lead(['trrs-35', 'trrs-35'], ['headset', 'stereo'], [4, 10], { fragility: 1.2 }),
  lead(['hdmi', 'hdmi'], ['bits'], [5, 20]),
  lead(['hdmi-mini', 'hdmi'], ['bits'], [7, 20], { fragility: 1.5 }),
  lead(['hdmi-micro', 'hdmi'], ['bits'], [7, 20], { fragility: 2 }),
  lead(['usb-a', 'usb-b'], ['bits'], [3, 12]),
  lead(['usb-a', 'usb-b3'], ['bits'], [5, 15]),
  lead(['usb-a', 'usb-c'], ['bits'], [4, 15]),
  lead(['usb-a', 'usb-mini'], ['bits'], [3, 10]),
  lead(['usb-a', 'usb-micro'], ['bits'], [3, 10], { fragility: 1.4 }),
  lead(['usb-c', 'usb-c'], ['bits'], [6, 30]),
  lead(['usb-c', 'usb-b'], ['bits'], [5, 15]),
  lead(['usb-c', 'usb-b3'], ['bits'], [7, 20]),
  lead(['usb-c', 'usb-micro'], ['bits'], [5, 12], { fragility: 1.4 }),
  lead(['usb-c', 'usb-mini'], ['bits'], [5, 12]),
  lead(['toslink', 'toslink'], ['bits'], [4, 15]),
  lead(['toslink', 'toslink-mini'], ['bits'], [5, 15]),
  lead(['rj45', 'rj45'], ['bits'], [3, 15]),
  lead(['wires', 'wires'], ['loudspeaker'], [4, 20]),
  lead(['locking', 'locking'], ['loudspeaker'], [12, 35]),
  lead(['pins-8', 'pins-8'], ['mono'], [12, 40], { name: 'lead, eight pins, wired for the radio' }),
  lead(['xlr-f', 'pins-8'], ['mono'], [15, 50], { name: 'lead, XLR to eight pins, wired for the radio' }),
  lead(['trs-35', 'pins-8'], ['mono'], [15, 50], { name: 'lead, 3.5 mm to eight pins, wired for the radio' }),
  lead(['locking', 'wires'], ['loudspeaker'], [10, 30]),
  adapter('trs-35', 'trs-635', ['stereo'], [2, 6]),
  adapter('trs-635', 'trs-35', ['stereo'], [2, 8], 2.5),
  adapter('ts-635', 'phono', ['mono'], [2, 5]),
  adapter('phono', 'ts-635', ['mono'], [2, 5]),
  adapter('phono-pair', 'ts-635-pair', ['stereo'], [3, 8]),
  adapter('phono-pair', 'trs-35', ['stereo'], [3, 8], 2),
  adapter('ts-635-pair', 'phono-pair', ['stereo'], [3, 8]),
  adapter('ts-35', 'ts-635', ['mono'], [2, 5]),
  adapter('trs-25', 'trs-35', ['stereo'], [2, 6], 2),
  adapter('trs-35', 'trs-25', ['stereo'], [2, 6], 2),
  adapter('trs-635', 'xlr-m', ['balanced'], [5, 12]),
  adapter('xlr-m', 'trs-635', ['balanced'], [5, 12]),
  adapter('xlr-f', 'trs-635', ['balanced'], [5, 12]),
  adapter('xlr-f', 'xlr-m', ['balanced'], [6, 14]),
  adapter('trs-35', 'trrs-35', ['mono'], [3, 8], 1.8),
  adapter('trs-35-pair', 'trrs-35', ['headset'], [4, 10], 2),
  adapter('trrs-35', 'trs-35-pair', ['headset'], [4, 12], 2),
  adapter('hdmi', 'hdmi-mini', ['bits'], [3, 10], 2.5),
  adapter('hdmi', 'hdmi-micro', ['bits'], [3, 10], 3),
  adapter('hdmi-mini', 'hdmi', ['bits'], [3, 10], 2),
  adapter('usb-a', 'usb-c', ['bits'], [3, 10], 1.5),
  adapter('usb-c', 'usb-a', ['bits'], [3, 10], 1.5),
  adapter('usb-micro', 'usb-c', ['bits'], [2, 6], 2),
  adapter('toslink', 'toslink-mini', ['bits'], [1, 4], 1.5),
  adapter('toslink-mini', 'toslink', ['bits'], [1, 4], 1.5),
];
