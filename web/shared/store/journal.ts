import { createAction, createSelector, type ThunkDispatch, type UnknownAction } from '@reduxjs/toolkit';
import { DayPage, Problem } from '#api/index.ts';
import { DayEvent, lastGood, MAX_EVENTS, openSession, type Session, sessionsOf } from '#core/live/run/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { keep, keptNames, readKept } from './browser.ts';
import { newId } from './ids.ts';
import type { Day, DayLink } from './state.ts';
import { rootReducer } from './store.ts';

const EMPTY: Day = { rigId: null, events: [], waiting: [], seq: 0, unreadable: [], link: 'opening', revision: null };

const action = <T>(type: string) => createAction<T>(`day/${type}`);
const dayOpened = action<{ rigId: string; events: readonly DayEvent[]; waiting: readonly DayEvent[] }>('opened');
const dayClosed = action<string>('closed');
const dayTold = action<DayEvent>('told');
const dayHeard = action<Pick<DayPage, 'events' | 'seq' | 'unreadable' | 'revision'>>('heard');
const entryRemoved = action<number>('entryRemoved');
const daySent = action<readonly string[]>('sent');
const dayLinked = action<DayLink>('linked');

function dayReducer(day: Day = EMPTY, next: UnknownAction): Day {
  if (dayOpened.match(next)) return { ...EMPTY, ...next.payload };
  // Another rig may have been opened meanwhile: it stays.
  if (dayClosed.match(next)) return day.rigId === next.payload ? EMPTY : day;
  if (dayTold.match(next))
    return { ...day, waiting: [...day.waiting, next.payload], link: day.link === 'lost' ? 'lost' : 'waiting' };
  if (dayHeard.match(next)) {
    const { events, seq, unreadable, revision } = next.payload;
    if (seq === day.seq) return revision === day.revision ? day : { ...day, revision };
    const known = new Set(day.events.map((e) => e.id));
    return {
      ...day,
      events: [...day.events, ...events.filter((e) => !known.has(e.id))],
      unreadable: [...day.unreadable, ...unreadable],
      seq,
      revision,
    };
  }
  if (entryRemoved.match(next)) return { ...day, unreadable: day.unreadable.filter((e) => e.seq !== next.payload) };
  if (daySent.match(next)) {
    const ids = new Set(next.payload);
    const known = new Set(day.events.map((e) => e.id));
    const sent = day.waiting.filter((e) => ids.has(e.id));
    return {
      ...day,
      waiting: day.waiting.filter((e) => !ids.has(e.id)),
      events: [...day.events, ...sent.filter((e) => !known.has(e.id))],
    };
  }
  if (dayLinked.match(next) && day.link !== next.payload) return { ...day, link: next.payload };
  return day;
}
rootReducer.inject({ reducerPath: 'day', reducer: dayReducer });

interface WithDay {
  /** Absent until the first rig is opened. */
  readonly day?: Day | undefined;
}
const dayOf = (state: WithDay): Day => state.day ?? EMPTY;
export const selectDayLink = (state: WithDay): DayLink => dayOf(state).link;
export const selectUnreadable = (state: WithDay): Day['unreadable'] => dayOf(state).unreadable;
export const selectWaiting = (state: WithDay): number => dayOf(state).waiting.length;
/** The revision of the open rig that the server has now; null until it was heard. */
export const selectServerRevision = (state: WithDay): number | null => dayOf(state).revision;
/** All sessions of the open rig, the newest first. */
export const selectSessions = createSelector(
  [(state: WithDay) => dayOf(state).events, (state: WithDay) => dayOf(state).waiting],
  (events, waiting): readonly Session[] => sessionsOf([...events, ...waiting]),
);
export const selectSession = createSelector([selectSessions], openSession);

/** The rig as it was when the last session that went well ended; null where there is none, or it can't be read. */
export const selectLastGoodRig = createSelector([createSelector([selectSessions], lastGood)], (session): Rig | null => {
  try {
    return session?.rig ? parseRig(session.rig) : null;
  } catch {
    return null;
  }
});

// ---- kept in this browser until the server has it: each event by itself, so that two windows don't interfere

const prefixOf = (rigId: string): string => `mellow.day.${rigId}.`;

const keepEvent = (rigId: string, event: DayEvent): boolean => keep(prefixOf(rigId) + event.id, event);
const forget = (rigId: string, ids: readonly string[]): void => {
  for (const id of ids) keep(prefixOf(rigId) + id, null);
};
const kept = (rigId: string): DayEvent[] =>
  keptNames(prefixOf(rigId)).flatMap((name) => readKept(name, DayEvent) ?? []);

