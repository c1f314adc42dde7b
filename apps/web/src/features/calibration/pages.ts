export { CalibrationView } from './CalibrationView';
