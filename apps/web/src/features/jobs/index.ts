export { jobsApi } from './api';
export { openJob } from './state/openJob';
