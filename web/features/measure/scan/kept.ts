import { z } from 'zod';
import { Scan } from '#core/desk-tests/scan/index.ts';
import { keep, readKept } from '#web/shared/store/index.ts';

/** The scan that later ones of a rig are held against, as this browser keeps it: ids of devices hold in this browser only. */
const nameOf = (rigId: string): string => `mellow.scan.${rigId}`;

export const readReference = (rigId: string): Scan | null => readKept(nameOf(rigId), Scan);

/** @returns false where the browser has no room */
export const keepReference = (rigId: string, scan: Scan): boolean => keep(nameOf(rigId), scan);

const End = z.object({ deviceId: z.string().max(64), portId: z.string().max(64) }).nullable();
const Chosen = z.object({
  computerId: z.string().max(64).nullable(),
  outputs: z.record(z.string().max(200), End),
  inputs: z.record(z.string().max(200), End),
});
/** What someone said of which device is which; what is not in it goes by names. */
export type Chosen = z.infer<typeof Chosen>;
const NOTHING: Chosen = { computerId: null, outputs: {}, inputs: {} };

const devicesOf = (rigId: string): string => `mellow.scan-devices.${rigId}`;
export const readChosen = (rigId: string): Chosen => readKept(devicesOf(rigId), Chosen) ?? NOTHING;
export const keepChosen = (rigId: string, chosen: Chosen): boolean => keep(devicesOf(rigId), chosen);
