import type { Product, Vector } from '@fendrix/contract';
import { MIRRORED, MIRRORED_WAY, SEEN, SEEN_POINT } from '../engine/sight.js';
import { NO_PART } from '../render/look.js';
import type { Tracing } from '../render/prepareTracing.js';
import { projectPoint } from '../render/view.js';
import { normalise, subtract } from '../units/vector.js';
import { bandHeightM, contourAt, endsInPicture } from './contour.js';

/** The rays in which the columns of a product look at the room, whatever stands there. */
export interface MirrorRays {
  /** Place of each column in the visible width, 0 camera left to 1. */
  part: Float64Array;
  /** Starts and unit directions, 3 a column, m. */
  point: Float64Array;
  way: Float64Array;
}

/**
 * Mirrored rays of a product at one height, for the columns that the lens sees and that mirror at all.
 * @returns null where the product has no upright side there
 */
export function mirrorRays(
  tracing: Tracing,
  product: Product,
  columns: number,
  heightM = bandHeightM(product),
): MirrorRays | null {
  const { view, engine, scene } = tracing;
  const contour = contourAt(product, heightM, view.origin);
  const ends = contour && endsInPicture(view, contour);
  if (!contour || !ends) return null;
  const part: number[] = [];
  const point: number[] = [];
  const way: number[] = [];
  for (let i = 0; i < columns; i++) {
    const target = contour.at((i + 0.5) / columns);
    const at = projectPoint(view, target);
    engine.point.set(view.origin);
    engine.direction.set(normalise(subtract(target, view.origin)));
    engine.look();
    const { sight } = engine;
    const thing = scene.things[scene.table.thing[sight[SEEN] as number] ?? -1];
    if (!at || thing?.kind !== 'product' || thing.key !== product.id) continue;
    if ((sight[MIRRORED] as number) === NO_PART) continue;
    part.push((at[0] - ends.left) / (ends.right - ends.left));
    for (let a = 0; a < 3; a++) {
      point.push(sight[SEEN_POINT + a] as number);
      way.push(sight[MIRRORED_WAY + a] as number);
    }
  }
  return { part: Float64Array.from(part), point: Float64Array.from(point), way: Float64Array.from(way) };
}

/** Start and direction of one column. */
export function rayOf(rays: MirrorRays, column: number): { point: Vector; way: Vector } {
  const triple = (list: Float64Array) => [...list.subarray(3 * column, 3 * column + 3)] as Vector;
  return { point: triple(rays.point), way: triple(rays.way) };
}
