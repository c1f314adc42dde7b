export { BriefView } from './brief/BriefView';
export { JobFrame } from './JobFrame';
export { JobListView } from './JobListView';
