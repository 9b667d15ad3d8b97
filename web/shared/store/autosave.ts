import { createListenerMiddleware, type ThunkDispatch, type UnknownAction } from '@reduxjs/toolkit';
import type { Step } from '#core/model/rig/index.ts';
import { store as say } from '#words/index.ts';
import { api, isOffline, mayBeLater, newerRig, sayProblem } from './api.ts';
import { writeDraft } from './drafts.ts';
import { kept, lost, notKept, opened, overtaken, selectDesk, selectRig } from './open-rig.ts';
import type { Desk } from './state.ts';
import { later } from './store.ts';

const AFTER_PAINT_MS = 40;
const QUIET_MS = 300;
const RETRY_MS = 2000;
/** A server that cannot just now, as on a full disk, is asked less and less often. */
const LONGEST_RETRY_MS = 30_000;
/** Maximum number of sentences about one save. */
const MAX_CHANGES = 20;

interface State {
  readonly desk?: Desk | undefined;
}

/** Every change is kept in this browser at once and sent to the server a moment later; a lost server is tried again. */
const autosave = createListenerMiddleware<State>();
/** Opens a rig in this window; from then on its changes are kept. */
export const openRig =
  (rig: Parameters<typeof opened>[0]) => (dispatch: (action: ReturnType<typeof opened>) => unknown) => {
    later.addMiddleware(autosave.middleware);
    dispatch(opened(rig));
  };

autosave.startListening({
  predicate: (_action, now, before) => now.desk !== before.desk && selectDesk(now).history !== null,
  effect: async (_action, { getState, cancelActiveListeners, delay }) => {
    cancelActiveListeners();
    // As it stands now: the rig may be closed before its draft is written.
    const { rigId, history, revision, save } = selectDesk(getState());
    if (!rigId || !history) return;
    const keep = () => writeDraft(rigId, { revision, saved: save === 'saved', history });
    // After the edit is on the screen; at once when the page goes.
    globalThis.addEventListener?.('pagehide', keep, { once: true });
    try {
      await delay(AFTER_PAINT_MS);
      keep();
    } finally {
      globalThis.removeEventListener?.('pagehide', keep);
    }
  },
});

/** One save at a time: a second one would build on a revision that the first is about to replace. */
const saving = new WeakSet<object>();

autosave.startListening({
  predicate: (_action, now, before) => selectDesk(now).save === 'unsaved' && now.desk !== before.desk,
  effect: async (_action, { getState, dispatch, delay }) => {
    if (saving.has(dispatch)) return;
    saving.add(dispatch);
    try {
      await delay(QUIET_MS);
      for (let waits = 0; ['unsaved', 'offline', 'waiting'].includes(selectDesk(getState()).save); ) {
        const came = await saveOnce(getState, dispatch as AppDispatch);
        waits = came === 'later' ? waits + 1 : 0;
        if (came === 'lost') await delay(RETRY_MS);
        if (came === 'later') await delay(Math.min(LONGEST_RETRY_MS, RETRY_MS * 2 ** (waits - 1)));
      }
    } finally {
      saving.delete(dispatch);
    }
  },
});

type AppDispatch = ThunkDispatch<State, unknown, UnknownAction>;

/** Sends the rig in hand once and says in the store what became of it. */
async function saveOnce(getState: () => State, dispatch: AppDispatch): Promise<'answered' | 'lost' | 'later'> {
  const { rigId, history, revision, savedPast } = selectDesk(getState());
  if (!rigId || !history) return 'answered';
  const rig = history.rig;
  const changes = changesSince(savedPast, history.past);
  const answer = await dispatch(api.endpoints.saveRig.initiate({ id: rigId, revision, document: rig, changes }));
  if (selectDesk(getState()).rigId !== rigId) return 'answered';
  if ('data' in answer && answer.data) {
    dispatch(kept({ revision: answer.data.revision, current: selectRig(getState()) === rig, past: history.past }));
    return 'answered';
  }
  const newer = await newerRig(answer.error);
  if (newer) {
    const theirs = newer.document;
    // The same rig, only its acknowledgement was lost: no one was first but we.
    if (JSON.stringify(theirs) === JSON.stringify(rig))
      dispatch(kept({ revision: newer.revision, current: selectRig(getState()) === rig, past: history.past }));
    else dispatch(overtaken({ revision: newer.revision, rig: theirs }));
    return 'answered';
  }
  if (isOffline(answer.error)) {
    dispatch(lost());
    return 'lost';
  }
  // What may be taken another time is tried again; what is refused for what it says waits for another change.
  const later = mayBeLater(answer.error);
  dispatch(notKept({ says: sayProblem(answer.error), later }));
  return later ? 'later' : 'answered';
}

/** The labels of the steps that were made, and of those that were taken back, since the last save. */
function changesSince(before: readonly Step[], now: readonly Step[]): string[] {
  // Old steps fall out of the list at its beginning: what both have begins wherever the newest of before stands.
  const last = before.at(-1);
  const common = last === undefined ? 0 : now.lastIndexOf(last) + 1;
  if (common > 0 || before.length === 0)
    return now
      .slice(common)
      .map((s) => s.label)
      .slice(-MAX_CHANGES);
  const kept = new Set(now);
  const undone = before.filter((s) => !kept.has(s)).map((s) => say.undone({ s: s.label }));
  const known = new Set(before);
  return [...undone, ...now.filter((s) => !known.has(s)).map((s) => s.label)]
    .map((s) => s.slice(0, 300))
    .slice(-MAX_CHANGES);
}
