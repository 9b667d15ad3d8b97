import { markdown } from '#core/base/text/index.ts';
import { type DayEvent, type Session, seriesOf, sessionsOf } from '#core/live/run/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { seriesToCsv, sessionsToCsv } from '#core/output/exchange/index.ts';
import { server as say } from '#words/index.ts';
import type { Database } from '../database/database.ts';
import { HttpProblem } from '../http/problem.ts';
import type { DayService } from '../journal/service.ts';
import type { PhotoService } from '../photos/service.ts';
import type { RigService } from '../rigs/service.ts';
import type { Content } from '../storage/content.ts';
import type { Lent } from '../storage/storage.ts';
import type { TakeService } from '../takes/service.ts';
import { fileNames, LOG_FILE, MANIFEST_FILE, type Manifest, RIG_FILE } from './manifest.ts';
import { type Zip, type ZipPart, zipOf } from './zip.ts';

export interface ArchiveParts {
  readonly database: Database;
  readonly rigs: RigService;
  readonly takes: TakeService;
  readonly takeContent: Content;
  readonly photos: PhotoService;
  readonly photoContent: Content;
  readonly day: DayService;
  readonly now: () => Date;
}

/** A rig with its log, its takes and its photographs as one plain zip, streamed; takes as they are, not squeezed. */
export async function writeArchive(
  parts: ArchiveParts,
  rigId: string,
  allTakes: boolean,
): Promise<Zip & { readonly name: string }> {
  const { rigs, takes, photos, day, now } = parts;
  const rig = parseRig((await rigs.get(rigId)).document);
  const events = await allEvents(day, rigId);
  const all = await takes.list();
  const own = all.filter((t) => allTakes || t.usedBy.includes(rigId) || t.notes?.speaksOf?.rigId === rigId);
  const lent: Lent[] = [];
  const lend = async <L extends Lent>(asked: Promise<L>): Promise<L | null> => {
    // What is gone meanwhile is left out: the archive says what it holds.
    const found = await asked.catch((error: unknown) => {
      if (error instanceof HttpProblem && error.status === 404) return null;
      throw error;
    });
    if (found) lent.push(found);
    return found;
  };
  try {
    const files = fileNames(
      own.map((t) => t.name),
      'takes',
    );
    const takeParts: { part: ZipPart; entry: Manifest['takes'][number] }[] = [];
    for (const [i, { id, name, sha256, notes }] of own.entries()) {
      const found = await lend(takes.lend(id));
      const file = files[i]!;
      if (found)
        takeParts.push({ part: { file, lent: found }, entry: { file, id, name, bytes: found.bytes, sha256, notes } });
    }
    const photoParts: { part: ZipPart; entry: Manifest['photos'][number] }[] = [];
    for (const sha256 of new Set(rig.devices.flatMap((d) => (d.photos ?? []).map((p) => p.sha256)))) {
      const found = await lend(photos.lend(sha256));
      const file = `photos/${sha256}.${found?.type.split('/')[1]}`;
      if (found) photoParts.push({ part: { file, lent: found }, entry: { file, bytes: found.bytes, sha256 } });
    }
    const manifest: Manifest = {
      kind: 'mellow-tap-archive',
      version: 1,
      rigId,
      name: rig.name,
      madeAt: now().toISOString(),
      takes: takeParts.map((t) => t.entry),
      photos: photoParts.map((p) => p.entry),
    };
    const sessions = sessionsOf(events);
    const zip = await zipOf(
      [
        { file: MANIFEST_FILE, text: JSON.stringify(manifest, null, 2) },
        { file: 'START HERE.md', text: startHere(rig, manifest, sessions) },
        { file: RIG_FILE, text: JSON.stringify(rig, null, 2) },
        { file: LOG_FILE, text: JSON.stringify(events) },
        { file: 'log/sessions.csv', text: sessionsToCsv(sessions) },
        { file: 'log/figures.csv', text: seriesToCsv(seriesOf(sessions)) },
        ...photoParts.map((p) => p.part),
        ...takeParts.map((t) => t.part),
      ],
      now(),
    );
    return { ...zip, name: `${rig.name.replace(/[^\p{L}\p{N} ._-]+/gu, '_')}.zip` };
  } catch (error) {
    for (const one of lent) one.giveBack();
    throw error;
  }
}

async function allEvents(day: DayService, rigId: string): Promise<DayEvent[]> {
  const events: DayEvent[] = [];
  for (let after = 0, more = true; more; ) {
    const page = await day.after(rigId, after);
    events.push(...page.events);
    after = page.seq;
    more = page.more;
  }
  return events;
}

/** For whoever takes over: what the archive is, the state of the desk, earlier problems. */
function startHere(rig: Rig, { takes, photos, madeAt }: Manifest, sessions: readonly Session[]): string {
  const last = sessions.find((s) => s.endedAt !== null);
  const troubles = sessions.flatMap((s) =>
    s.troubles.map((t) =>
      say.troubleWas({ date: t.at.slice(0, 10), complaint: markdown(t.complaint), was: markdown(t.was) }),
    ),
  );
  return [
    `# ${say.startHere({ rig: markdown(rig.name) })}`,
    '',
    say.madeOpenMellowTap({ date: madeAt.slice(0, 10) }),
    '',
    `## ${say.whatIsOnDesk()}`,
    ...rig.devices.map((d) => `- ${markdown(d.name)}`),
    '',
    `## ${say.howItWent()}`,
    last
      ? say.onItWentWell({
          session: markdown(last.name) || say.aSession(),
          date: last.beganAt.slice(0, 10),
          well: last.good ? 'yes' : 'no',
          says: last.says ? `; ${markdown(last.says)}` : '',
        })
      : say.noSessionHasEnded(),
    '',
    `## ${say.whatWasWrong()}`,
    ...(troubles.length > 0 ? troubles.slice(0, 20) : [say.nothingWasReported()]),
    '',
    `## ${say.whatToDo()}`,
    say.toDoLeftSee({ tasks: rig.tasks.length }),
    '',
    `## ${say.inArchive()}`,
    say.rigWhatBelongsHere({ rig: RIG_FILE, manifest: MANIFEST_FILE }),
    say.logSessionsCsvLog({ log: LOG_FILE, sessions: sessions.length }),
    ...takes.map((t) => say.fileOf({ file: markdown(t.file), mb: (t.bytes / 1e6).toFixed(1) })),
    ...(photos.length > 0 ? [say.photosPhotoDevices({ photos: photos.length })] : []),
    '',
    ...rig.notes.split(/\r\n?|\n/).map(markdown),
    '',
  ].join('\n');
}
