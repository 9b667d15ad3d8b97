// npm run check: the fast loop. Types, lint, dead code, and the unit tests of what changed.
import { checkTypes, tool } from './steps.mjs';

checkTypes();
tool('biome', ['check', '--error-on-warnings']);
tool('knip', ['--no-config-hints', '--cache', '--cache-location', '.mellow/knip']);
tool('vitest', ['run', '--changed']);
