export { BenchView } from './BenchView';
export { startAutosave as startBenchListeners } from './state/autosave';
export { benchReducers } from './state/benchSlice';
