import { configureStore, createListenerMiddleware } from '@reduxjs/toolkit';
import { benchReducers } from '../features/bench';
import { jobsApi, openJob } from '../features/jobs';
import { kitApi } from '../features/kit';
import { setsApi } from '../features/sets';

/** The store of the application, with what listens to it. */
export function createStore() {
  const listeners = createListenerMiddleware();
  const store = configureStore({
    reducer: {
      ...benchReducers,
      job: openJob.reducer,
      [jobsApi.reducerPath]: jobsApi.reducer,
      [setsApi.reducerPath]: setsApi.reducer,
      [kitApi.reducerPath]: kitApi.reducer,
    },
    middleware: (defaults) =>
      // A set document is checked by its own schema at every edit; walking it again here would slow the drag.
      defaults({ immutableCheck: false, serializableCheck: false })
        .prepend(listeners.middleware)
        .concat(jobsApi.middleware, setsApi.middleware, kitApi.middleware),
  });
  return { store, listeners };
}
