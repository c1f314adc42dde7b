export { BenchView } from './BenchView';
export { benchReducers, benchSet } from './state/benchSlice';
