import type { Text } from '#core/base/said/index.ts';
import { PLUGS, type PlugId } from './connectors.ts';
import { say } from './sayings.ts';

/**
 * What a cable or adapter is right for: one sound over two wires and a screen, one over a wire and a screen, two sides, a
 * headset, bits, or power alone; one sound to both sides, both sides to one, a microphone alone onto the fourth contact.
 */
export type Form =
  | 'balanced'
  | 'mono'
  | 'stereo'
  | 'headset'
  | 'loudspeaker'
  | 'bits'
  | 'power'
  | 'both'
  | 'sum'
  | 'microphone';

/**
 * Wires that do not run straight from contact to contact. `both-balanced` has two wires for each of the two sides; `sum`
 * joins sides through resistors, `joined` without.
 */
export type WiredAs = 'both' | 'both-balanced' | 'sum' | 'joined' | 'microphone';

interface PartBase {
  readonly id: string;
  readonly name: Text;
  readonly forms: readonly Form[];
  /** Euros, low and high, as such things usually cost. */
  readonly price: readonly [number, number];
  /** What it adds to the chance of a bad contact or a bent socket; a plain lead is 1. */
  readonly fragility: number;
  /** Its wires run as this form has them, and not straight from contact to contact. */
  readonly wiredAs?: WiredAs;
}
/** A cable with a plug at each end. One-way leads carry from `ends[0]` to `ends[1]` only. */
interface Lead extends PartBase {
  readonly kind: 'lead';
  readonly ends: readonly [PlugId, PlugId];
  readonly oneWay: boolean;
}
/** Goes between a plug and a socket: takes the plug, and is itself the other plug. */
interface Adapter extends PartBase {
  readonly kind: 'adapter';
  readonly takes: PlugId;
  readonly gives: PlugId;
}
export type Part = Lead | Adapter;

const lead = (
  ends: [PlugId, PlugId],
  forms: Form[],
  price: [number, number],
  {
    name = '',
    oneWay = false,
    fragility = 1,
    wiredAs,
  }: { name?: Text; oneWay?: boolean; fragility?: number; wiredAs?: WiredAs } = {},
): Lead => ({
  kind: 'lead',
  id: `lead-${ends[0]}-${ends[1]}${wiredAs ? `-${wiredAs}` : ''}${forms[0] === 'power' ? '-power' : ''}`,
  ...(wiredAs && { wiredAs }),
  name: name || say.cableTo({ from: PLUGS[ends[0]], to: PLUGS[ends[1]] }),
  ends,
  forms,
  price,
  fragility,
  oneWay,
});
const adapter = (
  takes: PlugId,
  gives: PlugId,
  forms: Form[],
  price: [number, number],
  fragility = 1.5,
  { wiredAs, name = '' }: { wiredAs?: WiredAs; name?: Text } = {},
): Adapter => ({
  kind: 'adapter',
  id: `adapter-${takes}-${gives}${wiredAs && (wiredAs !== 'microphone' || takes === 'trrs-35') ? `-${wiredAs}` : ''}`,
  ...(wiredAs && { wiredAs }),
  name: name || say.adapterTo({ from: PLUGS[takes], to: PLUGS[gives] }),
  takes,
  gives,
  forms,
  price,
  fragility,
});

/** A USB lead without its data wires, as chargers bring them. */
const chargingLead = (ends: [PlugId, PlugId]): Lead =>
  lead(ends, ['power'], [2, 8], { name: say.cableToForCharging({ from: PLUGS[ends[0]], to: PLUGS[ends[1]] }) });

