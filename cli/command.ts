import { openWav, type Recording, WavError } from '#core/audio/samples/index.ts';
import { cli as say } from '#words/index.ts';
import { openFile, UsageError } from './edges.ts';

/** What a command says: one object for programs, a short text for people. */
export interface Answer {
  readonly json: object;
  readonly text: string;
  /** What people should know beside it: on the standard error, where the text is sent on. */
  readonly notes?: string;
  /** Other than 0 where something was found that should not be. */
  readonly exitCode?: number;
}
export interface CommandOptions {
  readonly asItIs: boolean;
  /** Options with a value, by name. */
  readonly values: Readonly<Record<string, string>>;
  /** Options without a value that were given. */
  readonly flags: ReadonlySet<string>;
}
export type Command = (files: readonly string[], options: CommandOptions) => Promise<Answer>;

/** Opens WAV files for the time of `use`; what was odd about them is told beside the answer. @throws UsageError that names the file */
export async function withWavs(
  paths: readonly string[],
  options: CommandOptions,
  use: (recordings: Recording[]) => Promise<Answer>,
): Promise<Answer> {
  const files: Awaited<ReturnType<typeof openFile>>[] = [];
  try {
    const recordings: Recording[] = [];
    for (const path of paths) {
      const file = await openFile(path);
      files.push(file);
      try {
        recordings.push(await openWav(file, options));
      } catch (error) {
        if (!(error instanceof WavError)) throw error;
        throw new UsageError(`${path}: ${error.message}${error.canBeSalvaged ? say.fromCommandLineAs() : ''}`);
      }
    }
    const answer = await use(recordings);
    const notes = recordings.flatMap((r, i) => (r.notes ?? []).map((note) => `${paths[i]}: ${note}`));
    return notes.length === 0
      ? answer
      : {
          ...answer,
          json: { ...answer.json, notes },
          notes: [...(answer.notes ? [answer.notes] : []), ...notes].join('\n'),
        };
  } finally {
    await Promise.all(files.map((f) => f.close()));
  }
}
