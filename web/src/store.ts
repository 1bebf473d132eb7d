import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.ts';
import { outboxReducer } from './jobs/outbox.ts';
import { notTakenReducer } from './jobs/not-taken.ts';
import { photoQueueReducer } from './jobs/photo-queue.ts';
import { offlineReducer } from './offline/offline.ts';
import { preferencesReducer } from './shell/preferences.ts';

/** A store as the application has it: what was kept on the device is in it. */
export function newStore() {
  return configureStore({
    reducer: {
      [api.reducerPath]: api.reducer,
      preferences: preferencesReducer,
      outbox: outboxReducer,
      photoQueue: photoQueueReducer,
      notTaken: notTakenReducer,
      offline: offlineReducer,
    },
    middleware: (standard) => standard().concat(api.middleware),
  });
}

export const store = newStore();

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
