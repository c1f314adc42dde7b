import type { Product, SetDocument, Vector } from '@fendrix/contract';
import {
  MIRRORED,
  MIRRORED_WAY,
  MIRRORED_WEIGHT,
  SEEN,
  SEEN_NORMAL,
  SEEN_POINT,
  SEEN_SURFACE,
} from '../engine/sight.js';
import { luminanceOf } from '../exposure/display.js';
import { bareSet } from '../geometry/bareSet.js';
import { cornersOf } from '../geometry/bounds.js';
import { productBounds } from '../geometry/shape.js';
import { prepareTracing } from '../render/prepareTracing.js';
import type { FrameRect } from '../render/view.js';
import { projectPoint, rayThrough, type View } from '../render/view.js';
import { dot } from '../units/vector.js';

/** Squares of a plan with the part of a surface that looks through each of them. */
export interface ZoneGrid {
  /** Corner of the first square, m, and side of a square, m. */
  fromM: [number, number];
  squareM: number;
  across: number;
  along: number;
  /** Part of the mirroring surface that a small thing there would be seen in, 0 to 1; rows along. */
  share: Float32Array;
}

export interface GlareZones {
  product: string;
  /** x across, y along. */
  above: ZoneGrid;
  /** y across, z along. */
  side: ZoneGrid;
  /** Rays behind it; none where nothing mirrors. */
  rays: number;
}

export interface ZoneOptions {
  product: string;
  /** Only round this place of the frame, parts of its width; the whole product if left out. */
  spot?: { across: number; down: number; radius: number };
}

const SQUARE_M = 0.04;
const REACH_M = 2.2;
/** Heights that count, m from the bench: where sources and cards stand. */
const LOW_M = -0.3;
const HIGH_M = 2;
/** Rays across and down the part of the frame that holds the surface. */
const ACROSS = 150;
const DOWN = 150;
/** Cosine between normals of one spot: a corner of the products is not the spot beside it. */
const SAME_WAY = 0.5;
/** Mirror parts below this show nothing worth moving for. */
const LEAST_WEIGHT = 0.01;

/**
 * Where in the room a source would glare in a product, and a card be seen in it: the mirrored rays of all spots that
 * the lens sees, drawn into two plans. The product alone is traced, so the zones are the same whatever stands there
 * now. Outside of them a source gives no direct reflection at all. Round a spot only its own surface counts, as far as it
 * faces the same way: a matte spot has no zone, whatever glass or lacquer lies beside it.
 * Limits: rough surfaces by the middle of their lobe; squares of 4 cm.
 */
