import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.ts';
import { autosave } from './autosave.ts';
import { dayReducer } from './journal.ts';
import { deskReducer } from './open-rig.ts';

export const makeStore = () =>
  configureStore({
    reducer: { desk: deskReducer, day: dayReducer, [api.reducerPath]: api.reducer },
    // Rigs are plain and frozen by no one else; walking them on every action would cost more than the actions.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).prepend(autosave.middleware).concat(api.middleware),
  });

export type AppStore = ReturnType<typeof makeStore>;
export type RootState = ReturnType<AppStore['getState']>;
export const useAppDispatch = useDispatch.withTypes<AppStore['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
