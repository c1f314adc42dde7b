import type { Gobo } from '@fendrix/contract';
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
const drawn = new Map<string, GoboRaster>();
const MOST_KEPT = 16;

/** Draws a gobo; own pictures are taken as they are. */
export function drawGobo(gobo: Gobo): GoboRaster {
  const key = JSON.stringify(gobo);
  const known = drawn.get(key);
  if (known) return known;
  const made = draw(gobo);
  if (drawn.size >= MOST_KEPT) drawn.clear();
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
  const open = openAt(gobo);
  const value = new Float32Array(SIZE * SIZE);
  const steps = SIZE * WITHIN_PIXEL;
  for (let row = 0; row < steps; row++) {
    const y = 1 - (2 * (row + 0.5)) / steps;
    for (let column = 0; column < steps; column++) {
      const x = (2 * (column + 0.5)) / steps - 1;
      if (!open(x, y)) continue;
      const at = Math.floor(row / WITHIN_PIXEL) * SIZE + Math.floor(column / WITHIN_PIXEL);
      value[at] = (value[at] as number) + 1 / WITHIN_PIXEL ** 2;
    }
  }
  return { widthPx: SIZE, heightPx: SIZE, value };
}

/** Whether a drawn gobo is open at a place, x right and y up, -1 to 1. */
function openAt(gobo: Exclude<Gobo, { kind: 'picture' }>): (x: number, y: number) => boolean {
  switch (gobo.kind) {
    case 'disc':
      return (x, y) => x * x + y * y <= gobo.part ** 2;
    case 'bars': {
      const c = Math.cos(radians(gobo.turnDeg));
      const s = Math.sin(radians(gobo.turnDeg));
      return (x, y) => {
        const across = ((c * x + s * y + 1) / 2) * gobo.count;
        return Math.abs(across - Math.floor(across) - 0.5) <= gobo.open / 2;
      };
    }
    case 'leaves': {
      const leaves = strewLeaves(gobo.count, 2 * gobo.sizePart, 2, 2, gobo.seed);
      return (x, y) => !leaves.some((leaf) => inLeaf(leaf, x, y));
    }
  }
}

function inLeaf({ x, y, angleRad, lengthM, widthM }: Leaf, px: number, py: number): boolean {
  const c = Math.cos(angleRad);
  const s = Math.sin(angleRad);
  const along = (c * (px - x) + s * (py - y)) / (lengthM / 2);
  const across = (-s * (px - x) + c * (py - y)) / (widthM / 2);
  return along * along + across * across <= 1;
}
