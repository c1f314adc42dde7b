import type { MeterReading, StandInCamera } from '@fendrix/contract';
import { asItStands, createNormal, spotReading } from '@fendrix/core';
import type { JobStore } from '../domain/jobs.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';
import type { SetLight } from './setLight.js';

/** What a hand-held meter is off by, stops, one deviation: usual for one that was not checked against another. */
const OFF_STOPS = 0.07;

/** The stand-in meter: a flat incident one, held at a pinned spot of what really stands. */
export interface Meter {
  read(job: string, shot: string, spot: string): Promise<MeterReading>;
}

/** @param built how the set stands: that of the stand-in camera */
export function createMeter(
  { jobs, sets }: { jobs: JobStore; sets: SetStore },
  light: SetLight,
  built: () => Pick<StandInCamera, 'seed' | 'powerStops' | 'sheetByM'>,
): Meter {
  return {
    async read(job, shot, name) {
      const { document } = await jobs.read(job);
      const setId = document.shots.find(({ id }) => id === shot)?.setId;
      const plan = setId === undefined ? null : (await sets.read(setId)).document;
      const spot = plan?.spots.find((own) => own.name === name);
      if (!plan || !spot)
        throw new AppError('bad-input', 'The set of this picture has no such spot.', {
          hint: 'Pin a spot on its bench, then read the meter there.',
        });
      const { seed, ...wrong } = built();
      const real = asItStands(plan, seed, wrong);
      const [planned, seen] = await Promise.all([
        light.spots(plan, [spot], seed),
        light.spots(real, [spot], seed),
      ]);
      const stopsOf = (set: typeof plan, [trace]: typeof planned) =>
        trace ? spotReading(set, trace).incidentStops : null;
      // The meter is set as the camera is planned; it reads the light of what stands.
      const stops = stopsOf({ ...real, camera: plan.camera }, seen);
      return {
        spot: name,
        stops: stops === null ? null : stops + OFF_STOPS * createNormal(seed)(),
        plannedStops: stopsOf(plan, planned),
      };
    },
  };
}
