import type { Product, SetDocument } from '@fendrix/contract';
import { poseOf } from '../geometry/products/addProduct.js';
import { outlinePieces } from '../geometry/products/outline.js';
import type { Thing } from '../geometry/scene.js';
import { projectPoint, viewOf } from '../render/view.js';
import { degrees } from '../units/angle.js';
import { placed } from '../units/frame.js';
import { type Evidence, isSource } from './evidence.js';

/** Whether a highlight of some kind is wished. */
export const wishesHighlight = ({ highlight }: SetDocument['wishes']): boolean =>
  highlight !== 'none' && highlight !== 'open';

/** A mirror that sends back less shows no highlight. */
const SEEN_FROM = 0.02;
/** Rows of the fine map that a strip needs to have a shape. */
export const FEWEST_ROWS = 16;
/** An outline that turns by no more than this is a straight side: shoulders and necks bend every highlight, degrees. */
const STRAIGHT_DEG = 1.5;

/** One source as one product mirrors it: row by row of the fine map, the runs of columns that show it. */
export interface Strip {
  thing: Thing;
  rows: readonly { row: number; left: number; right: number; runs: readonly [number, number][] }[];
}

/** Heights of the longest straight side of a turned product, m above its foot; null for what has none. */
function straightSide(product: Product): { fromM: number; toM: number } | null {
  if (product.kind !== 'turned' || (product.lean?.deg ?? 0) !== 0) return null;
  let best: { fromM: number; toM: number } | null = null;
  let from = 0;
  const pieces = outlinePieces(product.profile).filter(({ lower, upper }) => upper.z - lower.z > 1e-6);
  const slope = ({ lower, upper }: (typeof pieces)[number]) =>
    degrees(Math.atan2(upper.r - lower.r, upper.z - lower.z));
  for (let i = 0; i < pieces.length; i++) {
    const first = pieces[from];
    const own = pieces[i];
    if (!first || !own) continue;
    if (Math.abs(slope(own) - slope(first)) > STRAIGHT_DEG) from = i;
    const side = { fromM: (pieces[from] ?? own).lower.z, toM: own.upper.z };
    if (!best || side.toM - side.fromM > best.toM - best.fromM) best = side;
  }
  return best;
}

/** Sources that the upright side of a product mirrors, the one with most of it first. */
export function stripsOf(evidence: Evidence, product: Product, index: number): Strip[] {
  const { set, view, things } = evidence;
  const { width, thing, mirrored, weight } = view.fine;
  const side = straightSide(product);
  if (!side) return [];
  const lens = viewOf(set.camera);
  const rowOfHeight = (heightM: number) => {
    const at = projectPoint(lens, placed(poseOf(product), [0, 0, heightM]));
    return at ? at[1] * view.fine.height : Number.NaN;
  };
  const [top, bottom] = [Math.ceil(rowOfHeight(side.toM)), Math.floor(rowOfHeight(side.fromM))];
  const straight: { row: number; left: number; right: number }[] = [];
  for (let row = Math.max(0, top); row <= Math.min(view.fine.height - 1, bottom); row++) {
    let [left, right] = [-1, -1];
    for (let x = 0; x < width; x++) {
      if (thing[row * width + x] !== index) continue;
      if (left < 0) left = x;
      right = x;
    }
    if (left >= 0 && right - left >= 8) straight.push({ row, left, right });
  }
  if (straight.length < FEWEST_ROWS) return [];
  const counts = new Map<number, number>();
  for (const { row, left, right } of straight)
    for (let x = left; x <= right; x++) {
      const at = row * width + x;
      const source = mirrored[at] as number;
      if (thing[at] !== index || !((weight[at] as number) >= SEEN_FROM) || !isSource(set, things[source]))
        continue;
      counts.set(source, (counts.get(source) ?? 0) + 1);
    }
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .map(([source]) => ({
      thing: things[source] as Thing,
      rows: straight.map(({ row, left, right }) => ({
        row,
        left,
        right,
        runs: runsOf(row, left, right, source),
      })),
    }));

  function runsOf(row: number, left: number, right: number, source: number): [number, number][] {
    const runs: [number, number][] = [];
    for (let x = left; x <= right; x++) {
      const isIts = mirrored[row * width + x] === source && thing[row * width + x] === index;
      const last = runs.at(-1);
      if (!isIts) continue;
      if (last && last[1] === x - 1) last[1] = x;
      else runs.push([x, x]);
    }
    return runs;
  }
}