/** Cables and adapters that shops have, the usual ones; prices are typical. */
export const PARTS: readonly Part[] = [
  lead(['xlr-f', 'xlr-m'], ['balanced', 'bits'], [6, 20]),
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
  lead(['xlr-f', 'ts-635'], ['mono'], [6, 16], { name: say.cableXlrToUnbalanced() }),
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
  chargingLead(['usb-a', 'usb-c']),
  chargingLead(['usb-a', 'usb-micro']),
  chargingLead(['usb-a', 'usb-mini']),
  chargingLead(['usb-a', 'usb-b']),
  chargingLead(['usb-c', 'usb-c']),
  lead(['toslink', 'toslink'], ['bits'], [4, 15]),
  lead(['toslink', 'toslink-mini'], ['bits'], [5, 15]),
  lead(['rj45', 'rj45'], ['bits'], [3, 15]),
  lead(['wires', 'wires'], ['loudspeaker'], [4, 20]),
  lead(['locking', 'locking'], ['loudspeaker'], [12, 35]),
  lead(['pins-8', 'pins-8'], ['mono'], [12, 40], { name: say.cableEightPinsWired() }),
  lead(['xlr-f', 'pins-8'], ['mono'], [15, 50], { name: say.cableXlrToEight() }),
  lead(['trs-35', 'pins-8'], ['mono'], [15, 50], { name: say.cableMmToEight() }),
  lead(['locking', 'wires'], ['loudspeaker'], [10, 30]),
  lead(['trs-35', 'xlr-f-pair'], ['stereo'], [10, 25], { fragility: 1.2 }),
  lead(['xlr-f-pair', 'ts-635-pair'], ['stereo'], [12, 30]),
  lead(['xlr-f-pair', 'phono-pair'], ['stereo'], [10, 25]),
  lead(['ts-635', 'xlr-m'], ['mono'], [6, 16], { name: say.cableUnbalancedMmTo() }),
  lead(['phono', 'xlr-m'], ['mono'], [6, 16], { name: say.cableRcaPhonoTo() }),
  lead(['ts-635', 'xlr-m-pair'], ['both'], [12, 30], { wiredAs: 'both', name: say.cableMmMonoTo() }),
  lead(['trs-635', 'xlr-m-pair'], ['both'], [12, 30], {
    wiredAs: 'both-balanced',
    name: say.cableOneBalancedMm(),
  }),
  lead(['ts-635', 'ts-635-pair'], ['both'], [5, 14], { wiredAs: 'both', name: say.cableOneMmMono() }),
  lead(['ts-635', 'trs-35'], ['both'], [5, 12], {
    wiredAs: 'both',
    fragility: 1.2,
    name: say.cableMmMonoToBoth(),
  }),
  lead(['ts-635', 'phono-pair'], ['both'], [5, 12], {
    wiredAs: 'both',
    name: say.cableMmMonoToTwo(),
  }),
  lead(['xlr-f', 'trs-35'], ['both'], [8, 20], {
    wiredAs: 'both',
    fragility: 1.2,
    name: say.cableXlrToBoth(),
  }),
  lead(['xlr-f', 'ts-635-pair'], ['both'], [10, 25], { wiredAs: 'both', name: say.cableXlrToTwo() }),
  lead(['trs-635', 'trs-635-pair'], ['both'], [8, 20], {
    wiredAs: 'both-balanced',
    name: say.cableOneBalancedMmTo(),
  }),
  lead(['xlr-f', 'trs-635-pair'], ['both'], [12, 30], {
    wiredAs: 'both-balanced',
    name: say.cableXlrToTwoBalanced(),
  }),
  lead(['xlr-f', 'xlr-m-pair'], ['both'], [12, 30], { wiredAs: 'both-balanced', name: say.cableOneXlrTo() }),
  lead(['phono', 'phono-pair'], ['both'], [3, 8], { wiredAs: 'both', name: say.cableOneRcaPhono() }),
  lead(['trs-35', 'ts-635'], ['sum'], [8, 20], {
    wiredAs: 'sum',
    fragility: 1.2,
    name: say.cableMmStereoTo(),
  }),
  lead(['trs-35', 'xlr-m'], ['sum'], [12, 30], {
    wiredAs: 'sum',
    fragility: 1.2,
    name: say.cableMmStereoToOne(),
  }),
  lead(['trs-635', 'ts-635'], ['sum'], [8, 20], {
    wiredAs: 'sum',
    name: say.cableMmStereoToOneMono(),
  }),
  lead(['phono-pair', 'ts-635'], ['sum'], [8, 20], {
    wiredAs: 'sum',
    name: say.cableTwoRcaPhono(),
  }),
  lead(['trs-35', 'ts-35'], ['sum'], [6, 15], {
    wiredAs: 'sum',
    fragility: 1.2,
    name: say.cableMmStereoToMono(),
  }),
  lead(['ts-635-pair', 'ts-635'], ['sum'], [8, 20], {
    wiredAs: 'sum',
    name: say.cableTwoMmMono(),
  }),
  adapter('ts-35', 'trs-35', ['both'], [2, 6], 1.5, { wiredAs: 'both', name: say.adapterMmMonoTo() }),
  adapter('ts-635', 'trs-635', ['both'], [2, 6], 1.5, {
    wiredAs: 'both',
    name: say.adapterMmMonoToBoth(),
  }),
  adapter('ts-635', 'ts-35', ['mono', 'both'], [2, 6], 2),
  adapter('ts-35', 'phono', ['mono'], [2, 5], 1.5),
  adapter('trs-35', 'ts-635', ['mono'], [2, 6], 1.5, {
    wiredAs: 'joined',
    name: say.adapterMmToMm(),
  }),
  adapter('trs-35', 'xlr-m', ['mono'], [8, 25], 1.5, {
    wiredAs: 'joined',
    name: say.adapterMmMicPlug(),
  }),
  adapter('trrs-35', 'trs-35', ['stereo', 'headset'], [0, 0], 2, {
    name: say.headsetSplitterItsPlug(),
  }),
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
  adapter('trs-35', 'trrs-35', ['microphone'], [3, 8], 1.8, {
    wiredAs: 'microphone',
    name: say.adapterMmMicPlugTo(),
  }),
  adapter('trrs-35', 'trs-35', ['microphone'], [4, 12], 2, {
    wiredAs: 'microphone',
    name: say.headsetSplitterItsPlugMarked(),
  }),
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

/** Whether one of these parts has no wires but those that bring power. */
export const bringsPowerOnly = (parts: readonly Part[]): boolean => parts.some((p) => p.forms.includes('power'));
