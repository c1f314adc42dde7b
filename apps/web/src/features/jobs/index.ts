export { jobsApi } from './api';
export { workedFrameReducer } from './devices/frame';
export { openJob } from './state/openJob';
