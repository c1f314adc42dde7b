import { setMaxListeners } from 'node:events';
import type { SetDocument, Stored } from '@fendrix/contract';
import { encodePicture, planDrawing, spotReading } from '@fendrix/core';
import { type Paper, planSvg, plansPdf, setSheetPdf } from '@fendrix/paper';
import { type SetSheetWords, setSheetWords, sheetMarks } from '@fendrix/words';
import sharp from 'sharp';
import { developed, type SetLight, sizeOf } from '../devices/setLight.js';
import type { KitStore } from '../domain/kit.js';
import type { SetStore } from '../domain/sets.js';

/** At 90 mm wide that is 200 dots an inch. */
const PICTURE_PX = 720;
const PICTURE_SAMPLES = 6;
const SEED = 1;
/** Sheets kept, each of one version of a set. */
const KEPT = 4;

/** Set sheets of stored sets: their words and figures, their picture, their drawings, all of it as PDF. */
export interface SetSheets {
  words(id: string): Promise<SetSheetWords>;
  /** JPEG. */
  picture(id: string): Promise<Buffer>;
  plan(id: string, kind: 'above' | 'side'): Promise<string>;
  /** Both plans, a page each. */
  plans(id: string, paper: Paper): Promise<{ name: string; bytes: Uint8Array }>;
  /** @param link address of the set */
  pdf(id: string, paper: Paper, link: string): Promise<{ name: string; bytes: Uint8Array }>;
}

/** What is worked out of one version of a set; another version of it ends what is under way. */
interface Sheet {
  key: string;
  abort: AbortController;
  /** Both worked out when they are asked for. */
  words: Promise<SetSheetWords> | null;
  picture: Promise<Buffer> | null;
}

/** A stored set with its sheet, and the mains of the studio that its cautions are for. */
interface OpenSheet extends Stored<SetDocument> {
  studio: { breakerA: number; mainsV: number } | undefined;
  sheet: Sheet;
}

const footOf = (revision: number, updatedAt: string) => `Version ${revision} of ${updatedAt.slice(0, 10)}`;

export function createSetSheets(sets: SetStore, kit: KitStore, light: SetLight): SetSheets {
  const kept = new Map<string, Sheet>();

  async function sheetOf(id: string): Promise<OpenSheet> {
    const [stored, own] = await Promise.all([sets.read(id), kit.read()]);
    const { studio } = own.document;
    const key = JSON.stringify([stored.revision, own.revision]);
    let sheet = kept.get(id);
    if (sheet?.key !== key) {
      sheet?.abort.abort(new Error('the set was changed in the meantime'));
      const abort = new AbortController();
      // Each of its many questions listens.
      setMaxListeners(0, abort.signal);
      sheet = { key, abort, words: null, picture: null };
    }
    kept.delete(id);
    kept.set(id, sheet);
    for (const old of [...kept.keys()].slice(0, -KEPT)) kept.delete(old);
    return { ...stored, studio, sheet };
  }

  /** What failed is tried again when it is asked for next. */
  function forgetIfFailed(id: string, sheet: Sheet, part: Promise<unknown>): void {
    part.catch(() => {
      if (kept.get(id) === sheet) kept.delete(id);
    });
  }

  function wordsOfSheet({ id, document, studio, sheet }: OpenSheet): Promise<SetSheetWords> {
    if (sheet.words === null) {
      sheet.words = wordsOf(document, studio, sheet.abort.signal);
      forgetIfFailed(id, sheet, sheet.words);
    }
    return sheet.words;
  }

  function pictureOfSheet({ id, document, sheet }: OpenSheet): Promise<Buffer> {
    if (sheet.picture === null) {
      sheet.picture = pictureOf(document);
      forgetIfFailed(id, sheet, sheet.picture);
    }
    return sheet.picture;
  }

  async function wordsOf(
    set: SetDocument,
    studio: OpenSheet['studio'],
    signal: AbortSignal,
  ): Promise<SetSheetWords> {
    const traces = await light.spots(set, set.spots, SEED);
    const tolerances = await light.tolerances(set, SEED, signal);
    const spots = traces.map((trace) => spotReading(set, trace));
    return setSheetWords(set, { spots, tolerances, marks: sheetMarks(set), studio });
  }

  async function pictureOf(set: SetDocument): Promise<Buffer> {
    const size = sizeOf(set, PICTURE_PX);
    const films = await light.films(set, size, PICTURE_SAMPLES, SEED);
    const pixels = new Uint8ClampedArray(size.width * size.height * 4);
    encodePicture(pixels, developed(set, films));
    return sharp(Buffer.from(pixels.buffer), { raw: { ...size, channels: 4 } })
      .removeAlpha()
      .jpeg({ quality: 90 })
      .toBuffer();
  }

  return {
    words: async (id) => wordsOfSheet(await sheetOf(id)),
    picture: async (id) => pictureOfSheet(await sheetOf(id)),
    async plan(id, kind) {
      const { document } = await sets.read(id);
      return planSvg(planDrawing(kind, document), document.name).svg;
    },
    async plans(id, paper) {
      const { name, revision, updatedAt, document } = await sets.read(id);
      const plans = (['above', 'side'] as const).map((kind) => ({
        title: kind === 'above' ? 'From above' : 'From the side, camera at the left',
        drawing: planDrawing(kind, document),
      }));
      const bytes = await plansPdf(name, plans, footOf(revision, updatedAt), paper);
      return { name: `${name}, plans`, bytes };
    },
    async pdf(id, paper, link) {
      const open = await sheetOf(id);
      const { name, revision, updatedAt, document } = open;
      const [words, data] = await Promise.all([wordsOfSheet(open), pictureOfSheet(open)]);
      const { width, height } = sizeOf(document, PICTURE_PX);
      const bytes = await setSheetPdf(
        {
          words,
          above: planDrawing('above', document),
          side: planDrawing('side', document),
          picture: { data, aspect: width / height },
          link,
          foot: footOf(revision, updatedAt),
        },
        paper,
      );
      return { name: `${name}, set sheet`, bytes };
    },
  };
}
