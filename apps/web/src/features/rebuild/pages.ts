export { BuildView } from './BuildView';
export { RebuildView } from './RebuildView';
