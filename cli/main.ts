import '#words/core.ts';
import { parseArgs } from 'node:util';
import { type Said, SaidError } from '#core/base/said/index.ts';
import { cli as say, textOf } from '#words/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';

interface Entry {
  /** Its name, what has to be named, and the options that need a value. */
  readonly usage: string;
  /** Options with a value that may be left out. */
  readonly may?: readonly string[];
  /** Options without a value. */
  readonly flags?: readonly string[];
  readonly load: () => Promise<Command>;
}

/** A file a command; each is loaded when it is asked for, so that starting costs nothing. */
const COMMANDS: Record<string, Entry> = {
  hear: { usage: 'hear RIG.json', may: ['--moment'], load: async () => (await import('./hear.ts')).hear },
  align: {
    usage: 'align RIG.json',
    may: ['--moment', '--tracks'],
    load: async () => (await import('./align.ts')).align,
  },
  check: { usage: 'check RIG.json', load: async () => (await import('./check.ts')).check },
  order: { usage: 'order RIG.json', may: ['--for', '--since'], load: async () => (await import('./order.ts')).order },
  trouble: {
    usage: 'trouble RIG.json SYMPTOM LISTENER',
    may: ['--source', '--said'],
    load: async () => (await import('./trouble.ts')).trouble,
  },
  tap: { usage: 'tap RIG.json DEVICE.PORT', may: ['--moment'], load: async () => (await import('./tap.ts')).tap },
  new: { usage: 'new LINE', load: async () => (await import('./new.ts')).newRig },
  plug: { usage: 'plug RIG.json DEVICE.PORT', load: async () => (await import('./plug.ts')).plug },
  export: { usage: 'export RIG.json FORM --paper P', load: async () => (await import('./export.ts')).exportRig },
  offset: { usage: 'offset REF OTHER', load: async () => (await import('./offset.ts')).offset },
  correct: {
    usage: 'correct REF OTHER OUT.wav',
    may: ['--time-reference'],
    load: async () => (await import('./correct.ts')).correct,
  },
  tune: { usage: 'tune NUMBER OUT.wav', may: ['--rate'], load: async () => (await import('./tune.ts')).tune },
  tunes: { usage: 'tunes FILE', load: async () => (await import('./tunes.ts')).tunes },
  loudness: { usage: 'loudness FILE', load: async () => (await import('./loudness.ts')).loudness },
  diagnose: { usage: 'diagnose FILE', load: async () => (await import('./diagnose.ts')).diagnose },
  claps: { usage: 'claps FILE', load: async () => (await import('./claps.ts')).claps },
  backup: { usage: 'backup OUT.zip', load: async () => (await import('./backup.ts')).backup },
  restore: {
    usage: 'restore IN.zip',
    flags: ['--preview'],
    load: async () => (await import('./restore.ts')).restore,
  },
  verify: { usage: 'verify', load: async () => (await import('./verify.ts')).verify },
  picture: {
    usage: 'picture MODE --bits N --chroma C',
    load: async () => (await import('./picture.ts')).picture,
  },
};

/** What a command line names: things in order, options with their values, and bare flags. */
function readArguments({ usage, may = [], flags: bare = [] }: Entry, args: readonly string[]) {
  const words = usage.split(' ').slice(1);
  const valued = words.filter((w) => w.startsWith('--'));
  const use = say.usingJson({
    usage: `mellow ${usage}${may.map((m) => ` [${m} M]`).join('')}${bare.map((f) => ` [${f}]`).join('')}`,
  });
  const option = (type: 'string' | 'boolean') => (name: string) => [name.slice(2), { type }] as const;
  const options = Object.fromEntries([
    ...[...valued, ...may].map(option('string')),
    ...['--json', '--as-it-is', ...bare].map(option('boolean')),
  ]);
  const {
    values: given,
    positionals,
    tokens,
  } = parseArgs({
    args: [...args],
    options,
    allowPositionals: true,
    strict: false,
    tokens: true,
  });
  for (const token of tokens) {
    if (token.kind !== 'option') continue;
    const known = options[token.name];
    if (!known || token.rawName !== `--${token.name}` || (known.type === 'boolean' && token.value !== undefined))
      throw new UsageError(say.unknownOption({ arg: token.rawName, use }));
    if (known.type === 'string' && token.value === undefined)
      throw new UsageError(say.needsValue({ arg: token.rawName, use }));
  }
  const values = Object.fromEntries(
    Object.entries(given).filter((entry): entry is [string, string] => typeof entry[1] === 'string'),
  );
  const wanted = words.length - 2 * valued.length;
  if (positionals.length !== wanted || valued.some((v) => values[v.slice(2)] === undefined)) throw new UsageError(use);
  const flags = new Set(Object.keys(given).filter((name) => given[name] === true));
  return { named: positionals, values, flags };
}

const usage = (): string =>
  [
    'mellow COMMAND [--json]',
    ...Object.values(COMMANDS).map(
      (c) =>
        `  mellow ${c.usage}${[...(c.may ?? []).map((m) => `${m} M`), ...(c.flags ?? [])].map((m) => ` [${m}]`).join('')}`,
    ),
    say.incompleteWavFilesAre(),
  ].join('\n');

/** What core says stands in JSON as its sentence; `JSON.stringify` asks this of every value. */
const spoken = (_: string, value: unknown): unknown =>
  typeof value === 'object' && value !== null && Object.hasOwn(value, 'toString') ? textOf(value as Said) : value;

async function run(args: readonly string[]): Promise<number> {
  const [name = '', ...rest] = args;
  if (name === '' || name === 'help' || name === '--help') {
    process.stdout.write(`${usage()}\n`);
    return 0;
  }
  const command = COMMANDS[name];
  if (!command) throw new UsageError(say.unknownCommandChooseOne({ name, names: Object.keys(COMMANDS).join(', ') }));
  const { named, values, flags } = readArguments(command, rest);
  const answer = await (await command.load())(named, { asItIs: flags.has('as-it-is'), values, flags });
  process.stdout.write(flags.has('json') ? `${JSON.stringify(answer.json, spoken)}\n` : `${answer.text}\n`);
  if (answer.notes && !flags.has('json')) process.stderr.write(`${answer.notes}\n`);
  return answer.exitCode ?? 0;
}

/**
 * Keeps the event loop alive while a command runs. Loading WebAssembly leaves the loop empty, and Node.js 20 then blocks
 * this thread until all jobs of the engine have ended; a compile job that waits for this thread to collect garbage never
 * ends (one run in four hung so on a busy machine).
 */
const alive = setInterval(() => {}, 1000);

run(process.argv.slice(2))
  .then((code) => {
    process.exitCode = code;
  })
  .catch((error: unknown) => {
    // What a user can do something about: misuse, and what core refuses. Anything else is ours, and says so.
    const known = error instanceof UsageError || error instanceof SaidError;
    const message = error instanceof Error ? error.message : String(error);
    process.stderr.write(
      `mellow: ${(known ? message : say.internalErrorPleaseReport({ message })).replace(/\s+/g, ' ')}\n`,
    );
    process.exitCode = 2;
  })
  .finally(() => clearInterval(alive));
