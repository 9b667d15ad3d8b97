import { Scan } from '#core/desk-tests/scan/index.ts';
import { keep, readKept } from '#web/shared/store/index.ts';

/** The scan that later ones of a rig are held against, as this browser keeps it: ids of devices hold in this browser only. */
const nameOf = (rigId: string): string => `mellow.scan.${rigId}`;

export const readReference = (rigId: string): Scan | null => readKept(nameOf(rigId), Scan);

/** @returns false where the browser has no room */
export const keepReference = (rigId: string, scan: Scan): boolean => keep(nameOf(rigId), scan);