export function glareZones(set: SetDocument, { product, spot }: ZoneOptions): GlareZones {
  const tracing = prepareTracing(bareSet(set, { products: set.products }));
  const { view, engine, scene } = tracing;
  const above = emptyGrid([-REACH_M, -REACH_M], 2 * REACH_M, 2 * REACH_M);
  const side = emptyGrid([-REACH_M, LOW_M], 2 * REACH_M, HIGH_M - LOW_M);
  const direction = new Float64Array(3);
  const body = set.products.find(({ id }) => id === product);
  const part = body && partOfFrame(view, body, spot);
  const middle = spot && surfaceAt(spot.across, spot.down);
  let rays = 0;
  for (let j = 0; part && j < DOWN; j++) {
    for (let i = 0; i < ACROSS; i++) {
      const u = part.left + ((i + 0.5) / ACROSS) * (part.right - part.left);
      const v = part.top + ((j + 0.5) / DOWN) * (part.bottom - part.top);
      if (
        spot &&
        Math.hypot(u - spot.across, ((v - spot.down) * view.halfHeight) / view.halfWidth) > spot.radius
      )
        continue;
      rayThrough(direction, view, u, v);
      engine.point.set(view.origin);
      engine.direction.set(direction);
      engine.look();
      const s = engine.sight;
      const seen = scene.things[scene.table.thing[s[SEEN] as number] ?? -1];
      if (seen?.kind !== 'product' || seen.key !== product) continue;
      // What mirrors another product, or itself, looks no further.
      if ((s[MIRRORED] as number) !== -1) continue;
      if (middle && !isOf(middle)) continue;
      const weight = [0, 1, 2].map((a) => s[MIRRORED_WEIGHT + a] as number) as Vector;
      if (luminanceOf(...weight) < LEAST_WEIGHT) continue;
      const point = [0, 1, 2].map((a) => s[SEEN_POINT + a] as number) as Vector;
      const way = [0, 1, 2].map((a) => s[MIRRORED_WAY + a] as number) as Vector;
      draw(above, side, point, way);
      rays++;
    }
  }
  for (const grid of [above, side]) {
    for (let i = 0; i < grid.share.length; i++) grid.share[i] = (grid.share[i] as number) / Math.max(1, rays);
  }
  return { product, above, side, rays };

  function surfaceAt(across: number, down: number): { surface: number; normal: Vector } {
    rayThrough(direction, view, across, down);
    engine.point.set(view.origin);
    engine.direction.set(direction);
    engine.look();
    const normal = [0, 1, 2].map((a) => engine.sight[SEEN_NORMAL + a] as number) as Vector;
    return { surface: engine.sight[SEEN_SURFACE] as number, normal };
  }

  /** Whether what the last look met is of the same surface and faces the same way. */
  function isOf({ surface, normal }: { surface: number; normal: Vector }): boolean {
    const own = [0, 1, 2].map((a) => engine.sight[SEEN_NORMAL + a] as number) as Vector;
    return engine.sight[SEEN_SURFACE] === surface && dot(own, normal) > SAME_WAY;
  }
}

/** The part of the frame that a product takes, or the part round a spot. */
function partOfFrame(view: View, product: Product, spot: ZoneOptions['spot']): FrameRect | null {
  if (spot) {
    const high = (spot.radius * view.halfWidth) / view.halfHeight;
    const { across, down, radius } = spot;
    return { left: across - radius, right: across + radius, top: down - high, bottom: down + high };
  }
  const seen = cornersOf(productBounds(product)).flatMap((corner) => {
    const at = projectPoint(view, corner);
    return at ? [at] : [];
  });
  if (seen.length === 0) return null;
  const inFrame = (value: number) => Math.max(0, Math.min(1, value));
  const [across, down] = [seen.map(([u]) => inFrame(u)), seen.map(([, v]) => inFrame(v))];
  const rect = {
    left: Math.min(...across),
    right: Math.max(...across),
    top: Math.min(...down),
    bottom: Math.max(...down),
  };
  return rect.right > rect.left && rect.bottom > rect.top ? rect : null;
}

function emptyGrid(fromM: [number, number], acrossM: number, alongM: number): ZoneGrid {
  const across = Math.ceil(acrossM / SQUARE_M);
  const along = Math.ceil(alongM / SQUARE_M);
  return { fromM, squareM: SQUARE_M, across, along, share: new Float32Array(across * along) };
}

/** Counts a ray once in each square that it passes at heights where things stand. */
function draw(above: ZoneGrid, side: ZoneGrid, point: Vector, way: Vector): void {
  const step = SQUARE_M / 2;
  let lastAbove = -1;
  let lastSide = -1;
  for (let t = step; t < 2 * REACH_M; t += step) {
    const z = point[2] + t * way[2];
    if (z < LOW_M || z > HIGH_M) return;
    const x = point[0] + t * way[0];
    const y = point[1] + t * way[1];
    const a = squareAt(above, x, y);
    if (a >= 0 && a !== lastAbove) above.share[a] = (above.share[a] as number) + 1;
    const b = squareAt(side, y, z);
    if (b >= 0 && b !== lastSide) side.share[b] = (side.share[b] as number) + 1;
    lastAbove = a;
    lastSide = b;
  }
}

function squareAt({ fromM, squareM, across, along }: ZoneGrid, u: number, v: number): number {
  const i = Math.floor((u - fromM[0]) / squareM);
  const j = Math.floor((v - fromM[1]) / squareM);
  return i >= 0 && i < across && j >= 0 && j < along ? j * across + i : -1;
}
