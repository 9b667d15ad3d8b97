import { z } from 'zod';
import { keep, readKept } from './browser.ts';

const NAME = 'mellow.last-rig';

/** The rig that was open last in this browser. */
export const readLastRig = (): string | null => readKept(NAME, z.uuid());
export const keepLastRig = (rigId: string): void => void keep(NAME, rigId);
