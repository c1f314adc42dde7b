import type { Kit } from '@fendrix/contract';

/** A small room with white walls and one window, as a studio starts with: to be measured and put right. */
export const studio: NonNullable<Kit['studio']> = {
  room: {
    widthM: 3.4,
    depthM: 2.8,
    heightM: 2.4,
    markFromLeftM: 1.7,
    markFromFrontM: 1.9,
    walls: { kind: 'matte', reflectance: [0.7, 0.7, 0.7] },
    ceiling: { kind: 'matte', reflectance: [0.8, 0.8, 0.8] },
    floor: { kind: 'matte', reflectance: [0.32, 0.24, 0.17] },
  },
  bench: {
    widthM: 1.2,
    depthM: 0.9,
    thicknessM: 0.03,
    centreM: [0, 0.05],
    material: { kind: 'matte', reflectance: [0.3, 0.3, 0.3] },
  },
  benchHeightM: 0.75,
  windows: [
    { name: 'Window', wall: 'left', fromLeftM: 0.9, sillM: 0.9, widthM: 1, heightM: 1.2, facesDeg: 0 },
  ],
  sockets: 4,
  breakerA: 16,
  mainsV: 230,
};
