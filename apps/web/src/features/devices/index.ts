export { DeviceDesks } from './DeviceDesks';
export { chooseFrame, chosenFrame, workedFrameReducer } from './frame';
export { PlateChoice } from './PlateChoice';
export { SetDevices } from './SetDevices';
export { StandIns } from './StandIns';
