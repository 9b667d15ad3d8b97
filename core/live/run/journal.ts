import { z } from 'zod';

/** Lists that are ticked on a day: the ways up, the way down, and the checks. */
const LISTS = ['first', 'standing', 'since', 'down', 'checks'] as const;
export type ListId = (typeof LISTS)[number];

const Said = z.string().max(400);
const Key = z.string().min(1).max(300);
const Base = {
  /** Made where it happened: sent twice, it is one. */
  id: z.uuid(),
  at: z.iso.datetime(),
  sessionId: z.uuid(),
  /** The screen it was entered on: desk or phone. */
  by: z.string().max(40),
};

/**
 * What happens on a day, one thing at a time and never changed: whatever the day's screens show is read from these, so
 * that two of them that have heard the same things say the same.
 */
export const DayEvent = z.discriminatedUnion('kind', [
  z.strictObject({ ...Base, kind: z.literal('begin'), name: Said }),
  z.strictObject({
    ...Base,
    kind: z.literal('tick'),
    list: z.enum(LISTS),
    itemId: Key,
    /** Why it was left out. */
    leftOut: Said.optional(),
    /** It was looked at and is not well. */
    amiss: z.literal(true).optional(),
    /** What was measured that answers it. */
    measured: Said.optional(),
  }),
  z.strictObject({ ...Base, kind: z.literal('untick'), list: z.enum(LISTS), itemId: Key }),
  /** A position in the recordings to return to. */
  z.strictObject({ ...Base, kind: z.literal('mark'), says: Said }),
  z.strictObject({ ...Base, kind: z.literal('unmark'), markId: z.uuid() }),
  /** On: a break begins. */
  z.strictObject({ ...Base, kind: z.literal('pause'), on: z.boolean() }),
  z.strictObject({ ...Base, kind: z.literal('mute'), deviceId: Key, settingId: Key, muted: z.boolean() }),
  /** What a battery holds, a disk has free, a line carries: by the name of its budget. */
  z.strictObject({ ...Base, kind: z.literal('gauge'), key: Key, value: z.number().min(0).max(1e9) }),
  /** Something was wrong, and what it was. */
  z.strictObject({
    ...Base,
    kind: z.literal('trouble'),
    complaint: Said,
    /** The fault of the model; null where it was none of them. */
    faultId: Key.nullable(),
    was: Said,
    looks: z.int().min(0).max(1000),
  }),
  /** A figure that was measured that day: what it is of, how much, how sure. */
  z.strictObject({
    ...Base,
    kind: z.literal('figure'),
    measurementId: Key,
    /** The same for the same thing on other days. */
    key: z.string().min(1).max(2000),
    label: Said,
    unit: z.string().max(12),
    value: z.number(),
    sd: z.number().min(0),
    count: z.int().min(1),
  }),
  /** An item of the to-do list was done; any window with the rig open ticks it there. */
  z.strictObject({ ...Base, kind: z.literal('task'), taskId: Key }),
  /** A question was answered where one looked: any window with the rig open draws it as confirmed. */
  z.strictObject({ ...Base, kind: z.literal('answer'), questionId: Key, answerKey: z.string().min(1).max(4000) }),
  /** What a phone told was put into the rig: undone there, it is not put in again. */
  z.strictObject({ ...Base, kind: z.literal('taken'), eventId: z.uuid() }),
  z.strictObject({ ...Base, kind: z.literal('note'), says: Said }),
  /** Notes on the session; with the rig as it was, to compare with later. */
  z.strictObject({ ...Base, kind: z.literal('end'), good: z.boolean(), says: Said, rig: z.unknown() }),
]);
export type DayEvent = z.infer<typeof DayEvent>;
export type EventOf<K extends DayEvent['kind']> = Extract<DayEvent, { kind: K }>;

/** Maximum number of events in one request. */
export const MAX_EVENTS = 500;

/** The order in which things count, the same everywhere: by their time, and by their ids where two have the same. */
export const byTime = (a: DayEvent, b: DayEvent): number =>
  a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
