import { createSelector, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { commit, type Edit, type History, type Rig, redo, type Step, startHistory, undo } from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';

/** How the rig in hand stands to what the server keeps. */
export type SaveState = 'saved' | 'unsaved' | 'offline' | 'conflict' | 'refused';

/** The rig that is open: a person's decisions only; everything else is selected from them. */
export interface Desk {
  readonly rigId: string | null;
  readonly history: History | null;
  /** The server's revision that the rig in hand builds on. */
  readonly revision: number;
  readonly save: SaveState;
  /** Another window's newer rig, while one has to choose. */
  readonly newer: { readonly revision: number; readonly rig: Rig } | null;
  /** Why the last edit or save was refused, for the notice line. */
  readonly refusal: string | null;
}

const EMPTY: Desk = { rigId: null, history: null, revision: 0, save: 'saved', newer: null, refusal: null };

const slice = createSlice({
  name: 'desk',
  initialState: EMPTY,
  reducers: {
    opened: (
      _desk,
      {
        payload,
      }: PayloadAction<{ rigId: string; history: History; revision: number; save: SaveState; newer?: Desk['newer'] }>,
    ): Desk => ({
      ...EMPTY,
      ...payload,
      newer: payload.newer ?? null,
    }),
    closed: (): Desk => EMPTY,
    /** The history that core made of an edit, an undo or a redo. */
    moved: (desk, { payload }: PayloadAction<History>): Desk => ({
      ...desk,
      history: payload,
      save: desk.save === 'conflict' ? 'conflict' : 'unsaved',
      refusal: null,
    }),
    refused: (desk, { payload }: PayloadAction<string>): Desk => ({ ...desk, refusal: payload }),
    /** The server keeps a rig now; `current` when it is still the one in hand. (Here it would be a draft, equal to nothing.) */
    kept: (desk, { payload }: PayloadAction<{ revision: number; current: boolean }>): Desk => ({
      ...desk,
      revision: payload.revision,
      save: payload.current ? 'saved' : 'unsaved',
      refusal: null,
    }),
    lost: (desk): Desk => ({ ...desk, save: 'offline' }),
    notKept: (desk, { payload }: PayloadAction<string>): Desk => ({ ...desk, save: 'refused', refusal: payload }),
    overtaken: (desk, { payload }: PayloadAction<NonNullable<Desk['newer']>>): Desk => ({
      ...desk,
      save: 'conflict',
      newer: payload,
    }),
    /** Keep what is in hand, over the newer one; or take the newer one. */
    keptMine: (desk): Desk => ({
      ...desk,
      revision: desk.newer?.revision ?? desk.revision,
      newer: null,
      save: 'unsaved',
    }),
    tookTheirs: (desk): Desk =>
      desk.newer
        ? { ...desk, history: startHistory(desk.newer.rig), revision: desk.newer.revision, newer: null, save: 'saved' }
        : desk,
    dismissed: (desk): Desk => ({ ...desk, refusal: null }),
  },
});

export const { opened, closed, moved, refused, kept, lost, notKept, overtaken, keptMine, tookTheirs, dismissed } =
  slice.actions;
export const deskReducer = slice.reducer;

interface WithDesk {
  readonly desk: Desk;
}
type Dispatch = (action: ReturnType<typeof moved> | ReturnType<typeof refused>) => unknown;
type Thunk = (dispatch: Dispatch, getState: () => WithDesk) => boolean;

/** Applies an edit as one step that can be undone. True when it was accepted. */
export const applyStep =
  (edit: Edit, label: string, origin: Step['origin'] = 'person'): Thunk =>
  (dispatch, getState) => {
    const { history } = getState().desk;
    if (!history) return false;
    const done = commit(history, edit, label, origin);
    dispatch(done.ok ? moved(done.history) : refused(done.refusal.reason));
    return done.ok;
  };

const step =
  (move: typeof undo): Thunk =>
  (dispatch, getState) => {
    const { history } = getState().desk;
    if (!history) return false;
    const done = move(history);
    if (done.ok && done.history !== history) dispatch(moved(done.history));
    else if (!done.ok) dispatch(refused(done.refusal.reason));
    return done.ok;
  };
export const undoStep = (): Thunk => step(undo);
export const redoStep = (): Thunk => step(redo);

export const selectDesk = (state: WithDesk): Desk => state.desk;
export const selectRig = (state: WithDesk): Rig | null => state.desk.history?.rig ?? null;
export const selectEvaluation = createSelector([selectRig], (rig) => (rig ? evaluate(rig) : null));
