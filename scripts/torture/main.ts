import { parseArgs } from 'node:util';
import { crowd } from './crowd.ts';
import { Broken, type Figures } from './desk.ts';
import { full } from './full.ts';
import { hostile } from './hostile.ts';
import { killedUpdates, kills } from './kills.ts';
import { two } from './two.ts';

/** npm run torture [-- --minutes M --seed S --only STAGE]: what the data have to survive. The same seed asks for the same. */
const { values } = parseArgs({
  options: {
    minutes: { type: 'string', default: '10' },
    seed: { type: 'string', default: String(Date.now() % 1_000_000) },
    only: { type: 'string' },
  },
});
const seed = Number(values.seed);
const totalMs = Number(values.minutes) * 60_000;

interface Stage {
  readonly name: string;
  /** Its part of the time. */
  readonly share: number;
  run(seed: number, untilMs: number): Promise<Figures>;
}
const STAGES: readonly Stage[] = [
  { name: 'two servers', share: 0.05, run: two },
  { name: 'hostile', share: 0.15, run: hostile },
  { name: 'full disk', share: 0.1, run: full },
  { name: 'killed updates', share: 0.1, run: (s, until) => killedUpdates(s, until, 300) },
  { name: 'crowd', share: 0.2, run: (s, until) => crowd(s, until, 10_000) },
  { name: 'kills', share: 0.4, run: (s, until) => kills(s, until, 1000) },
];

process.stdout.write(`seed ${seed}, ${values.minutes} minutes\n`);
const stages = STAGES.filter((s) => values.only === undefined || s.name === values.only);
const shares = stages.reduce((sum, s) => sum + s.share, 0);
for (const { name, share, run } of stages) {
  const beganMs = Date.now();
  try {
    const figures = await run(seed, beganMs + (totalMs * share) / shares);
    const says = Object.entries(figures).map(([what, figure]) => `${what} ${figure}`);
    process.stdout.write(`${name}, ${((Date.now() - beganMs) / 1000).toFixed(0)} s: ${says.join(', ')}\n`);
  } catch (error) {
    process.stderr.write(
      `${name}, seed ${seed}: ${error instanceof Broken ? error.message : (error as Error).stack}\n`,
    );
    process.exit(1);
  }
}
