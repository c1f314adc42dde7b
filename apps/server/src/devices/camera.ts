import { rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type SetDocument, type StandInCamera, standInCamera, type takeFramesBody } from '@fendrix/contract';
import {
  asItStands,
  encodePicture,
  type Films,
  ownRecorder,
  recordFrame,
  traceKey,
  USUAL_RECORDER,
} from '@fendrix/core';
import sharp from 'sharp';
import type { z } from 'zod';
import type { JobStore } from '../domain/jobs.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';
import type { Movers } from './movers.js';
import type { Pieces } from './pieces.js';
import { plannedSet, type WhichFrame } from './plannedSet.js';
import { developed, type PictureSize, type SetLight, sizeOf } from './setLight.js';
import type { Trigger } from './trigger.js';

/** Frames are this wide, px: enough to look at and to measure, and there within some ten seconds; the live view is small. */
const ACROSS_PX = 480;
const LIVE_PX = 240;
const SAMPLES = 5;
const LIVE_SAMPLES = 2;
/** What a frame takes of the battery. */
const DRAIN = 1 / 400;

/** The stand-in camera: it writes JPEG files with EXIF into the watched folder, as a tethered one does. */
export interface Camera {
  state(): StandInCamera;
  set(state: StandInCamera): void;
  /**
   * @param taken is told after each frame: how many there are, of how many, and which flashes did not fire
   * @returns names of the files
   * @throws {AppError} `unavailable` where battery, card, cable, turntable or rail fail
   */
  take(
    what: z.output<typeof takeFramesBody>,
    taken: (done: number, of: number, misfired: string[]) => void,
  ): Promise<string[]>;
  /** What the camera sees now, WebP, small and grainy as live views are. @throws {AppError} as `take` */
  live(what: WhichFrame): Promise<Buffer>;
}

