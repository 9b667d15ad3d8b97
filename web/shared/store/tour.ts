import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { z } from 'zod';
import { keep, readKept } from './browser.ts';

const NAME = 'mellow.tour';

/** The tour of this browser: on a practice rig of its own, and left at any time. */
const Tour = z.strictObject({
  /** The practice rig; null before the first tour. */
  rigId: z.string().nullable(),
  /** Counted from 0; null while no tour is under way. */
  step: z.int().nonnegative().nullable(),
  wasDone: z.boolean(),
});
export type Tour = z.infer<typeof Tour>;

const tourSlice = createSlice({
  name: 'tour',
  initialState: (): Tour => readKept(NAME, Tour) ?? { rigId: null, step: null, wasDone: false },
  reducers: {
    tourBegun: (_, { payload: rigId }: PayloadAction<string>): Tour => ({ rigId, step: 0, wasDone: false }),
    tourMoved: (tour, { payload: step }: PayloadAction<number>): Tour => ({ ...tour, step }),
    tourLeft: (tour, { payload: wasDone }: PayloadAction<boolean>): Tour => ({ ...tour, step: null, wasDone }),
  },
  selectors: { selectTour: (tour) => tour },
});

export const tourReducer = tourSlice.reducer;
export const { tourBegun, tourMoved, tourLeft } = tourSlice.actions;
/** Reads the slice by its place in the state. */
export const { selectTour } = tourSlice.selectors;

/** Over a reload the tour goes on where it was. */
export const keepTour = (tour: Tour): void => void keep(NAME, tour);
