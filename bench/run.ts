// npm run bench [-- name …]: ratios against public tools, in one run on this machine.
import { ensureBuilt } from '../scripts/steps.mjs';
import { bands } from './bands.ts';
import { calls } from './calls.ts';
import { claps } from './claps.ts';
import { confidence } from './confidence.ts';
import { evaluation, transforms } from './core.ts';
import { archiving, day } from './day.ts';
import { files } from './files.ts';
import { loudnessOfAnHour } from './loudness.ts';
import { offsetOfAnHour } from './offset-hour.ts';
import { firstPaint } from './paint.ts';
import { panels } from './panels.ts';
import { pictures } from './pictures.ts';
import { wants } from './plan.ts';
import { relayTaps } from './relay-taps.ts';
import { type Bench, MissingTool, print, type Row } from './report.ts';
import { longSlates, slates } from './slates.ts';
import { aligning, drifting, joining } from './sync.ts';
import { taps } from './taps.ts';
import { checks, layouts, solving } from './wire.ts';

const benches: Record<string, Bench> = {
  evaluation,
  checks,
  layouts,
  solving,
  transforms,
  hour: offsetOfAnHour,
  confidence,
  files,
  claps,
  loudness: loudnessOfAnHour,
  paint: firstPaint,
  wants,
  pictures,
  slates,
  'long-slates': longSlates,
  aligning,
  joining,
  drifting,
  day,
  archiving,
  taps,
  bands,
  panels,
  'relay-taps': relayTaps,
  calls,
};

async function main(): Promise<void> {
  const chosen = process.argv.slice(2);
  const unknown = chosen.find((name) => !benches[name]);
  if (unknown) {
    process.stderr.write(`There is no bench '${unknown}'. There are: ${Object.keys(benches).join(', ')}.\n`);
    process.exit(2);
  }
  ensureBuilt();
  const rows: Row[] = [];
  for (const [name, bench] of Object.entries(benches)) {
    if (chosen.length > 0 && !chosen.includes(name)) continue;
    try {
      rows.push(...(await bench()));
    } catch (error) {
      if (!(error instanceof MissingTool)) throw error;
      process.stdout.write(`${name} left out. ${error.message}\n`);
    }
  }
  print(rows);
}

void main();
