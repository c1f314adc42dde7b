export { LogOfJob, LogPage } from './LogView';
