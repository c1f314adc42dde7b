export { BriefView } from './brief/BriefView';
export { DayView } from './day/DayView';
export { JobFrame } from './JobFrame';
export { JobListView } from './JobListView';
export { ProductsView } from './products/ProductsView';
export { SeriesView } from './series/SeriesView';
export { CameraView } from './shots/CameraView';
export { ShotsView } from './shots/ShotsView';
