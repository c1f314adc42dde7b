import type { Product, SetDocument, StandingLight, Vector } from '@fendrix/contract';
import { FACE } from '../engine/layouts.js';
import { liesOnTable } from '../geometry/backdrop.js';
import { productBounds } from '../geometry/shape.js';
import { faceShape } from '../photometry/emitter.js';
import { aimFrame } from '../units/frame.js';
import { add, cross, distance, dot, length, normalise, scale, subtract } from '../units/vector.js';

/** The soft edge of a shadow: from where all of the light is seen to where none of it is. */
export interface Penumbra {
  /** What the shadow falls on. */
  on: 'table' | 'background';
  /** The light's face across the way to the shadow, m. */
  faceM: number;
  /** Its width at the side of the shadow, m: the face times the way behind the product, over that before it. */
  sideM: number;
  /** Its width at the end of the shadow, which is drawn out where the light comes in flat, m; null where it never ends. */
  endM: number | null;
  /** How high over the foot of the product the point is that throws it, m. */
  heightM: number;
  /** From the light to that point, and from there to the shadow, m. */
  lightM: number;
  shadowM: number;
}

/** Heights of a product that are tried, from its top down. */
const HEIGHTS = 40;
/** Points on the rim of a round light. */
const RIM_POINTS = 24;

/**
 * The soft edge of the shadow that a product throws: the light's face drawn through a point of its axis, as by a pinhole, on table
 * or background. The product is the one nearest to where the light is aimed; the point is its top, or as far down as it takes for
 * the shadow not to fall beside the table.
 * Limits: one edge by one light; the face counts to its rim, a hot centre makes the edge look harder; grids and frost between are
 * left out. What lies further down has its shadow nearer, and harder by its share of the way.
 * Source: docs/physics/lights.md
 * @returns null without a product, or where the middle of the light throws no shadow of it on either
 */
export function penumbra(set: SetDocument, light: StandingLight): Penumbra | null {
  const product = nearestProduct(set, 'aimM' in light ? light.aimM : light.positionM);
  if (!product) return null;
  const { low, high } = productBounds(product);
  for (let step = 0; step < HEIGHTS; step++) {
    const z = high[2] - (step / HEIGHTS) * (high[2] - low[2]);
    const edge: Vector = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, z];
    const caught = whereCaught(set, light.positionM, edge);
    if (caught) return { ...softEdge(light, edge, caught), heightM: z - low[2] };
  }
  return null;
}

function softEdge(light: StandingLight, edge: Vector, { plane, at }: Caught): Omit<Penumbra, 'heightM'> {
  const way = normalise(subtract(edge, light.positionM));
  const sideways = cross(way, plane.normal);
  const across: Vector = length(sideways) < 1e-9 ? [1, 0, 0] : normalise(sideways);
  const along = cross(plane.normal, across);
  const face = facePoints(light, edge);
  const half = Math.max(...face.map((point) => Math.abs(dot(subtract(point, light.positionM), across))));
  const [lightM, shadowM] = [distance(light.positionM, edge), distance(edge, at)];
  return {
    on: plane.on,
    faceM: 2 * half,
    sideM: (2 * half * shadowM) / lightM,
    endM: spreadAlong(face, plane, edge, along),
    lightM,
    shadowM,
  };
}

/** How far the images of the face's points reach along a line in the plane, m; null where one runs out to the horizon. */
function spreadAlong(face: readonly Vector[], plane: Plane, past: Vector, along: Vector): number | null {
  let [low, high] = [Infinity, -Infinity];
  for (const point of face) {
    const at = onPlane(plane, point, past);
    if (!at) return null;
    const place = dot(at, along);
    low = Math.min(low, place);
    high = Math.max(high, place);
  }
  return high - low;
}

function nearestProduct({ products }: SetDocument, point: Vector): Product | undefined {
  const away = ({ positionM }: Product) => distance(positionM, point);
  return [...products].sort((a, b) => away(a) - away(b))[0];
}

interface Plane {
  on: Penumbra['on'];
  normal: Vector;
  through: Vector;
}

/** A shadow that falls on something, and where. */
interface Caught {
  plane: Plane;
  at: Vector;
}

/** Where table or background catches the shadow that the middle of a light throws of a point; null where it falls beside both. */
function whereCaught({ backdrop, bench }: SetDocument, from: Vector, past: Vector): Caught | null {
  const catching: { plane: Plane; holds(at: Vector): boolean }[] = [];
  const lying = liesOnTable(backdrop) ? backdrop : null;
  catching.push({
    plane: { on: 'table', normal: [0, 0, 1], through: [0, 0, 0] },
    holds: ([x, y]) =>
      (!bench && !lying) ||
      (bench !== undefined &&
        Math.abs(x - bench.centreM[0]) <= bench.widthM / 2 &&
        Math.abs(y - bench.centreM[1]) <= bench.depthM / 2) ||
      (lying !== null && Math.abs(x) <= lying.widthM / 2 && y >= lying.frontM && y <= lying.backM),
  });
  if (backdrop) {
    const upright = backdrop.kind === 'panel';
    const through: Vector = upright ? backdrop.centreM : [0, backdrop.backM, backdrop.heightM / 2];
    catching.push({
      plane: { on: 'background', normal: [0, -1, 0], through },
      holds: ([x, , z]) =>
        Math.abs(x - through[0]) <= backdrop.widthM / 2 && Math.abs(z - through[2]) <= backdrop.heightM / 2,
    });
  }
  const met = catching
    .map(({ plane, holds }) => ({ plane, holds, at: onPlane(plane, from, past) }))
    .filter((one): one is typeof one & { at: Vector } => one.at !== null)
    .sort((a, b) => distance(a.at, past) - distance(b.at, past));
  return met.find(({ holds, at }) => holds(at)) ?? null;
}

/** Where the ray from a point past another meets a plane, beyond that other; null where it does not. */
function onPlane({ normal, through }: Plane, from: Vector, past: Vector): Vector | null {
  const way = subtract(past, from);
  const towards = dot(way, normal);
  if (towards > -1e-9) return null;
  const t = dot(subtract(through, from), normal) / towards;
  return t > 1 ? add(from, scale(way, t)) : null;
}

/** Points round the outline of what shines, as seen from a place. */
function facePoints(light: StandingLight, seenFrom: Vector): Vector[] {
  const { positionM } = light;
  if (light.kind === 'bare-lamp' || light.kind === 'table-lamp') {
    const { right, up } = aimFrame(positionM, seenFrom);
    return ellipse(positionM, scale(right, light.radiusM), scale(up, light.radiusM));
  }
  const { right, up } = aimFrame(positionM, light.aimM, light.rollDeg);
  if (light.kind === 'tube') {
    return corners(positionM, scale(right, light.lengthM / 2), scale(up, light.diameterM / 2));
  }
  const face = faceShape(light);
  const [half, tall] = [scale(right, face.halfWidth), scale(up, face.halfHeight)];
  return face.kind === FACE ? corners(positionM, half, tall) : ellipse(positionM, half, tall);
}

const corners = (centre: Vector, half: Vector, tall: Vector): Vector[] =>
  [-1, 1].flatMap((s) => [-1, 1].map((t) => add(centre, add(scale(half, s), scale(tall, t)))));

const ellipse = (centre: Vector, half: Vector, tall: Vector): Vector[] =>
  Array.from({ length: RIM_POINTS }, (_, i) => {
    const angle = (2 * Math.PI * i) / RIM_POINTS;
    return add(centre, add(scale(half, Math.cos(angle)), scale(tall, Math.sin(angle))));
  });
