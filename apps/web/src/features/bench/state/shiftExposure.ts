import type { SetDocument } from '@fendrix/contract';
import { brighter, dialGives, fStopsOf, ISO_SPEEDS, nearestStep, SHUTTERS } from '@fendrix/core';
import type { Edit } from './edit';

/** What is changed when the whole exposure is slid. */
export type ShiftBy = 'shutter' | 'ISO' | 'f-stop' | 'all powers';

/** The set a number of stops brighter or darker than another, by one setting, as its dial allows. */
export function shiftExposure(from: SetDocument, by: ShiftBy, stops: number): Edit {
  return (set) => {
    const { camera } = from;
    switch (by) {
      case 'shutter':
        return {
          ...set,
          camera: { ...set.camera, shutterS: stepped(SHUTTERS, camera.shutterS * 2 ** stops) },
        };
      case 'ISO':
        return { ...set, camera: { ...set.camera, iso: stepped(ISO_SPEEDS, camera.iso * 2 ** stops) } };
      case 'f-stop':
        return {
          ...set,
          camera: {
            ...set.camera,
            fNumber: stepped(fStopsOf(camera.lens), camera.fNumber * 2 ** (-stops / 2)),
          },
        };
      case 'all powers': {
        // The ratios stay: none goes further than all can.
        const room = from.lights.filter(({ on }) => on).map((light) => -light.powerStops * dialGives(light));
        const most = Math.min(stops, ...room);
        const lights = set.lights.map((light) => {
          const old = from.lights.find(({ tag }) => tag === light.tag);
          return light.on && old ? { ...light, powerStops: brighter(old, most) } : light;
        });
        return { ...set, lights };
      }
    }
  };
}

function stepped(dial: typeof SHUTTERS, value: number): number {
  return dial[nearestStep(dial, value)]?.value ?? value;
}
