import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { extname } from 'node:path';
import type { FrameSettings } from '@fendrix/contract';
import ExifReader from 'exifreader';
import sharp from 'sharp';
import { embeddedJpeg } from './embeddedJpeg.js';

const PICTURES = new Set(['.jpg', '.jpeg', '.png', '.tif', '.tiff']);
const RAW = new Set(['.cr2', '.cr3', '.nef', '.arw', '.dng', '.raf', '.orf', '.rw2', '.pef', '.srw']);
/** Largest file read, bytes: a raw file of a large body is a third of it. */
export const MOST_FRAME_BYTES = 300_000_000;
const MOST_PIXELS = 250_000_000;
/** Longer side of what is shown of a frame in lists, px. */
const SMALL_PX = 360;

/** Whether a file is looked at, by its name: hidden ones and other kinds are passed over. */
export const isFrameName = (name: string): boolean =>
  !name.startsWith('.') &&
  (PICTURES.has(extname(name).toLowerCase()) || RAW.has(extname(name).toLowerCase()));

/** What is known of a picture file by its bytes. */
export interface ReadFrame extends FrameSettings {
  sha256: string;
  widthPx: number;
  heightPx: number;
  /** By the camera's clock, UTC; null where it wrote none. */
  takenAt: string | null;
  /** A small WebP of it. */
  small: Buffer;
}

/** What cannot be read: told with why. */
export class UnreadableFrame extends Error {
  /** @param mayGrow whether it looks cut off: it may still be written */
  constructor(
    message: string,
    readonly mayGrow: boolean,
  ) {
    super(message);
  }
}

/** The bytes that show a frame: its own, or the preview that a raw file carries. @throws {UnreadableFrame} */
export async function shownBytes(path: string): Promise<{ data: Buffer; shown: Buffer }> {
  const data = await readFile(path);
  if (data.length === 0) throw new UnreadableFrame('it is empty', true);
  if (!RAW.has(extname(path).toLowerCase())) return { data, shown: data };
  const shown = embeddedJpeg(data);
  if (!shown) throw new UnreadableFrame('this raw file carries no preview that can be shown', true);
  return { data, shown };
}

/** Reads a picture file; nothing is written to it. @throws {UnreadableFrame} */
export async function readFrame(path: string): Promise<ReadFrame> {
  const { data, shown } = await shownBytes(path);
  const decoder = () => sharp(shown, { failOn: 'truncated', limitInputPixels: MOST_PIXELS }).rotate();
  try {
    const small = await decoder()
      .resize(SMALL_PX, SMALL_PX, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 80 })
      .toBuffer();
    const { autoOrient } = await sharp(shown).metadata();
    return {
      sha256: createHash('sha256').update(data).digest('hex'),
      widthPx: autoOrient.width,
      heightPx: autoOrient.height,
      ...exifOf(data, shown),
      small,
    };
  } catch (error) {
    throw new UnreadableFrame(
      `it is cut off or no picture (${(error as Error).message.split('\n')[0]})`,
      true,
    );
  }
}

/** A larger picture of a frame, for looking at it alone. */
export async function largeOf(path: string, sidePx: number): Promise<Buffer> {
  const { shown } = await shownBytes(path);
  return sharp(shown, { limitInputPixels: MOST_PIXELS })
    .rotate()
    .resize(sidePx, sidePx, { fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 88 })
    .toBuffer();
}

const NOTHING: FrameSettings & { takenAt: null } = {
  exposureS: null,
  fNumber: null,
  iso: null,
  focalMm: null,
  body: null,
  takenAt: null,
};

/** What the camera wrote, of the file itself or of the preview in it. */
function exifOf(data: Buffer, shown: Buffer): FrameSettings & { takenAt: string | null } {
  for (const bytes of data === shown ? [data] : [data, shown]) {
    try {
      const tags = ExifReader.load(bytes, { expanded: true }).exif;
      if (tags) return settingsOf(tags as Tags);
    } catch {
      // No EXIF, or one that cannot be read: the frame counts all the same.
    }
  }
  return NOTHING;
}

type Tags = Readonly<Record<string, { value: unknown; description?: string } | undefined>>;

function settingsOf(tags: Tags): FrameSettings & { takenAt: string | null } {
  const number = (name: string): number | null => {
    const value = tags[name]?.value;
    const one =
      Array.isArray(value) && value.length === 2 ? Number(value[0]) / Number(value[1]) : Number(value);
    return value !== undefined && Number.isFinite(one) && one > 0 ? one : null;
  };
  const body = tags.Model?.description?.trim().slice(0, 80);
  return {
    exposureS: number('ExposureTime'),
    fNumber: number('FNumber'),
    iso: number('ISOSpeedRatings'),
    focalMm: number('FocalLength'),
    body: body ? body : null,
    takenAt: momentWritten(tags),
  };
}

/** A camera writes its own time of day, with the zone it takes itself to be in only if it is a newer one: else this machine's counts. */
function momentWritten(tags: Tags): string | null {
  const text = tags.DateTimeOriginal?.description ?? tags.DateTime?.description ?? '';
  const match = /^(\d{4}):(\d\d):(\d\d) (\d\d:\d\d:\d\d)/.exec(text);
  if (!match) return null;
  const zone = /^[+-]\d\d:\d\d$/.exec(tags.OffsetTimeOriginal?.description ?? '')?.[0] ?? '';
  const moment = new Date(`${match[1]}-${match[2]}-${match[3]}T${match[4]}${zone}`);
  return Number.isNaN(moment.getTime()) ? null : moment.toISOString();
}
