export { BackupsView } from './BackupsView';
