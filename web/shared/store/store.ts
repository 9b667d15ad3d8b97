import { combineSlices, configureStore, createDynamicMiddleware } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.ts';
import type { Day, Desk } from './state.ts';

/** The open rig and its journal need the model: their slices come with the first page that shows a rig. */
interface Later {
  readonly desk: Desk;
  readonly day: Day;
}
export const rootReducer = combineSlices(api).withLazyLoadedSlices<Later>();
export const later = createDynamicMiddleware();

export const makeStore = () =>
  configureStore({
    reducer: rootReducer,
    // Rigs are plain and frozen by no one else; walking them on every action would cost more than the actions.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).prepend(later.middleware).concat(api.middleware),
  });

export type AppStore = ReturnType<typeof makeStore>;
type RootState = ReturnType<AppStore['getState']>;
export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
