import { stat } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { seriesToCsv, sessionsToCsv } from '#core/report/index.ts';
import { parseRig, type Rig } from '#core/rig/index.ts';
import { type DayEvent, type Session, seriesOf, sessionsOf } from '#core/run/index.ts';
import type { DayService } from '../day/service.ts';
import type { PhotoService } from '../photos/service.ts';
import type { RigService } from '../rigs/service.ts';
import type { TakeService } from '../takes/service.ts';
import { fileNames, LOG_FILE, MANIFEST_FILE, type Manifest, RIG_FILE } from './manifest.ts';

export interface ArchiveParts {
  readonly rigs: RigService;
  readonly takes: TakeService;
  readonly photos: PhotoService;
  readonly day: DayService;
  readonly now: () => Date;
}

export interface Archive {
  readonly name: string;
  readonly bytes: number;
  readonly stream: Readable;
}

/** A rig with its log, its takes and its photographs as one plain zip, streamed; takes as they are, not squeezed. */
export async function writeArchive(parts: ArchiveParts, rigId: string, allTakes: boolean): Promise<Archive> {
  const { rigs, takes, photos, day, now } = parts;
  const rig = parseRig((await rigs.get(rigId)).document);
  const events = await allEvents(day, rigId);
  const all = await takes.list();
  const own = all.filter((t) => allTakes || t.usedBy.includes(rigId) || t.notes?.speaksOf?.rigId === rigId);
  const files = fileNames(
    own.map((t) => t.name),
    'takes',
  );
  const pictures = rig.devices.flatMap((d) => d.photos ?? []);
  const shas = [...new Set(pictures.map((p) => p.sha256))];
  const found = (
    await Promise.all(
      shas.map((sha256) =>
        photos.fileOf(sha256).then(
          (f) => ({ ...f, sha256 }),
          () => null,
        ),
      ),
    )
  ).filter((f) => f !== null);
  const manifest: Manifest = {
    kind: 'mellow-tap-archive',
    version: 1,
    rigId,
    name: rig.name,
    madeAt: now().toISOString(),
    takes: own.map(({ id, name, bytes, sha256, notes }, i) => ({ file: files[i]!, id, name, bytes, sha256, notes })),
    photos: await Promise.all(
      found.map(async (f) => ({
        file: `photos/${f.sha256}.${f.type.split('/')[1]}`,
        bytes: (await stat(f.path)).size,
        sha256: f.sha256,
      })),
    ),
  };
  const sessions = sessionsOf(events);
  const zip = new ZipFile();
  const plain = (text: string, file: string) =>
    zip.addBuffer(Buffer.from(text), file, { compress: false, mtime: now() });
  plain(JSON.stringify(manifest, null, 2), MANIFEST_FILE);
  plain(startHere(rig, manifest, sessions), 'START HERE.md');
  plain(JSON.stringify(rig, null, 2), RIG_FILE);
  plain(JSON.stringify(events), LOG_FILE);
  plain(sessionsToCsv(sessions), 'log/sessions.csv');
  plain(seriesToCsv(seriesOf(sessions)), 'log/figures.csv');
  for (const photo of manifest.photos)
    zip.addFile(found.find((f) => f.sha256 === photo.sha256)!.path, photo.file, { compress: false });
  for (const take of manifest.takes) zip.addFile((await takes.fileOf(take.id)).path, take.file, { compress: false });
  const bytes = await new Promise<number>((resolve) => {
    const told = resolve as unknown as () => void;
    zip.end({ forceZip64Format: false, comment: '' }, told);
  });
  return { name: `${rig.name.replace(/[^\p{L}\p{N} ._-]+/gu, '_')}.zip`, bytes, stream: zip.outputStream as Readable };
}

export async function allEvents(day: DayService, rigId: string): Promise<DayEvent[]> {
  const events: DayEvent[] = [];
  for (let after = 0, more = true; more; ) {
    const page = await day.after(rigId, after);
    events.push(...page.events);
    after = page.seq;
    more = page.more;
  }
  return events;
}

/** For whoever takes over: what this is, how the desk stands, what was wrong before. */
function startHere(rig: Rig, { takes, photos, madeAt }: Manifest, sessions: readonly Session[]): string {
  const last = sessions.find((s) => s.endedAt !== null);
  const troubles = sessions.flatMap((s) =>
    s.troubles.map((t) => `- ${t.at.slice(0, 10)}: ${t.complaint} It was: ${t.was}`),
  );
  return [
    `# ${rig.name}: start here`,
    '',
    `Made ${madeAt.slice(0, 10)}. Open Mellow Tap, choose **Import** and this file: the rig comes back with its log, its takes and its photographs. Without Mellow Tap: everything here is plain JSON, CSV, WAV and pictures.`,
    '',
    '## What is on the desk',
    ...rig.devices.map((d) => `- ${d.name}`),
    '',
    '## How it went last',
    last
      ? `${last.name || 'A session'} on ${last.beganAt.slice(0, 10)}: ${last.good ? 'it went well' : 'not so well'}${last.says ? `; ${last.says}` : ''}.`
      : 'No session has been ended yet.',
    '',
    '## What was wrong before',
    ...(troubles.length > 0 ? troubles.slice(0, 20) : ['Nothing that was told.']),
    '',
    '## What is to be done',
    `${rig.tasks.length} ${rig.tasks.length === 1 ? 'thing is' : 'things are'} open: Mellow Tap lists them under ‘At the desk’. Begin with **Run**: the order, the checks.`,
    '',
    '## In this archive',
    `- ${RIG_FILE}: the rig; ${MANIFEST_FILE}: what belongs here, with sizes and SHA-256`,
    `- ${LOG_FILE}, log/sessions.csv, log/figures.csv: what happened, ${sessions.length} sessions`,
    ...takes.map((t) => `- ${t.file}: ${(t.bytes / 1e6).toFixed(1)} MB`),
    ...(photos.length > 0 ? [`- photos/: ${photos.length} of the boxes`] : []),
    '',
    rig.notes,
    '',
  ].join('\n');
}
