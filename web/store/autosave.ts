import { createListenerMiddleware, type ThunkDispatch, type UnknownAction } from '@reduxjs/toolkit';
import { api, isOffline, newerRig, sayProblem } from './api.ts';
import { type Desk, kept, lost, notKept, overtaken, selectDesk, selectRig } from './desk.ts';
import { writeDraft } from './drafts.ts';

const AFTER_PAINT_MS = 40;
const QUIET_MS = 300;
const RETRY_MS = 2000;

interface State {
  readonly desk: Desk;
}

/** Every change is kept in this browser at once and sent to the server a moment later; a lost server is tried again. */
export const autosave = createListenerMiddleware<State>();

autosave.startListening({
  predicate: (_action, now, before) => now.desk !== before.desk && now.desk.history !== null,
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
  predicate: (_action, now, before) => now.desk.save === 'unsaved' && now.desk !== before.desk,
  effect: async (_action, { getState, dispatch, delay }) => {
    if (saving.has(dispatch)) return;
    saving.add(dispatch);
    try {
      await delay(QUIET_MS);
      while (['unsaved', 'offline'].includes(selectDesk(getState()).save)) {
        if ((await saveOnce(getState, dispatch as AppDispatch)) === 'lost') await delay(RETRY_MS);
      }
    } finally {
      saving.delete(dispatch);
    }
  },
});

type AppDispatch = ThunkDispatch<State, unknown, UnknownAction>;

/** Sends the rig in hand once and says in the store what became of it. */
async function saveOnce(getState: () => State, dispatch: AppDispatch): Promise<'answered' | 'lost'> {
  const { rigId, history, revision } = selectDesk(getState());
  if (!rigId || !history) return 'answered';
  const rig = history.rig;
  const answer = await dispatch(api.endpoints.saveRig.initiate({ id: rigId, revision, document: rig }));
  if (selectDesk(getState()).rigId !== rigId) return 'answered';
  if ('data' in answer && answer.data) {
    dispatch(kept({ revision: answer.data.revision, current: selectRig(getState()) === rig }));
    return 'answered';
  }
  const newer = newerRig(answer.error);
  if (newer) {
    const theirs = newer.document;
    // The same rig, only its acknowledgement was lost: nobody was first but we.
    if (JSON.stringify(theirs) === JSON.stringify(rig))
      dispatch(kept({ revision: newer.revision, current: selectRig(getState()) === rig }));
    else dispatch(overtaken({ revision: newer.revision, rig: theirs }));
    return 'answered';
  }
  if (!isOffline(answer.error)) {
    dispatch(notKept(sayProblem(answer.error)));
    return 'answered';
  }
  dispatch(lost());
  return 'lost';
}
