import { combineSlices, configureStore, createDynamicMiddleware } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { api } from './api.ts';
import type { Day, Desk } from './state.ts';
import { keepTour, selectTour, tourReducer } from './tour.ts';

/** The open rig and its journal need the model: their slices come with the first page that shows a rig. */
interface Later {
  readonly desk: Desk;
  readonly day: Day;
}
export const rootReducer = combineSlices(api, { tour: tourReducer }).withLazyLoadedSlices<Later>();
export const later = createDynamicMiddleware();

/**
 * While developing, actions and state are held to be plain and never changed. Rigs are left out: core makes them so, and
 * walking one at every action costs more than the action; files and what hears of their progress travel in actions.
 */
const CHECKS = import.meta.env.DEV
  ? {
      immutableCheck: { ignoredPaths: ['desk', 'api'] },
      serializableCheck: {
        ignoredPaths: ['desk', 'api'],
        ignoredActionPaths: ['payload', 'meta.arg', 'meta.baseQueryMeta'],
      },
    }
  : { immutableCheck: false, serializableCheck: false };

export const makeStore = () => {
  const store = configureStore({
    reducer: rootReducer,
    middleware: (defaults) => defaults(CHECKS).prepend(later.middleware).concat(api.middleware),
  });
  let tour = selectTour(store.getState());
  store.subscribe(() => {
    const now = selectTour(store.getState());
    if (now !== tour) keepTour(now);
    tour = now;
  });
  return store;
};

export type AppStore = ReturnType<typeof makeStore>;
type RootState = ReturnType<AppStore['getState']>;
export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<AppStore>();
