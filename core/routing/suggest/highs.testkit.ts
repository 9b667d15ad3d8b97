import loadHighs from 'highs';
import { programsOver } from './program.ts';

/** The solver for tests. */
export const testPrograms = async () => programsOver(await loadHighs());
