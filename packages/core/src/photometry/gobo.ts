import type { Gobo } from '@fendrix/contract';
import { LRUCache } from 'lru-cache';
import { radians } from '../units/angle.js';
import { bytesOfBase64 } from '../units/base64.js';
import { type Leaf, strewLeaves } from './leaves.js';

/** Transmittance of a gobo over its square field, row by row from the top as it appears on the wall. */
export interface GoboRaster {
  widthPx: number;
  heightPx: number;
  value: Float32Array;
}

const SIZE = 512;
/** Points a side at which the edges of a drawn gobo are averaged. */
const WITHIN_PIXEL = 2;

/** Gobos drawn before: a projecting spot is made ready at every change of the set. */
const drawn = new LRUCache<string, GoboRaster>({ max: 16 });

/** Draws a gobo; own pictures are taken as they are. */
export function drawGobo(gobo: Gobo): GoboRaster {
  const key = JSON.stringify(gobo);
  const known = drawn.get(key);
  if (known) return known;
  const made = draw(gobo);
  drawn.set(key, made);
  return made;
}

function draw(gobo: Gobo): GoboRaster {
  if (gobo.kind === 'picture') {
    const bytes = bytesOfBase64(gobo.greyBase64);
    const value = Float32Array.from(
      { length: gobo.widthPx * gobo.heightPx },
      (_, i) => (bytes[i] ?? 0) / 255,
    );
    return { widthPx: gobo.widthPx, heightPx: gobo.heightPx, value };
  }
  const steps = SIZE * WITHIN_PIXEL;
  const shut = gobo.kind === 'leaves' ? shutByLeaves(gobo, steps) : shutWhereNot(openAt(gobo), steps);
  const value = new Float32Array(SIZE * SIZE);
  for (let row = 0; row < steps; row++) {
    for (let column = 0; column < steps; column++) {
      if (shut[row * steps + column]) continue;
      const at = Math.floor(row / WITHIN_PIXEL) * SIZE + Math.floor(column / WITHIN_PIXEL);
      value[at] = (value[at] as number) + 1 / WITHIN_PIXEL ** 2;
    }
  }
  return { widthPx: SIZE, heightPx: SIZE, value };
}

/** Middle of a column as x to the right, of a row as y upwards, -1 to 1. */
const xOf = (column: number, steps: number) => (2 * (column + 0.5)) / steps - 1;
const yOf = (row: number, steps: number) => 1 - (2 * (row + 0.5)) / steps;

/** Points of a square field, row by row from the top: 1 where a gobo is not open. */
function shutWhereNot(open: (x: number, y: number) => boolean, steps: number): Uint8Array {
  return Uint8Array.from({ length: steps * steps }, (_, i) =>
    open(xOf(i % steps, steps), yOf(Math.floor(i / steps), steps)) ? 0 : 1,
  );
}

/** The same of leaves, each of which is looked for in its own rectangle alone. */
function shutByLeaves(
  { count, sizePart, seed }: Extract<Gobo, { kind: 'leaves' }>,
  steps: number,
): Uint8Array {
  const shut = new Uint8Array(steps * steps);
  for (const leaf of strewLeaves(count, 2 * sizePart, 2, 2, seed)) {
    const [c, s] = [Math.cos(leaf.angleRad), Math.sin(leaf.angleRad)];
    const right = Math.hypot(leaf.lengthM * c, leaf.widthM * s) / 2;
    const up = Math.hypot(leaf.lengthM * s, leaf.widthM * c) / 2;
    const column = (x: number) => Math.floor(((x + 1) / 2) * steps);
    const row = (y: number) => Math.floor(((1 - y) / 2) * steps);
    const last = Math.min(steps - 1, row(leaf.y - up) + 1);
    const rightmost = Math.min(steps - 1, column(leaf.x + right) + 1);
    for (let v = Math.max(0, row(leaf.y + up) - 1); v <= last; v++) {
      for (let u = Math.max(0, column(leaf.x - right) - 1); u <= rightmost; u++)
        if (isInLeaf(leaf, c, s, xOf(u, steps), yOf(v, steps))) shut[v * steps + u] = 1;
    }
  }
  return shut;
}

/** Whether a drawn gobo is open at a place, x right and y up, -1 to 1. */
function openAt(gobo: Exclude<Gobo, { kind: 'picture' | 'leaves' }>): (x: number, y: number) => boolean {
  if (gobo.kind === 'disc') return (x, y) => x * x + y * y <= gobo.part ** 2;
  const c = Math.cos(radians(gobo.turnDeg));
  const s = Math.sin(radians(gobo.turnDeg));
  return (x, y) => {
    const across = ((c * x + s * y + 1) / 2) * gobo.count;
    return Math.abs(across - Math.floor(across) - 0.5) <= gobo.open / 2;
  };
}

/** @param c  @param s cosine and sine of its angle */
function isInLeaf({ x, y, lengthM, widthM }: Leaf, c: number, s: number, px: number, py: number): boolean {
  const along = (c * (px - x) + s * (py - y)) / (lengthM / 2);
  const across = (-s * (px - x) + c * (py - y)) / (widthM / 2);
  return along * along + across * across <= 1;
}
