export { bakeSpread } from './bakeSpread.js';
export { doTask } from './doTask.js';
export { messageOf } from './messageOf.js';
export { partMapOf } from './partMapOf.js';
export { type KeyedSet, type PoolOptions, type RunOptions, WorkerPool, type WorkerPort } from './pool.js';
export { type Progress, passesOf, renderProgressively } from './progressive.js';
export type { FromWorker, Pick, RegionPlaces, Task, TaskResult, TaskResults, ToWorker } from './protocol.js';
export { setTolerances, type ToleranceOptions } from './setTolerances.js';
export { type FeaturePart, featureParts, wholeFeatures } from './wholeFeatures.js';
