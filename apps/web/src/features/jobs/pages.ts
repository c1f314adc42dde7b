export { BriefView } from './brief/BriefView';
export { JobFrame } from './JobFrame';
export { JobListView } from './JobListView';
export { GoodsView } from './products/GoodsView';
export { SeriesView } from './series/SeriesView';
export { CameraView } from './shots/CameraView';
export { ShotsView } from './shots/ShotsView';