export function createCamera(
  stores: { jobs: JobStore; sets: SetStore },
  light: SetLight,
  folder: string,
  { trigger, movers, pieces }: { trigger: Trigger; movers: Movers; pieces: Pieces },
): Camera {
  let state = standInCamera.parse({});
  let count = 0;
  /** Films of the last frame and of the last live view: other powers and exposures are developed from them. */
  const kept = new Map<number, { key: string; films: Promise<Films> }>();

  const ready = () => {
    if (!state.on)
      throw new AppError('unavailable', 'The stand-in camera is off.', { hint: 'Switch it on.' });
    if (!state.linked)
      throw new AppError('unavailable', 'The camera does not answer.', { hint: 'See to its cable.' });
    if (state.batteryPart < DRAIN)
      throw new AppError('unavailable', 'The battery of the camera is empty.', {
        hint: 'Put in another one.',
      });
    if (state.framesLeft < 1)
      throw new AppError('unavailable', 'The card of the camera is full.', { hint: 'Put in another one.' });
  };

  /** A folder that is watched meets no half of a file. */
  async function put(name: string, bytes: Buffer): Promise<void> {
    const partial = join(folder, `.${name}`);
    try {
      await writeFile(partial, bytes);
      await rename(partial, join(folder, name));
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
      throw new AppError('unavailable', `The watched folder is not there: ${folder}.`, {
        hint: 'Plug in its disk, or make the folder, then take the frame again.',
      });
    }
  }

  /** The set as it really stands now, turned and moved as table and rail are. */
  async function standing(plan: SetDocument): Promise<SetDocument> {
    const { seed, powerStops, sheetByM, piecesSeed } = state;
    const piece = await pieces.of(piecesSeed);
    return movers.moved(asItStands(plan, seed, { powerStops, sheetByM, piece }));
  }

  function filmsOf(real: SetDocument, across: number, samples: number): Promise<Films> {
    const key = traceKey(real);
    const known = kept.get(across);
    if (known?.key === key) return known.films;
    const films = light.films(real, sizeOf(real, across), samples, state.seed);
    kept.set(across, { key, films });
    films.catch(() => kept.delete(across));
    return films;
  }

  /** Takes one frame of what stands. @returns the name of its file, and the flashes that did not fire */
  async function expose(plan: SetDocument, stops: number, waits: boolean) {
    const real = await standing(plan);
    const films = await filmsOf(real, ACROSS_PX, SAMPLES);
    if (waits) await trigger.ready(plan);
    ready();
    const { set, misfired } = trigger.fire(real, plan);
    // Only ISO changes flash and lasting light alike.
    const iso = set.camera.iso * 2 ** stops;
    const exposed = { ...set, camera: { ...set.camera, iso } };
    const size: PictureSize = films;
    count++;
    const recorder = state.piecesSeed > 0 ? ownRecorder(state.piecesSeed) : USUAL_RECORDER;
    const light = developed(exposed, films);
    const rgb = recordFrame(light, size.width, size.height, iso, state.seed + count, recorder);
    const name = `STAND-${Date.now()}-${String(count).padStart(4, '0')}.JPG`;
    await put(name, await encodedFrame(rgb, size, exposed.camera));
    state = {
      ...state,
      batteryPart: Math.max(0, state.batteryPart - DRAIN),
      framesLeft: state.framesLeft - 1,
    };
    return { name, misfired };
  }

  return {
    state: () => state,
    set(next) {
      state = next;
    },
    async take({ bracketStops, turnsDeg, railM, waits, ...which }, taken) {
      ready();
      const plan = await plannedSet(stores, which);
      const places = turnsDeg ?? railM ?? [null];
      const of = places.length * bracketStops.length;
      const names: string[] = [];
      for (const place of places) {
        if (place !== null) movers.go(turnsDeg ? 'turntable' : 'rail', place);
        for (const stops of bracketStops) {
          ready();
          const { name, misfired } = await expose(plan, stops, waits);
          names.push(name);
          taken(names.length, of, misfired);
        }
      }
      return names;
    },
    async live(which) {
      ready();
      const plan = await plannedSet(stores, which);
      const real = await standing(plan);
      const films = await filmsOf(real, LIVE_PX, LIVE_SAMPLES);
      const pixels = new Uint8ClampedArray(films.width * films.height * 4);
      encodePicture(pixels, developed(trigger.lit(real, plan), films));
      const { width, height } = films;
      return sharp(Buffer.from(pixels.buffer), { raw: { width, height, channels: 4 } })
        .webp({ quality: 80 })
        .toBuffer();
    },
  };
}

/** A time of day as cameras write it: their own, without a zone. */
function written(now: Date): string {
  const two = (value: number) => String(value).padStart(2, '0');
  const day = [now.getFullYear(), two(now.getMonth() + 1), two(now.getDate())].join(':');
  return `${day} ${two(now.getHours())}:${two(now.getMinutes())}:${two(now.getSeconds())}`;
}

/** A frame as a camera writes it, with its settings. */
export function encodedFrame(
  rgb: Uint8Array,
  { width, height }: { width: number; height: number },
  {
    fNumber,
    shutterS,
    iso,
    lens,
  }: { fNumber: number; shutterS: number; iso: number; lens: { focalLengthM: number } },
): Promise<Buffer> {
  const fraction = (value: number) =>
    value >= 1 ? `${Math.round(1000 * value)}/1000` : `1000/${Math.round(1000 / value)}`;
  return sharp(rgb, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 92, chromaSubsampling: '4:4:4' })
    .withExif({
      IFD0: { Make: 'Fendrix', Model: 'Stand-in camera' },
      IFD2: {
        DateTimeOriginal: written(new Date()),
        FNumber: fraction(fNumber),
        ExposureTime: fraction(shutterS),
        ISOSpeedRatings: String(Math.round(iso)),
        FocalLength: fraction(1000 * lens.focalLengthM),
      },
    })
    .toBuffer();
}
