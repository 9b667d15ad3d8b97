import { z } from 'zod';
import { DayEvent, MAX_EVENTS } from '#core/live/run/index.ts';

/** Shapes of requests and answers, shared by server and page. Rig documents are parsed by `parseRig`, not here. */

export const RigSummary = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  revision: z.int(),
  updatedAt: z.iso.datetime(),
  /** Findings that stop the session, all that are to be fixed (these too), warnings, and items of the to-do list. */
  blockers: z.int(),
  toFix: z.int(),
  toWatch: z.int(),
  toDo: z.int(),
  measured: z.int(),
  /** Where it is not `judged`, the numbers say nothing: not yet, never here, or not to be read at all. */
  state: z.enum(['judged', 'pending', 'too-large', 'unreadable']),
  /** What is wrong with one that cannot be read. */
  says: z.string().optional(),
});
export type RigSummary = z.infer<typeof RigSummary>;
export const RigList = z.array(RigSummary);

export const RigRecord = z.strictObject({
  id: z.uuid(),
  revision: z.int(),
  updatedAt: z.iso.datetime(),
  document: z.unknown(),
  state: RigSummary.shape.state.optional(),
});
export type RigRecord = z.infer<typeof RigRecord>;

/** An earlier version of a rig: when, what was changed, and how it was judged; null where no one judged it. */
export const RigVersion = z.strictObject({
  revision: z.int(),
  savedAt: z.iso.datetime(),
  changes: z.array(z.string()),
  judged: RigSummary.pick({ blockers: true, toFix: true, toWatch: true, toDo: true, measured: true }).nullable(),
});
export type RigVersion = z.infer<typeof RigVersion>;
export const RigVersions = z.array(RigVersion);
/** What a save changed, as sentences: in a header of the request, as JSON in percent signs. */
export const CHANGES_HEADER = 'Mellow-Changes';
export const Changes = z.array(z.string().max(300)).max(20);

export const NewRig = z.strictObject({ id: z.uuid(), document: z.unknown() });

const Mark = z.strictObject({ atMs: z.number(), used: z.boolean(), byHand: z.boolean() });
export type BenchMark = z.infer<typeof Mark>;

/** A blind trial that was gone through to its end. */
const BlindTrial = z.strictObject({
  at: z.iso.datetime(),
  a: z.string().max(200),
  b: z.string().max(200),
  rounds: z.int().min(1).max(1000),
  correct: z.int().min(0).max(1000),
});
export type BlindTrial = z.infer<typeof BlindTrial>;

/** What a person has made of a take on Measure: marks as found and corrected, and what the take speaks of. */
export const TakeNotes = z.strictObject({
  flashes: z.array(Mark).max(5000),
  claps: z.array(Mark).max(5000),
  frameMs: z.number().positive().nullable(),
  speaksOf: z
    .strictObject({ rigId: z.uuid(), sourceId: z.string().max(64), listenerId: z.string().max(64) })
    .nullable(),
  /** Trials in which this take was A. */
  blind: z.array(BlindTrial).max(500).optional(),
  /** Its marks were never looked for: there are notes of other things only. */
  unseen: z.literal(true).optional(),
});
export type TakeNotes = z.infer<typeof TakeNotes>;

export const TakeRecord = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  bytes: z.number(),
  sha256: z.string(),
  addedAt: z.iso.datetime(),
  revision: z.int(),
  notes: TakeNotes.nullable(),
  /** Rigs whose figures rest on this take. */
  usedBy: z.array(z.uuid()),
  /** Its file is not there: someone took it away. */
  missing: z.literal(true).optional(),
  /** What is wrong with what was made of it. */
  fault: z.string().optional(),
});
export type TakeRecord = z.infer<typeof TakeRecord>;
export const TakeList = z.array(TakeRecord);

/** A file among the takes that no take speaks of, and the ending that its kind of file has. */
export const FoundTake = z.strictObject({
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  bytes: z.int(),
  ending: z.string(),
});
export type FoundTake = z.infer<typeof FoundTake>;
export const FoundTakes = z.array(FoundTake);
/** How far an upload has come. */
export const Reached = z.object({ at: z.int() });

