export { SetSheetView } from './SetSheetView';