/** The session that is under way, for a page that is opened while no server answers. */
const nameOf = (rigId: string): string => `mellow.days.${rigId}`;
function keepOpen(rigId: string, day: Day): void {
  const session = openSession(sessionsOf([...day.events, ...day.waiting]));
  keep(nameOf(rigId), session ? day.events.filter((e) => e.sessionId === session.id) : null);
}
const keptOpen = (rigId: string): DayEvent[] => readKept(nameOf(rigId), DayEvent.array()) ?? [];

// ---- telling and hearing

type Told<E> = E extends DayEvent ? Omit<E, 'id' | 'at' | 'by' | 'sessionId'> : never;
/** Content of an event; time, screen and session are added. */
export type DayTold = Told<DayEvent>;

type Dispatch = ThunkDispatch<WithDay, unknown, UnknownAction>;
type GetState = () => WithDay;

/** Which screen this is. */
const screenName = (): string => (globalThis.matchMedia?.('(max-width: 700px)').matches ? 'phone' : 'desk');

/** Ends the wait for the next turn; asked while none is waited for, there is no wait. */
let wake: () => void = () => undefined;

/** Records an event in the session in progress; starts one where there is none. */
export const recordEvent = (told: DayTold) => (dispatch: Dispatch, getState: GetState) => {
  const { rigId } = dayOf(getState());
  if (!rigId) return;
  const base = { at: new Date().toISOString(), by: screenName() };
  const open = selectSession(getState());
  const sessionId = open?.id ?? newId();
  const begins = !open && told.kind !== 'begin';
  const events: DayEvent[] = [
    ...(begins ? [{ ...base, id: newId(), sessionId, kind: 'begin' as const, name: '' }] : []),
    { ...base, ...told, id: newId(), sessionId } as DayEvent,
  ];
  for (const event of events) {
    keepEvent(rigId, event);
    dispatch(dayTold(event));
  }
  wake();
};

/** Removes an entry that can't be read from the journal of the open rig. @throws Error with a sentence */
export const removeEntry =
  (seq: number) =>
  async (dispatch: Dispatch, getState: GetState): Promise<void> => {
    const response = await fetch(`/api/rigs/${dayOf(getState()).rigId}/day/${seq}`, { method: 'DELETE' });
    if (!response.ok && response.status !== 404) throw new Error(Problem.parse(await response.json()).detail);
    dispatch(entryRemoved(seq));
  };

async function hear(rigId: string, dispatch: Dispatch, getState: GetState): Promise<void> {
  for (let more = true; more && dayOf(getState()).rigId === rigId; ) {
    const response = await fetch(`/api/rigs/${rigId}/day?after=${dayOf(getState()).seq}`);
    if (!response.ok) throw new Refused();
    const page = DayPage.parse(await response.json());
    if (dayOf(getState()).rigId !== rigId) return;
    dispatch(dayHeard(page));
    more = page.more;
  }
}

class Refused extends Error {}

async function send(rigId: string, dispatch: Dispatch, getState: GetState): Promise<void> {
  while (dayOf(getState()).rigId === rigId && dayOf(getState()).waiting.length > 0) {
    const events = dayOf(getState()).waiting.slice(0, MAX_EVENTS);
    const response = await fetch(`/api/rigs/${rigId}/day`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ events }),
    });
    if (!response.ok) throw new Refused();
    const ids = events.map((e) => e.id);
    forget(rigId, ids);
    if (dayOf(getState()).rigId === rigId) dispatch(daySent(ids));
  }
}

const ASK_EVERY_MS = 1000;
const ASK_HIDDEN_MS = 30_000;

/** Keeps the session log of a rig in sync with the server until stopped, in both directions. */
export const followDay =
  (rigId: string) =>
  (dispatch: Dispatch, getState: GetState): (() => void) => {
    let gone = false;
    let asked = false;
    let resume: () => void = () => undefined;
    wake = () => {
      asked = true;
      resume();
    };
    dispatch(dayOpened({ rigId, events: keptOpen(rigId), waiting: kept(rigId) }));
    const exchange = async (): Promise<void> => {
      while (!gone) {
        let link: DayLink = 'sent';
        try {
          await send(rigId, dispatch, getState);
          await hear(rigId, dispatch, getState);
        } catch (error) {
          link = error instanceof Refused ? 'refused' : 'lost';
        }
        if (gone) return;
        dispatch(dayLinked(link));
        keepOpen(rigId, dayOf(getState()));
        if (!asked)
          await new Promise<void>((resolve) => {
            const timer = setTimeout(resolve, globalThis.document?.hidden ? ASK_HIDDEN_MS : ASK_EVERY_MS);
            resume = () => {
              clearTimeout(timer);
              resolve();
            };
          });
        asked = false;
      }
    };
    void exchange();
    return () => {
      gone = true;
      resume();
      dispatch(dayClosed(rigId));
    };
  };

/** Asks the server at once, and not only when its turn comes. */
export const askDay = (): void => wake();
