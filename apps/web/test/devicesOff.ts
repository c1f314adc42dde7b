import type { Devices } from '@fendrix/contract';

/** All stand-ins as they are at first. */
export const devicesOff: Devices = {
  camera: {
    on: false,
    piecesSeed: 0,
    seed: 1,
    batteryPart: 0.5,
    framesLeft: 9,
    linked: true,
    powerStops: {},
    sheetByM: {},
  },
  trigger: { on: false, linked: true, powers: {}, recycleS: 1.5, misfirePart: 0 },
  turntable: { on: false, linked: true, turnDeg: 0 },
  rail: { on: false, linked: true, forwardM: 0 },
  taking: null,
  misfired: [],
};
