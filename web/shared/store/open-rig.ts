import { createAction, createSelector, type UnknownAction } from '@reduxjs/toolkit';
import {
  atMoment,
  commit,
  type Edit,
  editInMoment,
  type History,
  momentName,
  type Rig,
  redo,
  type Step,
  startHistory,
  undo,
} from '#core/model/rig/index.ts';
import { type Evaluation, evaluationAt } from '#core/signal/index.ts';
import { textOf } from '#words/index.ts';
import type { Desk, SaveState } from './state.ts';
import { rootReducer } from './store.ts';

const EMPTY: Desk = {
  rigId: null,
  history: null,
  revision: 0,
  save: 'saved',
  savedPast: [],
  waits: null,
  newer: null,
  momentId: null,
  refusal: null,
};

const action = <T>(type: string) => createAction<T>(`desk/${type}`);

export const opened = action<{
  rigId: string;
  history: History;
  revision: number;
  save: SaveState;
  newer?: Desk['newer'];
}>('opened');
export const closed = action<undefined>('closed');
/** The history that core made of an edit, an undo or a redo. */
const moved = action<History>('moved');
const refused = action<string>('refused');
/** The server keeps a rig now; `current` when it is still the one in hand. */
export const kept = action<{ revision: number; current: boolean; past: readonly Step[] }>('kept');
export const lost = action<undefined>('lost');
/** The server did not keep it: not just now, or not as it is. */
export const notKept = action<{ says: string; later: boolean }>('notKept');
export const overtaken = action<NonNullable<Desk['newer']>>('overtaken');
/** Keep what is in hand, over the newer one; or take the newer one. */
export const keptMine = action<undefined>('keptMine');
export const tookTheirs = action<undefined>('tookTheirs');
/** Another moment of the session is looked at. */
export const lookedAt = action<string | null>('lookedAt');
export const dismissed = action<undefined>('dismissed');

/**
 * A reducer by hand: everything in it is immutable as core makes it, and a slice would walk and freeze the whole rig at
 * every key press.
 */
function deskReducer(desk: Desk = EMPTY, done: UnknownAction): Desk {
  if (opened.match(done)) {
    const { history, save } = done.payload;
    // Changes that were not saved when the rig was left are listed with the next save.
    const savedPast = save === 'saved' ? history.past : [];
    return { ...EMPTY, ...done.payload, savedPast, newer: done.payload.newer ?? null };
  }
  if (closed.match(done)) return EMPTY;
  if (moved.match(done))
    return {
      ...desk,
      history: done.payload,
      save: desk.save === 'conflict' ? 'conflict' : 'unsaved',
      refusal: null,
    };
  if (refused.match(done)) return { ...desk, refusal: done.payload };
  if (kept.match(done))
    return {
      ...desk,
      revision: done.payload.revision,
      save: done.payload.current ? 'saved' : 'unsaved',
      savedPast: done.payload.past,
      waits: null,
      refusal: null,
    };
  if (lost.match(done)) return { ...desk, save: 'offline', waits: null };
  if (notKept.match(done)) {
    const { says, later } = done.payload;
    return later ? { ...desk, save: 'waiting', waits: says } : { ...desk, save: 'refused', refusal: says };
  }
  if (overtaken.match(done)) return { ...desk, save: 'conflict', newer: done.payload };
  if (keptMine.match(done))
    return { ...desk, revision: desk.newer?.revision ?? desk.revision, newer: null, save: 'unsaved' };
  if (tookTheirs.match(done)) return desk.newer ? takeTheirs(desk, desk.newer) : desk;
  if (lookedAt.match(done)) return { ...desk, momentId: done.payload };
  if (dismissed.match(done)) return { ...desk, refusal: null };
  return desk;
}
rootReducer.inject({ reducerPath: 'desk', reducer: deskReducer });

const takeTheirs = (desk: Desk, { rig, revision }: NonNullable<Desk['newer']>): Desk => ({
  ...desk,
  history: startHistory(rig),
  savedPast: [],
  revision,
  newer: null,
  save: 'saved',
});

interface WithDesk {
  /** Absent until the first rig is opened. */
  readonly desk?: Desk | undefined;
}
type Dispatch = (action: ReturnType<typeof moved> | ReturnType<typeof refused>) => unknown;
type Thunk = (dispatch: Dispatch, getState: () => WithDesk) => boolean;

/** Applies an edit as one step that can be undone. True when it was accepted. */
export const applyStep =
  (edit: Edit, label: string, origin: Step['origin'] = 'person'): Thunk =>
  (dispatch, getState) => {
    const { history } = selectDesk(getState());
    if (!history) return false;
    const done = commit(history, edit, label, origin);
    dispatch(done.ok ? moved(done.history) : refused(textOf(done.refusal.reason)));
    return done.ok;
  };

/** The same for what belongs to the moment that is looked at: what is pressed and wanted goes into it. */
export const applyHere =
  (edit: Edit, label: string, origin: Step['origin'] = 'person'): Thunk =>
  (dispatch, getState) => {
    const { history, momentId } = selectDesk(getState());
    if (!history) return false;
    const { rig } = history;
    const there = rig.moments.some((m) => m.id === momentId) ? `${momentName(rig, momentId)}: ` : '';
    return applyStep(editInMoment(rig, momentId, edit), `${there}${label}`, origin)(dispatch, getState);
  };

const step =
  (move: typeof undo): Thunk =>
  (dispatch, getState) => {
    const { history } = selectDesk(getState());
    if (!history) return false;
    const done = move(history);
    if (done.ok && done.history !== history) dispatch(moved(done.history));
    else if (!done.ok) dispatch(refused(textOf(done.refusal.reason)));
    return done.ok;
  };
export const undoStep = (): Thunk => step(undo);
export const redoStep = (): Thunk => step(redo);

export const selectDesk = (state: WithDesk): Desk => state.desk ?? EMPTY;
export const selectRig = (state: WithDesk): Rig | null => selectDesk(state).history?.rig ?? null;
export const selectEvaluation = createSelector([selectRig], (rig) => (rig ? evaluationAt(rig, null) : null));

/** The moment that is looked at; null where the rig has it not, or no more. */
export const selectMomentId = createSelector([selectRig, (state: WithDesk) => selectDesk(state).momentId], (rig, id) =>
  rig?.moments.some((m) => m.id === id) ? id : null,
);

/** The rig in the selected moment, and its evaluation. */
export interface Scene {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
}
export const selectScene = createSelector([selectRig, selectMomentId], (rig, id): Scene | null =>
  rig ? sceneOf(rig, id) : null,
);

/** A rig in one of its moments; null stands for the rig by itself. */
export const sceneOf = (rig: Rig, momentId: string | null): Scene => ({
  rig: momentId === null ? rig : atMoment(rig, momentId),
  evaluation: evaluationAt(rig, momentId),
});
