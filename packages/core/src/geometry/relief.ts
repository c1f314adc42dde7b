import type { Relief } from '@fendrix/contract';

const slope = new Float64Array(3);

/**
 * Turns a shading normal by a small relief, in place. The relief is a height over the surface that depends on the
 * place in space; only its slope counts, so the outline and shadows within it are not changed.
 * @param normal unit  @param point m
 */
export function applyRelief(normal: Float64Array, relief: Relief, point: ArrayLike<number>): void {
  const turn = (2 * Math.PI) / relief.sizeM;
  const x = (point[0] as number) * turn;
  const y = (point[1] as number) * turn;
  const z = (point[2] as number) * turn;
  // Slope of half the depth times a wave of height -1 to 1.
  const steep = (relief.depthM / 2) * turn;
  switch (relief.kind) {
    case 'ripples':
      ripples(x, y);
      break;
    case 'weave':
      slope[0] = 0.5 * Math.cos(x) * Math.cos(2 * y);
      slope[1] = 0.5 * Math.cos(y) * Math.cos(2 * x);
      slope[2] = 0.5 * Math.cos(z);
      break;
    case 'crumb':
      waves(x, y, z, 1);
      break;
    default:
      crumple(x, y, z);
  }
  let along = 0;
  for (let a = 0; a < 3; a++) along += (slope[a] as number) * (normal[a] as number);
  let size = 0;
  for (let a = 0; a < 3; a++) {
    const turned = (normal[a] as number) - steep * ((slope[a] as number) - along * (normal[a] as number));
    normal[a] = turned;
    size += turned * turned;
  }
  const unit = 1 / Math.sqrt(size);
  for (let a = 0; a < 3; a++) normal[a] = (normal[a] as number) * unit;
}

/** Three crossing wave trains on water. */
function ripples(x: number, y: number): void {
  slope[0] = 0;
  slope[1] = 0;
  slope[2] = 0;
  for (let i = 0; i < 3; i++) {
    const angle = 0.4 + 2.1 * i;
    const c = Math.cos(angle);
    const s = Math.sin(angle);
    const wave = Math.cos((x * c + y * s) * (1 + 0.31 * i) + 1.7 * i) / 3;
    slope[0] = (slope[0] as number) + c * wave;
    slope[1] = (slope[1] as number) + s * wave;
  }
}

/** A sum of waves in scattered directions: a smooth field without a grain. */
function waves(x: number, y: number, z: number, gain: number): void {
  slope[0] = 0;
  slope[1] = 0;
  slope[2] = 0;
  for (let i = 0; i < 6; i++) {
    const azimuth = 2.399963 * i + 0.5;
    const height = 1 - (2 * i + 1) / 6;
    const flat = Math.sqrt(1 - height * height);
    const cx = flat * Math.cos(azimuth);
    const cy = flat * Math.sin(azimuth);
    const rate = 0.7 + 0.17 * i;
    const wave = (gain * Math.cos((x * cx + y * cy + z * height) * rate + 2.1 * i)) / 2.4;
    slope[0] = (slope[0] as number) + cx * wave;
    slope[1] = (slope[1] as number) + cy * wave;
    slope[2] = (slope[2] as number) + height * wave;
  }
}

/** Flat facets with creases between: the slope of each cell of space is one constant. */
function crumple(x: number, y: number, z: number): void {
  const scale = 1 / (2 * Math.PI);
  waves(x, y, z, 1.5);
  const bend = 0.35;
  const cx = Math.floor(x * scale + bend * (slope[1] as number));
  const cy = Math.floor(y * scale + bend * (slope[2] as number));
  const cz = Math.floor(z * scale + bend * (slope[0] as number));
  let h = Math.imul(cx, 0x27d4eb2d) ^ Math.imul(cy, 0x165667b1) ^ Math.imul(cz, 0x9e3779b1);
  for (let a = 0; a < 3; a++) {
    h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
    h ^= h >>> 13;
    slope[a] = ((h >>> 8) & 0xffff) / 32768 - 1;
  }
}
