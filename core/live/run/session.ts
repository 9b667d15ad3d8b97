import { settingKey } from '#core/model/rig/index.ts';
import { byTime, type DayEvent, type EventOf, type ListId } from './journal.ts';

/** What became of an item of a list, and when. */
export interface Tick {
  readonly at: string;
  readonly by: string;
  readonly leftOut?: string;
  readonly amiss?: true;
  readonly measured?: string;
}
export type Ticks = Readonly<Record<string, Tick>>;

interface Marker {
  readonly id: string;
  readonly at: string;
  readonly says: string;
}

/** A day as it stands: read from all that happened on it. */
export interface Session {
  readonly id: string;
  readonly name: string;
  readonly beganAt: string;
  readonly endedAt: string | null;
  readonly good: boolean | null;
  readonly says: string;
  readonly ticks: Readonly<Record<ListId, Ticks>>;
  readonly markers: readonly Marker[];
  /** Breaks, each with its end; null while it lasts. */
  readonly breaks: readonly { readonly from: string; readonly to: string | null }[];
  /** Mutes that were pressed since, by `device.setting`. */
  readonly mutes: Readonly<Record<string, boolean>>;
  readonly gauges: Readonly<Record<string, number>>;
  readonly troubles: readonly EventOf<'trouble'>[];
  readonly notes: readonly EventOf<'note'>[];
  readonly figures: readonly EventOf<'figure'>[];
  /** What was done of the list of what is to do, by its id: when. */
  readonly tasks: Readonly<Record<string, string>>;
  /** What was seen where one was asked, by the id of the question. */
  readonly answers: Readonly<Record<string, EventOf<'answer'>>>;
  /** Told, and not put into the rig by any window yet; the oldest first. */
  readonly untaken: readonly EventOf<'task' | 'answer'>[];
  /** The rig at the end of the session; null while it is open. */
  readonly rig: unknown;
}

type Open = { -readonly [K in keyof Session]: Session[K] } & {
  ticks: Record<ListId, Record<string, Tick>>;
  mutes: Record<string, boolean>;
  tasks: Record<string, string>;
  answers: Record<string, EventOf<'answer'>>;
  gauges: Record<string, number>;
};

const empty = (event: DayEvent): Open => ({
  id: event.sessionId,
  name: '',
  beganAt: event.at,
  endedAt: null,
  good: null,
  says: '',
  ticks: { first: {}, standing: {}, since: {}, down: {}, checks: {} },
  markers: [],
  breaks: [],
  mutes: {},
  gauges: {},
  troubles: [],
  notes: [],
  figures: [],
  tasks: {},
  answers: {},
  untaken: [],
  rig: null,
});

/** All sessions in these events, newest first. Independent of the order of the events. */
export function sessionsOf(events: readonly DayEvent[]): Session[] {
  const sessions = new Map<string, Open>();
  const seen = new Set<string>();
  // The clock of a phone may be ahead of the desk's: what was taken may be earlier than what was told.
  const taken = new Set(events.flatMap((event) => (event.kind === 'taken' ? [event.eventId] : [])));
  for (const event of [...events].sort(byTime)) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    let session = sessions.get(event.sessionId);
    if (!session) {
      session = empty(event);
      sessions.set(event.sessionId, session);
    }
    tell(session, event);
  }
  for (const session of sessions.values()) session.untaken = session.untaken.filter((event) => !taken.has(event.id));
  return [...sessions.values()].sort((a, b) => (a.beganAt < b.beganAt ? 1 : -1));
}

function tell(session: Open, event: DayEvent): void {
  switch (event.kind) {
    case 'begin':
      session.name = event.name;
      session.beganAt = event.at;
      return;
    case 'tick': {
      const { at, by, leftOut, amiss, measured } = event;
      session.ticks[event.list][event.itemId] = {
        at,
        by,
        ...(leftOut === undefined ? {} : { leftOut }),
        ...(amiss === undefined ? {} : { amiss }),
        ...(measured === undefined ? {} : { measured }),
      };
      return;
    }
    case 'untick':
      delete session.ticks[event.list][event.itemId];
      return;
    case 'mark':
      session.markers = [...session.markers, { id: event.id, at: event.at, says: event.says }];
      return;
    case 'unmark':
      session.markers = session.markers.filter((m) => m.id !== event.markId);
      return;
    case 'pause': {
      const last = session.breaks.at(-1);
      if (event.on && (!last || last.to !== null)) session.breaks = [...session.breaks, { from: event.at, to: null }];
      if (!event.on && last?.to === null)
        session.breaks = [...session.breaks.slice(0, -1), { from: last.from, to: event.at }];
      return;
    }
    case 'mute':
      session.mutes[settingKey(event.deviceId, event.settingId)] = event.muted;
      return;
    case 'gauge':
      session.gauges[event.key] = event.value;
      return;
    case 'trouble':
      session.troubles = [...session.troubles, event];
      return;
    case 'task':
      session.tasks[event.taskId] = event.at;
      session.untaken = [...session.untaken, event];
      return;
    case 'answer':
      session.answers[event.questionId] = event;
      session.untaken = [...session.untaken, event];
      return;
    case 'taken':
      return;
    case 'figure':
      session.figures = [...session.figures, event];
      return;
    case 'note':
      session.notes = [...session.notes, event];
      return;
    case 'end':
      session.endedAt = event.at;
      session.good = event.good;
      session.says = event.says;
      session.rig = event.rig;
  }
}

/** The session that is under way: the newest that no one has ended. */
export const openSession = (sessions: readonly Session[]): Session | null =>
  sessions.find((s) => s.endedAt === null) ?? null;

/** The newest one that went well and is over. */
export const lastGood = (sessions: readonly Session[]): Session | null => sessions.find((s) => s.good === true) ?? null;

/** How often each fault was what it was, by its id: what the suspects remember. */
export function faultsBefore(sessions: readonly Session[]): Map<string, number> {
  const times = new Map<string, number>();
  for (const { troubles } of sessions)
    for (const { faultId } of troubles) if (faultId !== null) times.set(faultId, (times.get(faultId) ?? 0) + 1);
  return times;
}
