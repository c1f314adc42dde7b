import { CRUMB, RIPPLES, WEAVE } from './layouts.js';
import { floor32, type i32, mul32, real } from './portable.js';
import { dot3, scale3 } from './vectors.js';

const slope = new Float64Array(3);

/** Directions of the wave trains on water, in the plane of the surface. */
const RIPPLE_TRAINS: i32 = 3;
const rippleWays = new Float64Array(2 * RIPPLE_TRAINS);
fillRippleWays();

/** Directions of the waves of crumb, unit, evenly over half the sphere. */
const WAVES: i32 = 6;
const waveWays = new Float64Array(3 * WAVES);
fillWaveWays();

/**
 * Turns a shading normal by a small relief, in place. The relief is a height over the surface that depends on the
 * place in space; only its slope counts, so the outline and shadows within it are not changed.
 * @param kind not `NO_RELIEF`  @param normal unit  @param point m
 */
export function applyRelief(
  normal: Float64Array,
  kind: i32,
  depthM: number,
  sizeM: number,
  point: Float64Array,
): void {
  const turn = (2 * Math.PI) / sizeM;
  const x = point[0] * turn;
  const y = point[1] * turn;
  const z = point[2] * turn;
  // Slope of half the depth times a wave of height -1 to 1.
  const steep = (depthM / 2) * turn;
  if (kind === RIPPLES) ripples(x, y);
  else if (kind === CRUMB) waves(x, y, z, 1);
  else if (kind === WEAVE) {
    slope[0] = 0.5 * wave(x) * wave(2 * y);
    slope[1] = 0.5 * wave(y) * wave(2 * x);
    slope[2] = 0.5 * wave(z);
  } else crumple(x, y, z);
  const along = dot3(slope, normal);
  for (let a = 0; a < 3; a++) {
    normal[a] = normal[a] - steep * (slope[a] - along * normal[a]);
  }
  scale3(normal, 1 / Math.sqrt(dot3(normal, normal)));
}

const WHOLE_TURN = 2 * Math.PI;

/** Cosine by its series over a quarter of a turn: within 1e-9, four times as fast as the library's. */
function wave(angle: number): number {
  const turns = angle / WHOLE_TURN;
  const x = WHOLE_TURN * (0.25 - Math.abs(turns - Math.floor(turns + 0.5)));
  const x2 = x * x;
  const high: number = 1 / 362880 + x2 * (-1 / 39916800 + x2 / 6227020800);
  return x * (1 + x2 * (-1 / 6 + x2 * (1 / 120 + x2 * (-1 / 5040 + x2 * high))));
}

function fillRippleWays(): void {
  for (let i = 0; i < RIPPLE_TRAINS; i++) {
    const angle = 0.4 + 2.1 * real(i);
    rippleWays[2 * i] = Math.cos(angle);
    rippleWays[2 * i + 1] = Math.sin(angle);
  }
}

/** Three crossing wave trains on water. */
function ripples(x: number, y: number): void {
  slope[0] = 0;
  slope[1] = 0;
  slope[2] = 0;
  for (let i = 0; i < RIPPLE_TRAINS; i++) {
    const c = rippleWays[2 * i];
    const s = rippleWays[2 * i + 1];
    const height = wave((x * c + y * s) * (1 + 0.31 * real(i)) + 1.7 * real(i)) / 3;
    slope[0] = slope[0] + c * height;
    slope[1] = slope[1] + s * height;
  }
}

function fillWaveWays(): void {
  for (let i = 0; i < WAVES; i++) {
    const azimuth = 2.399963 * real(i) + 0.5;
    const height = 1 - (2 * real(i) + 1) / 6;
    const flat = Math.sqrt(1 - height * height);
    waveWays[3 * i] = flat * Math.cos(azimuth);
    waveWays[3 * i + 1] = flat * Math.sin(azimuth);
    waveWays[3 * i + 2] = height;
  }
}

/** A sum of waves in scattered directions: a smooth field without a grain. */
function waves(x: number, y: number, z: number, gain: number): void {
  slope[0] = 0;
  slope[1] = 0;
  slope[2] = 0;
  for (let i = 0; i < WAVES; i++) {
    const cx = waveWays[3 * i];
    const cy = waveWays[3 * i + 1];
    const height = waveWays[3 * i + 2];
    const rate = 0.7 + 0.17 * real(i);
    const share = (gain * wave((x * cx + y * cy + z * height) * rate + 2.1 * real(i))) / 2.4;
    slope[0] = slope[0] + cx * share;
    slope[1] = slope[1] + cy * share;
    slope[2] = slope[2] + height * share;
  }
}

/** Flat facets with creases between: the slope of each cell of space is one constant. */
function crumple(x: number, y: number, z: number): void {
  const scale = 1 / (2 * Math.PI);
  const bend = 0.35;
  waves(x, y, z, 1.5);
  const cx = floor32(x * scale + bend * slope[1]);
  const cy = floor32(y * scale + bend * slope[2]);
  const cz = floor32(z * scale + bend * slope[0]);
  let h = mul32(cx, 668265261) ^ mul32(cy, 374761393) ^ mul32(cz, -1640531535);
  for (let a = 0; a < 3; a++) {
    h = mul32(h ^ (h >>> 15), 739982445);
    h = h ^ (h >>> 13);
    slope[a] = real((h >>> 8) & 0xffff) / 32768 - 1;
  }
}
