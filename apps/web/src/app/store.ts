import { benchSet } from '../features/bench';
import { openJob } from '../features/jobs';
import { keepWhatIsOpen, startAutosave } from '../shared/document/autosave';
import { createStore } from './createStore';

const { store, listeners } = createStore();

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

export { store };
