import { configureStore, createListenerMiddleware } from '@reduxjs/toolkit';
import { benchReducers, benchSet } from '../features/bench';
import { jobsApi, openJob } from '../features/jobs';
import { kitApi } from '../features/kit';
import { setsApi } from '../features/sets';
import { keepWhatIsOpen, startAutosave } from '../shared/document/autosave';

const listeners = createListenerMiddleware();

export const store = configureStore({
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

startAutosave(listeners, benchSet);
startAutosave(listeners, openJob);

// A page that goes away, or into the background of a phone, may not come back.
for (const [target, event] of [
  [window, 'pagehide'],
  [document, 'visibilitychange'],
] as const) {
  target.addEventListener(event, () => {
    if (event === 'visibilitychange' && document.visibilityState !== 'hidden') return;
    keepWhatIsOpen(benchSet, store.getState);
    keepWhatIsOpen(openJob, store.getState);
  });
}
