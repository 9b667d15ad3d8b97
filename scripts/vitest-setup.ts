import { ensureWasm } from './steps.mjs';

/** What tests import and only the build makes. */
export const setup = (): void => ensureWasm();
