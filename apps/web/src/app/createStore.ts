import { configureStore, createListenerMiddleware } from '@reduxjs/toolkit';
import { benchReducers } from '../features/bench';
import { workedFrameReducer } from '../features/devices';
import { openJob } from '../features/jobs';
import { serverApi } from '../shared/api';

/** The store of the application, with what listens to it. */
export function createStore() {
  const listeners = createListenerMiddleware();
  const store = configureStore({
    reducer: {
      ...benchReducers,
      job: openJob.reducer,
      workedFrame: workedFrameReducer,
      [serverApi.reducerPath]: serverApi.reducer,
    },
    middleware: (defaults) =>
      // A set document is checked by its own schema at every edit; walking it again here would slow the drag.
      defaults({ immutableCheck: false, serializableCheck: false })
        .prepend(listeners.middleware)
        .concat(serverApi.middleware),
  });
  return { store, listeners };
}
