import type { Product, Vector } from '@fendrix/contract';
import type { Thing } from '../geometry/scene.js';
import { createLook, look, NO_PART, NOTHING } from '../render/look.js';
import type { Tracing } from '../render/prepareTracing.js';
import { projectPoint } from '../render/view.js';
import { normalise, subtract } from '../units/vector.js';
import { bandHeightM, type Contour, contourAt, endsInPicture } from './contour.js';

/** One length of the band. */
export interface BandLength {
  /**
   * light, sheet, product, bench, backdrop, room: what is mirrored; dark: nothing there;
   * matte: the surface mirrors nothing; hidden: something stands before the product.
   */
  kind: Thing['kind'] | 'dark' | 'matte' | 'hidden';
  /** Tag or key of the thing mirrored (or hiding), null for dark and matte. */
  what: string | null;
  /** false where the back of a light or sheet is mirrored. */
  front: boolean;
  /** In fractions of the product's visible width at this height, 0 camera left. */
  from: number;
  to: number;
}

export interface MirrorBand {
  product: string;
  heightM: number;
  /** Ends of the visible width in the picture, 0 to 1 across the frame. */
  left: number;
  right: number;
  /** Where its middle lies in the picture, 0 to 1 down the frame. */
  down: number;
  lengths: BandLength[];
}

/** Columns first looked at; ends between different columns are then narrowed down. */
const COLUMNS = 512;
const HALVINGS = 24;
/** A ray that meets the product this much nearer or farther than meant met it elsewhere, m. */
const SAME_PLACE_M = 3e-3;

/**
 * What each column of a product mirrors at one height, as lengths in fractions of its visible width.
 * Traced, not by the distant formula: right for near cameras, tapered and curved outlines. Lengths narrower
 * than 1/512 of the width may be missed.
 * @returns null when the camera sees nothing of the product at this height
 */
export function mirrorBand(
  tracing: Tracing,
  product: Product,
  heightM = bandHeightM(product),
): MirrorBand | null {
  const { view, scene } = tracing;
  const contour = contourAt(product, heightM, view.origin);
  const ends = contour && endsInPicture(view, contour);
  const middle = contour && projectPoint(view, contour.at(0.5));
  if (!contour || !ends || !middle) return null;
  const { left, right } = ends;
  const thing = scene.things.findIndex(({ kind, key }) => kind === 'product' && key === product.id);
  const reader = columnReader(tracing, contour, thing);
  const fraction = (s: number) => {
    const point = projectPoint(view, contour.at(s));
    return point ? (point[0] - left) / (right - left) : s;
  };

  const lengths: BandLength[] = [];
  let from = 0;
  let here = reader(0.5 / COLUMNS);
  for (let i = 1; i < COLUMNS; i++) {
    const next = reader((i + 0.5) / COLUMNS);
    if (next.code === here.code) continue;
    const edge = narrow(reader, (i - 0.5) / COLUMNS, (i + 0.5) / COLUMNS, here.code);
    const to = fraction(edge);
    lengths.push({ ...here.length, from, to });
    from = to;
    here = next;
  }
  lengths.push({ ...here.length, from, to: 1 });
  return { product: product.id, heightM, left, right, down: middle[1], lengths };
}

interface Column {
  code: string;
  length: Pick<BandLength, 'kind' | 'what' | 'front'>;
}

function columnReader(tracing: Tracing, contour: Contour, thing: number): (s: number) => Column {
  const seen = createLook();
  const { things } = tracing.scene;
  const { origin } = tracing.view;
  const column = (kind: BandLength['kind'], what: string | null, front: boolean): Column => ({
    code: `${kind} ${what} ${front}`,
    length: { kind, what, front },
  });
  return (s) => {
    const target = contour.at(s);
    look(seen, tracing, origin, normalise(subtract(target, origin)));
    if (seen.thing !== thing || !samePlace(seen.geometry, target)) {
      return column('hidden', things[seen.thing]?.key ?? null, true);
    }
    if (seen.mirrored === NO_PART) return column('matte', null, true);
    const mirrored = things[seen.mirrored];
    if (seen.mirrored === NOTHING || !mirrored) return column('dark', null, true);
    const twoSided = mirrored.kind === 'light' || mirrored.kind === 'sheet';
    return column(mirrored.kind, mirrored.key, twoSided ? seen.mirroredFront : true);
  };
}

function samePlace(geometry: Float64Array, target: Vector): boolean {
  const gap = Math.hypot(
    (geometry[0] as number) - target[0],
    (geometry[1] as number) - target[1],
    (geometry[2] as number) - target[2],
  );
  return gap < SAME_PLACE_M;
}

/** Place between two columns where the first one's reading ends. */
function narrow(reader: (s: number) => Column, low: number, high: number, code: string): number {
  let from = low;
  let to = high;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (from + to) / 2;
    if (reader(middle).code === code) from = middle;
    else to = middle;
  }
  return (from + to) / 2;
}
