import type { Command } from './command.ts';
import { UsageError } from './edges.ts';

/** A file a command; each is loaded when it is asked for, so that starting costs nothing. */
const COMMANDS: Record<string, { usage: string; load: () => Promise<Command> }> = {
  hear: { usage: 'hear RIG.json', load: async () => (await import('./hear.ts')).hear },
  offset: { usage: 'offset REF OTHER', load: async () => (await import('./offset.ts')).offset },
  claps: { usage: 'claps FILE', load: async () => (await import('./claps.ts')).claps },
};

const usage = (): string =>
  [
    'mellow COMMAND [--json]',
    ...Object.values(COMMANDS).map((c) => `  mellow ${c.usage}`),
    'WAV files cut short are refused; --as-it-is takes what is there.',
  ].join('\n');

/** What a user can do something about: typed errors of core, and misuse. Anything else is ours, and says so. */
const SAYS_ENOUGH = new Set(['RigError', 'WavError', 'MeasureError']);

async function run(args: readonly string[]): Promise<number> {
  const [name = '', ...rest] = args;
  if (name === '' || name === 'help' || name === '--help') {
    process.stdout.write(`${usage()}\n`);
    return 0;
  }
  const command = COMMANDS[name];
  if (!command) throw new UsageError(`There is no command '${name}'. There are: ${Object.keys(COMMANDS).join(', ')}.`);
  const flags = new Set(rest.filter((a) => a.startsWith('--')));
  const known = new Set(['--json', '--as-it-is']);
  const strange = [...flags].find((f) => !known.has(f));
  if (strange) throw new UsageError(`'${strange}' is not known here. Use: mellow ${command.usage} [--json]`);
  const files = rest.filter((a) => !a.startsWith('--'));
  const wanted = command.usage.split(' ').length - 1;
  if (files.length !== wanted) throw new UsageError(`Use: mellow ${command.usage} [--json]`);
  const answer = await (await command.load())(files, { asItIs: flags.has('--as-it-is') });
  process.stdout.write(flags.has('--json') ? `${JSON.stringify(answer.json)}\n` : `${answer.text}\n`);
  return 0;
}

run(process.argv.slice(2)).then(
  (code) => {
    process.exitCode = code;
  },
  (error: unknown) => {
    const known = error instanceof UsageError || (error instanceof Error && SAYS_ENOUGH.has(error.name));
    const message = error instanceof Error ? error.message : String(error);
    process.stderr.write(
      `mellow: ${(known ? message : `This should not have happened: ${message}`).replace(/\s+/g, ' ')}\n`,
    );
    process.exitCode = 2;
  },
);
