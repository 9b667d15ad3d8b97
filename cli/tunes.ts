import { readTap, type TuneReading } from '#core/tap/index.ts';
import { type Command, withWavs } from './command.ts';
import { loadFft } from './edges.ts';

/** Which tunes a take holds: how loud, when, how often, and how sure that is. */
export const tunes: Command = (files, options) =>
  withWavs(files, options, async ([file]) => {
    const reading = await readTap(await loadFft(), file!);
    if (!reading) return { json: { tunes: null }, text: 'Silent, or too short (under nine seconds) to find a tune.' };
    return { json: { tunes: reading.tunes.map(told) }, text: reading.tunes.map(say).join('\n') };
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

function say({ id, word, confidence, heard }: TuneReading): string {
  const name = `tune ${String(id + 1).padStart(2)}`;
  if (!heard) return `${name}  ${word === 'perhaps' ? 'possible' : 'not found'}`;
  const ways = heard.seconds.ways.map((w) => `again ${w.afterMs.toFixed(1)} ms, -${w.underDb.toFixed(0)} dB`);
  return [
    `${name}  at ${heard.atMs.toFixed(1)} ms, ${heard.gainDb.toFixed(1)} dB`,
    ...(heard.ppm === null ? [] : [`${heard.ppm.toFixed(1)} ppm`]),
    ...(heard.wander
      ? [`delay varies from ${heard.wander.earliestMs.toFixed(0)} to ${heard.wander.latestMs.toFixed(0)} ms`]
      : []),
    ...ways,
    ...(heard.jump ? [`jumps by ${heard.jump.ms.toFixed(0)} ms`] : []),
    `confidence ${confidence}`,
  ].join(', ');
}
