// npm run check: the fast loop. Types, lint, and the unit tests of what changed.
import { ensureWasm, tool } from './steps.mjs';

ensureWasm();
for (const project of ['core', 'node', 'web']) tool('tsc', ['-p', `tsconfig.${project}.json`]);
tool('biome', ['check', '--error-on-warnings']);
tool('vitest', ['run', '--changed']);
