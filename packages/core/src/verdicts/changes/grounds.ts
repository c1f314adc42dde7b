import type { SetDocument } from '@fendrix/contract';
import { greyOf } from '../../exposure/display.js';
import { traceField } from '../../judge/readField.js';
import { prepareTracing } from '../../render/prepareTracing.js';
import { groundLight, poweredForGround } from '../../solve/groundLight.js';
import type { JudgedBy } from '../evidence.js';
import { allByStops } from './changes.js';

/** Changes of what is behind the products; each gives null where it changes nothing. */

/** Papers and cloths as they are sold. */
export const WHITE_PAPER = 0.88;
export const GREY_PAPER = 0.18;
export const BLACK_CLOTH = 0.02;

/** Another paper or cloth in the place of the one that is there. */
export function withGround(set: SetDocument, reflectance: number): SetDocument | null {
  if (!set.backdrop) return null;
  const material = { kind: 'matte' as const, reflectance };
  const backdrop =
    set.backdrop.kind === 'boards'
      ? { ...set.backdrop, material, lyingMaterial: material }
      : { ...set.backdrop, material };
  return { ...set, backdrop };
}

const PAPERS = [WHITE_PAPER, 0.4, GREY_PAPER, 0.08, BLACK_CLOTH];
/** The rest of the way to a tone that all lights may go, stops. */
const MOST_REST_STOPS = 2;

/** The ground by so many stops: another paper or cloth, and all lights for what is left; the nearest paper first. */
export function otherPapers(set: SetDocument, stops: number): SetDocument[] {
  const grey = greyOfGround(set);
  const rest = (paper: number) => stops - Math.log2(paper / grey);
  return PAPERS.filter((paper) => Math.abs(rest(paper)) < Math.min(MOST_REST_STOPS, Math.abs(stops)))
    .sort((a, b) => Math.abs(rest(a)) - Math.abs(rest(b)))
    .flatMap((paper) => {
      const changed = withGround(set, paper);
      return changed ? [allByStops(changed, rest(paper)) ?? changed] : [];
    });
}

/** The next darker paper or cloth that is so many stops darker, or as near to that as there is; null where none is darker. */
export function darkerPaper(set: SetDocument, stops: number): SetDocument | null {
  const grey = greyOfGround(set);
  const off = (paper: number) => Math.abs(Math.log2(grey / paper) - stops);
  const [paper] = PAPERS.filter((own) => own < grey).sort((a, b) => off(a) - off(b));
  return paper === undefined ? null : withGround(set, paper);
}

/** Grey of paper or cloth behind; 1 where there is none, or it has no colour of its own. */
export const greyOfGround = ({ backdrop }: SetDocument): number =>
  backdrop && 'reflectance' in backdrop.material ? greyOf(backdrop.material.reflectance) : 1;

/** Places and paths by which lights for the ground alone are dialled. */
const DIALLED = { across: 24, down: 16, samples: 8 };
const WHOLE = { left: 0, top: 0, right: 1, bottom: 1 };

/** Two lights for the ground alone, one on either side, out of the frame and dialled to its tone; the products keep theirs. */
export function withLitGround({ kit }: JudgedBy, set: SetDocument, wantedStops: number): SetDocument | null {
  const lights = kit?.entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : [])) ?? [];
  const taken = new Set(set.lights.map(({ tag }) => tag));
  const free = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].filter((letter) => !taken.has(letter));
  const added = ([1, -1] as const).flatMap((side, i) => {
    const tag = free[i];
    return tag === undefined ? [] : (groundLight(set, tag, side, lights) ?? []);
  });
  if (added.length < 2) return null;
  const field = traceField(prepareTracing({ ...set, lights: [...set.lights, ...added] }), WHOLE, DIALLED);
  const powered = poweredForGround(set, added, field, wantedStops);
  return powered && { ...set, lights: [...set.lights, ...powered] };
}
