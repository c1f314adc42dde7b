import { rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { StandInCamera } from '@fendrix/contract';
import { standInCamera } from '@fendrix/contract';
import { asItStands, recordFrame, setOfPlate } from '@fendrix/core';
import sharp from 'sharp';
import type { JobStore } from '../domain/jobs.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';
import { developed, type SetLight, sizeOf } from './setLight.js';

/** Frames are this wide, px: enough to look at and to measure, and there within some ten seconds. */
const ACROSS_PX = 480;
const SAMPLES = 5;
/** What a frame takes of the battery. */
const DRAIN = 1 / 400;

/** The stand-in camera: it writes JPEG files with EXIF into the watched folder, as a tethered one does. */
export interface Camera {
  state(): StandInCamera;
  set(state: StandInCamera): void;
  /** @returns names of the files  @throws {AppError} `unavailable` where battery, card or cable fail */
  take(
    what: { job: string; shot: string; plate?: string | undefined },
    bracketStops: readonly number[],
  ): Promise<string[]>;
}

export function createCamera(
  { jobs, sets }: { jobs: JobStore; sets: SetStore },
  light: SetLight,
  folder: string,
): Camera {
  let state = standInCamera.parse({});
  let count = 0;

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

  return {
    state: () => state,
    set(next) {
      state = next;
    },
    async take({ job, shot, plate }, bracketStops) {
      ready();
      const { document } = await jobs.read(job);
      const { setId } = document.shots.find(({ id }) => id === shot) ?? {};
      if (setId === undefined)
        throw new AppError('bad-input', 'This picture has no set yet.', { hint: 'Make its set first.' });
      const set = (await sets.read(setId)).document;
      const own = plate === undefined ? undefined : set.plates.find(({ id }) => id === plate);
      if (plate !== undefined && !own)
        throw new AppError('bad-input', 'The set of this picture has no such plate.');
      const plan = own ? setOfPlate(set, own) : set;
      const { seed, powerStops, sheetByM } = state;
      const real = asItStands(plan, seed, { powerStops, sheetByM });
      const size = sizeOf(real, ACROSS_PX);
      const films = await light.films(real, size, SAMPLES, seed);
      const names: string[] = [];
      for (const stops of bracketStops) {
        ready();
        // Only ISO changes flash and lasting light alike.
        const iso = real.camera.iso * 2 ** stops;
        const exposed = { ...real, camera: { ...real.camera, iso } };
        count++;
        const rgb = recordFrame(developed(exposed, films), size.width, size.height, iso, seed + count);
        const name = `STAND-${Date.now()}-${String(count).padStart(4, '0')}.JPG`;
        const bytes = await encoded(rgb, size, exposed.camera);
        await put(name, bytes);
        names.push(name);
        state = {
          ...state,
          batteryPart: Math.max(0, state.batteryPart - DRAIN),
          framesLeft: state.framesLeft - 1,
        };
      }
      return names;
    },
  };
}

/** A time of day as cameras write it: their own, without a zone. */
function written(now: Date): string {
  const two = (value: number) => String(value).padStart(2, '0');
  const day = [now.getFullYear(), two(now.getMonth() + 1), two(now.getDate())].join(':');
  return `${day} ${two(now.getHours())}:${two(now.getMinutes())}:${two(now.getSeconds())}`;
}

function encoded(
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