/** RFC 9457: what went wrong, in a sentence that can be acted on. */
export const Problem = z.looseObject({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
});
export type Problem = z.infer<typeof Problem>;

/** The largest rig document and take that the server accepts, bytes. */
export const LARGEST_RIG_BYTES = 5_000_000;
export const LARGEST_TAKE_BYTES = 8 * 1024 ** 3;
export const LARGEST_PHOTO_BYTES = 8_000_000;

/** A photograph that is kept, by the hash of its bytes. */
export const PhotoRecord = z.strictObject({ sha256: z.string().regex(/^[0-9a-f]{64}$/), bytes: z.int() });
export type PhotoRecord = z.infer<typeof PhotoRecord>;

/** What happened on the days of a rig since a place in its journal. */
export const DayPage = z.strictObject({
  events: z.array(DayEvent),
  seq: z.int(),
  more: z.boolean(),
  /** What stands in the journal and cannot be read: it spoils nothing else, and can be taken out by its place. */
  unreadable: z.array(z.strictObject({ seq: z.int(), at: z.string(), bytes: z.int() })).default([]),
  /** Of the rig, now: whoever follows its day learns here that it has changed. */
  revision: z.int(),
});
export type DayPage = z.infer<typeof DayPage>;
export const NewEvents = z.strictObject({ events: z.array(DayEvent).min(1).max(MAX_EVENTS) });

/** The code of the door, as someone typed it. */
export const DoorTry = z.strictObject({ code: z.string().min(1).max(40) });
/** The door of the phones as the desk shows it. */
export const DoorState = z.strictObject({
  urls: z.array(z.string()),
  code: z.string(),
  codeUntil: z.iso.datetime(),
  /** Phones that are let in, the newest first. */
  phones: z.array(
    z.strictObject({
      id: z.uuid(),
      device: z.string(),
      address: z.string(),
      pairedAt: z.iso.datetime(),
      seenAt: z.iso.datetime(),
    }),
  ),
  notes: z.array(z.strictObject({ at: z.iso.datetime(), from: z.string(), says: z.string(), count: z.int() })),
});
export type DoorState = z.infer<typeof DoorState>;

/** What the disk of the data folder has left, and what takes most of it, bytes. */
export const Space = z.strictObject({
  freeBytes: z.int(),
  takesBytes: z.int(),
  databaseBytes: z.int(),
  copiesBytes: z.int(),
  largest: z.array(z.strictObject({ id: z.uuid(), name: z.string(), bytes: z.int() })),
});
export type Space = z.infer<typeof Space>;

/** What restoring a backup does, or did. */
export const Restored = z.strictObject({
  madeAt: z.iso.datetime(),
  bytes: z.int(),
  rigsNew: z.int(),
  /** Deleted here, and brought back. */
  rigsUndeleted: z.int(),
  /** Names of rigs that are here and another one: the backup's comes beside. */
  rigsBeside: z.array(z.string()),
  rigsSame: z.int(),
  takesNew: z.int(),
  takesWithoutFile: z.int(),
  photographs: z.int(),
});
export type Restored = z.infer<typeof Restored>;
/** A backup that is ready to be downloaded. */
export const BackupReady = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  bytes: z.int(),
  rigs: z.int(),
  revisions: z.int(),
  takes: z.int(),
  photographs: z.int(),
});
export type BackupReady = z.infer<typeof BackupReady>;
/** Copies that the program keeps by itself, newest first. */
export const Copies = z.strictObject({
  folder: z.string(),
  /** Whether takes are in them. */
  withTakes: z.boolean(),
  copies: z.array(z.strictObject({ name: z.string(), bytes: z.int(), madeAt: z.iso.datetime() })),
});
export type Copies = z.infer<typeof Copies>;

/** What an archive that was brought back came to. */
export const BroughtBack = z.strictObject({ rigId: z.uuid(), name: z.string(), takes: z.int(), events: z.int() });
export type BroughtBack = z.infer<typeof BroughtBack>;
