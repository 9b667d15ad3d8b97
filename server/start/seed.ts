import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import PFFFT from '@echogarden/pffft-wasm/simd';
import { fftOver, type PffftModule } from '#core/audio/samples/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayDeskMixer, quayDeskStraight } from '#demo/quay-desk.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { relayDays } from '#demo/relay-days.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { demoTakes } from '#demo/takes.ts';
import type { Server } from './app.ts';

/** Fixed ids: seeding twice, or after a stop halfway, makes nothing twice. */
const DEMO_RIG_ID = '0b0a7405-e000-4000-8000-000000000001';
/** Rigs without takes; they come first, and count for nothing in whether the demo was ever there. */
const OTHERS = [quayTalk, gliderCorner, skerryNet, clayHour, mothNight, quayDeskMixer, quayDeskStraight];
const rigId = (n: number): string => `0b0a7405-e000-4000-8000-${String(n).padStart(12, '0')}`;
const takeId = (n: number): string => `7a4e0000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const VIDEOS = [
  { id: takeId(1), name: 'couch clap.mp4', file: 'couch-clap.mp4' },
  { id: takeId(11), name: 'quay talk, camera with slates.mp4', file: 'quay-slates.mp4' },
];

/** Puts the demo rigs and the takes of the Boathouse relay and of Quay talk there, once: that rig comes last, and was it ever there, all is left as it is. */
export async function seedDemo({ rigs, takes, day }: Server, takesFolder: string): Promise<boolean> {
  if (await rigs.known(DEMO_RIG_ID)) return false;
  for (const { id, name, file } of VIDEOS) {
    const path = join(takesFolder, file);
    const { size } = await stat(path);
    await takes.add(id, name, createReadStream(path), size);
  }
  const fftOf = fftOver((await PFFFT()) as PffftModule);
  for (const [i, take] of demoTakes.entries()) {
    const bytes = take.render(fftOf);
    await takes.add(takeId(i + 2), take.name, Readable.from([Buffer.from(bytes)]), bytes.length);
  }
  for (const [i, rig] of OTHERS.entries()) {
    const id = rigId(i + 2);
    if (!(await rigs.known(id))) await rigs.create(id, parseRig(rig));
  }
  await rigs.create(DEMO_RIG_ID, parseRig(boathouse));
  await day.tell(DEMO_RIG_ID, relayDays());
  return true;
}
