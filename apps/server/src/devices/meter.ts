import type { MeterReading, readMeterBody, SetDocument, StandInCamera } from '@fendrix/contract';
import { asItStands, createNormal, spotReading, withoutFlash } from '@fendrix/core';
import type { z } from 'zod';
import type { JobStore } from '../domain/jobs.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';
import type { Pieces } from './pieces.js';
import { plannedSet } from './plannedSet.js';
import type { SetLight } from './setLight.js';
import type { Trigger } from './trigger.js';

/** What a hand-held meter is off by, stops, one deviation: usual for one that was not checked against another. */
const OFF_STOPS = 0.07;

/** Less is dark to a meter, stops against the settings: its cell reads down to some 3 lx. */
const DARK_STOPS = -16;

/**
 * The stand-in meter: at a pinned spot of what really stands, flat for the light that falls there, or narrow from the lens for the
 * tone of the spot; with the flashes or of the light that burns all the time.
 */
export interface Meter {
  read(what: z.output<typeof readMeterBody>): Promise<MeterReading>;
}

/** @param built how the set stands: that of the stand-in camera */
export function createMeter(
  stores: { jobs: JobStore; sets: SetStore },
  light: SetLight,
  built: () => Pick<StandInCamera, 'seed' | 'powerStops' | 'sheetByM' | 'piecesSeed'>,
  { trigger, pieces }: { trigger: Pick<Trigger, 'lit'>; pieces: Pieces },
): Meter {
  return {
    async read({ spot: name, how, light: which, ...frame }) {
      const plan = await plannedSet(stores, frame);
      const spot = plan.spots.find((own) => own.name === name);
      if (!spot)
        throw new AppError('bad-input', 'The set of this picture has no such spot.', {
          hint: 'Pin a spot on its bench, then read the meter there.',
        });
      const { seed, piecesSeed, ...wrong } = built();
      const piece = await pieces.of(piecesSeed);
      const real = trigger.lit(asItStands(plan, seed, { ...wrong, piece }), plan);
      const [planned, seen] = await Promise.all([
        light.spots(plan, [spot], seed),
        light.spots(real, [spot], seed),
      ]);
      const stopsOf = (set: SetDocument, [trace]: typeof planned) => {
        if (!trace) return null;
        const reading = spotReading(which === 'ambient' ? withoutFlash(set) : set, trace);
        const stops = how === 'incident' ? reading.incidentStops : reading.stopsFromMidTone;
        return stops !== null && stops > DARK_STOPS ? stops : null;
      };
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
