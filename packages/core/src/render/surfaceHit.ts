import { normalsAt } from '../geometry/normal.js';
import { patternPlace } from '../geometry/pattern.js';
import { CONE, FLAT, STRIDE } from '../geometry/primitives.js';
import { applyRelief } from '../geometry/relief.js';
import type { Scene } from '../geometry/scene.js';
import { METAL, NET, type Surface } from '../geometry/surface.js';
import { toneAt } from '../geometry/tone.js';
import { frameRound } from './directions.js';
import { COS_OUT, type PathState } from './pathState.js';

const normals = new Float64Array(6);
const place = new Float64Array(2);

/**
 * Fills the state in for the surface that the ray has met at `state.point`: side, surface, both normals towards the
 * path, cosine, colour. A shading normal that faces away from the path is not used.
 * @returns whether the front was met
 */
export function meetSurface(state: PathState, scene: Scene, primitive: number): boolean {
  const { direction, flat, normal, albedo, point, hit } = state;
  const { table } = scene;
  normalsAt(normals, table, primitive, point);
  const facing =
    (normals[0] as number) * (direction[0] as number) +
    (normals[1] as number) * (direction[1] as number) +
    (normals[2] as number) * (direction[2] as number);
  const fromFront = facing < 0;
  const sign = fromFront ? 1 : -1;
  const surface = scene.surfaces[(fromFront ? table.front : table.back)[primitive] as number] ?? null;
  hit.primitive = primitive;
  hit.fromFront = fromFront;
  hit.surface = surface;
  for (let a = 0; a < 3; a++) {
    flat[a] = sign * (normals[a] as number);
    normal[a] = sign * (normals[3 + a] as number);
  }
  if (surface !== null && surface.relief !== null) applyRelief(normal, surface.relief, point);
  let cosine = 0;
  for (let a = 0; a < 3; a++) cosine -= (normal[a] as number) * (direction[a] as number);
  if (!(cosine > 1e-6)) {
    for (let a = 0; a < 3; a++) normal[a] = flat[a] as number;
    cosine = Math.abs(facing);
  }
  state.numbers[COS_OUT] = Math.min(1, Math.max(1e-6, cosine));
  if (surface !== null) surfaceColour(albedo, scene, surface, primitive, point);
  return fromFront;
}

/** Colour of the base of a surface at a point on it. @param out 0-2 */
export function surfaceColour(
  out: Float64Array,
  { table }: Scene,
  surface: Surface,
  primitive: number,
  point: Float64Array,
): void {
  if (surface.tone === null) {
    out[0] = surface.r;
    out[1] = surface.g;
    out[2] = surface.b;
    return;
  }
  patternPlace(place, table, primitive, point);
  toneAt(out, surface.tone, place);
}

/** How far a net is open at a point: 1 lets all light pass. */
export function netOpenness(
  { table }: Scene,
  surface: Surface,
  primitive: number,
  point: Float64Array,
): number {
  const open = surface.straight[0];
  const edge = surface.softEdge;
  if (surface.kind !== NET || edge === null) return open;
  patternPlace(place, table, primitive, point);
  const a = place[0] as number;
  const b = place[1] as number;
  let away: number;
  switch (edge.side) {
    case 'left':
      away = a;
      break;
    case 'right':
      away = 1 - a;
      break;
    case 'bottom':
      away = b;
      break;
    case 'top':
      away = 1 - b;
      break;
    default:
      away = Math.min(a, b, 1 - a, 1 - b);
  }
  return open + (1 - open) * Math.max(0, 1 - away / edge.widthPart);
}

/** Axes across the shading normal; along the brush marks of a brushed metal. Also the viewer in that frame. */
export function lookOut(state: PathState, scene: Scene): void {
  const { frame, normal, direction, out, hit } = state;
  const { surface } = hit;
  if (
    surface !== null &&
    surface.kind === METAL &&
    surface.lobe &&
    surface.lobe.alphaX !== surface.lobe.alphaY
  ) {
    brushFrame(frame, scene, hit.primitive, normal, surface.brushUp);
  } else frameRound(frame, normal);
  out[0] = -alongAxis(direction, frame, 0);
  out[1] = -alongAxis(direction, frame, 3);
  out[2] = state.numbers[COS_OUT] as number;
}

function brushFrame(
  frame: Float64Array,
  { table }: Scene,
  primitive: number,
  normal: Float64Array,
  up: boolean,
): void {
  const d = table.data;
  const o = primitive * STRIDE;
  const kind = table.kind[primitive];
  let ax = 0;
  let ay = 0;
  let az = 1;
  if (kind === CONE || kind === FLAT) {
    // Round the axis of a turned body; across a flat one, square to its second edge.
    const at = kind === CONE ? 3 : 6;
    ax = d[o + at] as number;
    ay = d[o + at + 1] as number;
    az = d[o + at + 2] as number;
  }
  const nx = normal[0] as number;
  const ny = normal[1] as number;
  const nz = normal[2] as number;
  let tx = ay * nz - az * ny;
  let ty = az * nx - ax * nz;
  let tz = ax * ny - ay * nx;
  const size = Math.sqrt(tx * tx + ty * ty + tz * tz);
  if (!(size > 1e-9)) {
    frameRound(frame, normal);
    return;
  }
  tx /= size;
  ty /= size;
  tz /= size;
  const bx = ny * tz - nz * ty;
  const by = nz * tx - nx * tz;
  const bz = nx * ty - ny * tx;
  const first = up ? 3 : 0;
  const second = 3 - first;
  frame[first] = tx;
  frame[first + 1] = ty;
  frame[first + 2] = tz;
  frame[second] = bx;
  frame[second + 1] = by;
  frame[second + 2] = bz;
}

export function alongAxis(v: Float64Array, frame: Float64Array, axis: number): number {
  return (
    (v[0] as number) * (frame[axis] as number) +
    (v[1] as number) * (frame[axis + 1] as number) +
    (v[2] as number) * (frame[axis + 2] as number)
  );
}

/** `state.into`, in the frame of the surface, as a direction in space. */
export function turnFromFrame(result: Float64Array, { into, frame, normal }: PathState): void {
  for (let a = 0; a < 3; a++) {
    result[a] =
      (into[0] as number) * (frame[a] as number) +
      (into[1] as number) * (frame[3 + a] as number) +
      (into[2] as number) * (normal[a] as number);
  }
}
