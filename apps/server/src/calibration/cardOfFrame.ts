import type { CardOfFrame, CardReading } from '@fendrix/contract';
import sharp from 'sharp';
import { AppError } from '../errors.js';
import { readFrame, shownBytes, UnreadableFrame } from '../frames/readFrame.js';

export type CardPlace = CardReading['place'];
/** Left, top, right, bottom, parts of the frame. */
type Box = readonly [number, number, number, number];

/** The card fills the middle of a frame, its upper left corner, or all of it. */
const WHOLE: Readonly<Record<CardPlace, Box>> = {
  middle: [0.2, 0.15, 0.8, 0.85],
  corner: [0, 0, 0.45, 0.45],
  trap: [0, 0, 1, 1],
};
const HOLE: Box = [0.46, 0.44, 0.54, 0.56];
/** What is read: well inside of the card, its middle, or the trap. The corner is read where `CORNER_R2` says. */
const READ: Readonly<Record<CardPlace, Box>> = {
  middle: [0.44, 0.42, 0.56, 0.58],
  corner: [0.07, 0.07, 0.13, 0.13],
  trap: [0.485, 0.48, 0.515, 0.52],
};
/** A card is even: more than this within what is read is no card, part of its mean. */
const MOST_SPREAD = 0.25;
/** 8-bit means above and below tell no tone. */
const [DARKEST, BRIGHTEST] = [1.5, 251];

/** Where the card of a place is in its frame, and the hole in it. */
export const cardParts = (place: CardPlace): { whole: Box; hole: Box | null } => ({
  whole: WHOLE[place],
  hole: place === 'trap' ? HOLE : null,
});

/**
 * What a picture file holds of the card, and how it was exposed. The file is not touched.
 * @throws {AppError} `bad-input` for no picture, for a card that is burnt, black or not there
 */
export async function cardOfFrame(path: string, place: CardPlace): Promise<Omit<CardOfFrame, 'frame'>> {
  try {
    const settings = await readFrame(path);
    const { shown } = await shownBytes(path);
    const { width, height } = (await sharp(shown).metadata()).autoOrient;
    const [left, top, right, bottom] = READ[place];
    const { data, info } = await sharp(shown)
      .rotate()
      .toColourspace('srgb')
      .removeAlpha()
      .extract({
        left: Math.floor(left * width),
        top: Math.floor(top * height),
        width: Math.max(1, Math.floor((right - left) * width)),
        height: Math.max(1, Math.floor((bottom - top) * height)),
      })
      .raw()
      .toBuffer({ resolveWithObject: true });
    const count = info.width * info.height;
    const means = [0, 1, 2].map((c) => {
      let sum = 0;
      for (let i = c; i < data.length; i += info.channels) sum += data[i] as number;
      return sum / count;
    });
    const green = means[1] as number;
    let spread = 0;
    for (let i = 1; i < data.length; i += info.channels) spread += ((data[i] as number) - green) ** 2;
    if (means.some((mean) => mean > BRIGHTEST))
      throw badCard('The card is burnt in', 'Close the lens, or turn the light down, and take it again.');
    if (place !== 'trap') {
      if (means.every((mean) => mean < DARKEST))
        throw badCard(
          'There is nothing but black in',
          'Open the lens, or see that the light fires, and take it again.',
        );
      if (Math.sqrt(spread / count) > MOST_SPREAD * green)
        throw badCard(
          'There is no even card in',
          'Let it fill what is read of the frame, and take it again.',
        );
    }
    return {
      rgb: means.map((mean) => mean / 255) as [number, number, number],
      fNumber: settings.fNumber,
      shutterS: settings.exposureS,
      iso: settings.iso,
    };
  } catch (error) {
    if (error instanceof UnreadableFrame)
      throw badCard(
        `Nothing can be read (${error.message}) of`,
        'Let the file come whole, or take it again.',
      );
    throw error;
  }
}

const badCard = (what: string, hint: string) => new AppError('bad-input', `${what} this frame.`, { hint });
