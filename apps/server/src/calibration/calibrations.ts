import { readdir, rename, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type {
  Calibration,
  CalibrationHour,
  CardOfFrame,
  CardReading,
  Kit,
  newestCardBody,
  PrintedWedge,
  standInCardBody,
} from '@fendrix/contract';
import {
  canBeCalibrated,
  cardSet,
  cardStops,
  createNormal,
  fitCalibration,
  type HourLight,
  type KitLight,
  lightColourRgb,
  lightOnCard,
  ownLight,
  ownMeterStops,
  ownRecorder,
  ownWedge,
  type RoomShare,
  recordFrame,
  TRAP_REFLECTANCE,
} from '@fendrix/core';
import type { z } from 'zod';
import { encodedFrame } from '../devices/camera.js';
import type { SetLight } from '../devices/setLight.js';
import type { KitStore } from '../domain/kit.js';
import { AppError } from '../errors.js';
import { isFrameName } from '../frames/readFrame.js';
import { type CardPlace, cardOfFrame, cardParts } from './cardOfFrame.js';

/** Rooms whose share is kept: lights at their distances. */
const KEPT = 200;
const SEED = 1;
/** A stand-in of a pair of hands: tape and flash from pop to pop, one deviation. */
const HANDS = { tapeM: 0.004, popStops: 0.02, meterStops: 0.01 } as const;
const STAND_IN_PX = { width: 480, height: 320 } as const;
/** What is behind the card in a stand-in's frame, of the card's tone. */
const DARK_PART = 0.01;

/** The hour in which a studio reads what its own pieces give. */
export interface Calibrations {
  /** What an hour of readings says. @throws {AppError} `bad-input` for lights that the kit has not */
  fit(hour: CalibrationHour): Promise<Calibration>;
  /** The card in the newest picture of the watched folder. @throws {AppError} `not-found` where there is none */
  newest(what: z.output<typeof newestCardBody>): Promise<CardOfFrame>;
  /**
   * The stand-in camera takes the card, or the stand-in meter reads it, with what the pieces in the studio really give.
   * @returns the reading; a frame lies in the watched folder too
   */
  standIn(what: z.output<typeof standInCardBody>): Promise<Pick<CardReading, 'rgb' | 'luxSeconds' | 'frame'>>;
  /** The wedge of the stand-in printer as the stand-in camera sees it beside a card. */
  standInWedge(cardReflectance: number): PrintedWedge;
}

export function createCalibrations({
  kit,
  light: traced,
  folder,
  piecesSeed,
}: {
  kit: KitStore;
  light: Pick<SetLight, 'spots'>;
  folder: string;
  /** Which pieces are there; 0 as by their figures. */
  piecesSeed: () => number;
}): Calibrations {
  const shares = new Map<string, Promise<number>>();
  let count = 0;

  /** What the room sends back to the card, over what comes straight. */
  function shareOf(light: KitLight, distanceM: number, hour: { cardReflectance: number }, document: Kit) {
    const set = cardSet(light, distanceM, hour.cardReflectance, document.studio ?? null);
    const key = JSON.stringify(set);
    const found =
      shares.get(key) ??
      traced.spots(set, set.spots, SEED).then(([trace]) => {
        const [straight, back] = (trace?.illuminance ?? []).reduce(
          ([a, b], { direct, indirect }) => [a + direct, b + indirect],
          [0, 0],
        );
        return straight > 0 ? back / straight : 0;
      });
    shares.set(key, found);
    found.catch(() => shares.delete(key));
    for (const old of [...shares.keys()].slice(0, -KEPT)) shares.delete(old);
    return found;
  }

  return {
    async fit(hour) {
      const { document } = await kit.read();
      const lights = lightsOf(hour, document);
      const asked = new Map<string, Promise<number>>();
      const keyOf = (entry: string, distanceM: number) => `${entry} ${distanceM}`;
      for (const { light: entry, distanceM } of hour.readings) {
        const own = lights.find((one) => one.entry === entry);
        const key = keyOf(entry, distanceM);
        if (own && !asked.has(key)) asked.set(key, shareOf(own.light, distanceM, hour, document));
      }
      const known = new Map<string, number>();
      for (const [key, share] of asked) known.set(key, await share);
      const roomShare: RoomShare = (entry, distanceM) => known.get(keyOf(entry, distanceM)) ?? 0;
      return fitCalibration(hour, lights, roomShare);
    },
    async newest({ place, after }) {
      const name = await newestIn(folder, after ? Date.parse(after) : 0);
      if (!name)
        throw new AppError('not-found', 'No new picture lies in the watched folder.', {
          hint: `Take the card, and let its file come to ${folder}.`,
        });
      return { frame: name, ...(await cardOfFrame(join(folder, name), place)) };
    },
    standInWedge: (cardReflectance) => ownWedge(piecesSeed(), ++count, cardReflectance),
    async standIn({ hour, by, place, light: entry, ...at }) {
      const seed = piecesSeed();
      const { document } = await kit.read();
      const [own] = lightsOf({ ...hour, lights: [entry] }, document);
      if (!own) throw unknownLight(entry);
      count++;
      const normal = createNormal(seed * 1009 + count);
      const real = (seed > 0 ? ownLight(own.light, seed) : own.light) as KitLight;
      const reallyM = at.distanceM + HANDS.tapeM * normal();
      const luxSeconds =
        lightOnCard(
          { light: real, outputStops: 0, givesPart: real.dial?.givesPart ?? 1, hotCentre: null },
          { ...at, distanceM: reallyM },
          await shareOf(own.light, at.distanceM, hour, document),
        ) *
        2 ** (HANDS.popStops * normal());
      if (by === 'meter')
        return { luxSeconds: luxSeconds * 2 ** (ownMeterStops(seed) + HANDS.meterStops * normal()) };
      const tone = 0.18 * 2 ** cardStops(luxSeconds, hour.cardReflectance, at);
      const [r, g, b] =
        real.colour === undefined ? [1, 1, 1] : lightColourRgb(real.colour.temperatureK, hour.whiteBalanceK);
      const picture = cardPicture([r * tone, g * tone, b * tone], place, hour.cardReflectance);
      const { width, height } = STAND_IN_PX;
      const rgb = recordFrame(picture, width, height, at.iso, seed + count, ownRecorder(seed));
      const name = `CARD-${Date.now()}-${String(count).padStart(4, '0')}.JPG`;
      const bytes = await encodedFrame(rgb, STAND_IN_PX, {
        ...at,
        lens: { focalLengthM: hour.focalLengthM },
      });
      const partial = join(folder, `.${name}`);
      await writeFile(partial, bytes);
      await rename(partial, join(folder, name));
      const { rgb: held } = await cardOfFrame(join(folder, name), place);
      return { rgb: held, frame: name };
    },
  };
}

/** The lights of an hour by their figures before any calibration. */
function lightsOf({ lights, readings = [] }: Partial<CalibrationHour>, { entries }: Kit): HourLight[] {
  const wanted = new Set([...(lights ?? []), ...readings.map(({ light }) => light)]);
  return [...wanted].map((id) => {
    const entry = entries.find((own) => own.id === id);
    if (entry?.what !== 'light') throw unknownLight(id);
    const light = entry.calibrated?.before ?? entry.thing;
    if (!canBeCalibrated(light))
      throw new AppError('bad-input', `“${entry.name}” is not calibrated by a card: it throws a pattern.`, {
        hint: 'Leave it out of the hour.',
      });
    return { entry: id, light };
  });
}

const unknownLight = (id: string) =>
  new AppError('bad-input', `The kit has no light “${id}”.`, {
    hint: 'It was deleted meanwhile: take its readings out, or put it back.',
  });

/** A card in a frame: in the middle, in a corner, or all of it with a black trap in the middle. */
function cardPicture(
  card: readonly [number, number, number],
  place: CardPlace,
  reflectance: number,
): Float32Array {
  const { width, height } = STAND_IN_PX;
  const out = new Float32Array(width * height * 3);
  const { whole, hole } = cardParts(place);
  const isIn = (box: readonly [number, number, number, number], u: number, v: number) =>
    u >= box[0] && u < box[2] && v >= box[1] && v < box[3];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x + 0.5) / width, (y + 0.5) / height];
      const part =
        hole && isIn(hole, u, v) ? TRAP_REFLECTANCE / reflectance : isIn(whole, u, v) ? 1 : DARK_PART;
      for (let c = 0; c < 3; c++) out[3 * (y * width + x) + c] = part * (card[c] as number);
    }
  }
  return out;
}

/** The name of the newest picture in a folder that came after a time, ms; null where there is none. */
async function newestIn(folder: string, afterMs: number): Promise<string | null> {
  const names = await readdir(folder).catch(() => [] as string[]);
  let [newest, at]: [string | null, number] = [null, afterMs];
  for (const name of names.filter(isFrameName)) {
    const own = await stat(join(folder, name)).catch(() => null);
    if (own?.isFile() && own.mtimeMs > at) [newest, at] = [name, own.mtimeMs];
  }
  return newest;
}
