import { readTap, type TuneReading } from '#core/desk-tests/tunes/index.ts';
import { cli as say } from '#words/index.ts';
import { type Command, withWavs } from './command.ts';
import { loadFft } from './edges.ts';

/** Which tunes a take holds: how loud, when, how often, and how sure that is. */
export const tunes: Command = (files, options) =>
  withWavs(files, options, async ([file]) => {
    const reading = await readTap(await loadFft(), file!);
    if (!reading) return { json: { tunes: null }, text: say.silentOrTooShort() };
    return { json: { tunes: reading.tunes.map(told) }, text: reading.tunes.map(line).join('\n') };
  });

const rounded = (x: number, digits = 3): number => Number(x.toFixed(digits));

function told({ id, word, overChance, confidence, heard }: TuneReading) {
  const base = { tune: id + 1, word, overChance: rounded(overChance, 1), confidence };
  if (!heard) return base;
  return {
    ...base,
    atMs: rounded(heard.atMs),
    gainDb: rounded(heard.gainDb, 2),
    ppm: heard.ppm === null ? null : rounded(heard.ppm, 1),
    polarity: heard.polarity,
    seconds: heard.seconds.ways.map((w) => ({ afterMs: rounded(w.afterMs, 2), underDb: rounded(w.underDb, 1) })),
    jump: heard.jump,
    wander: heard.wander,
    bands: heard.bands.map((b) => ({ ...b, db: b.db === null ? null : rounded(b.db, 1) })),
  };
}

function line({ id, word, confidence, heard }: TuneReading): string {
  const name = say.tune({ number: String(id + 1).padStart(2) });
  if (!heard) return `${name}  ${word === 'perhaps' ? say.possible() : say.notFound()}`;
  const ways = heard.seconds.ways.map((w) =>
    say.againMsDb({ afterMs: w.afterMs.toFixed(1), underDb: w.underDb.toFixed(0) }),
  );
  return [
    say.atMsDb({ tune: name, atMs: heard.atMs.toFixed(1), gainDb: heard.gainDb.toFixed(1) }),
    ...(heard.ppm === null ? [] : [say.ppm({ ppm: heard.ppm.toFixed(1) })]),
    ...(heard.wander
      ? [
          say.delayVariesFromTo({
            earliestMs: heard.wander.earliestMs.toFixed(0),
            latestMs: heard.wander.latestMs.toFixed(0),
          }),
        ]
      : []),
    ...ways,
    ...(heard.jump ? [say.jumpsByMs({ ms: heard.jump.ms.toFixed(0) })] : []),
    say.confidence({ confidence: confidence ?? '' }),
  ].join(', ');
}
