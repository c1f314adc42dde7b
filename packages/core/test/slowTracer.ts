import type { SetDocument, Turned, Vector } from '@fendrix/contract';
import { aimFrame, radians, vector } from '../src/index.js';

const { add, dot, normalise, reflect, scale, subtract, turnUpright } = vector;

/**
 * A plain tracer written apart from the core: no primitives, no tree. Rectangles by plane equation; straight
 * outlines by marching along the ray and halving the step at a sign change, with normals by differences.
 * Knows softboxes, lamps, sheets, boxes and straight turned profiles on an empty set.
 */
interface SlowHit {
  t: number;
  key: string;
  normal: Vector;
}

const MARCH_M = 4e-4;

export function slowTrace(set: SetDocument, origin: Vector, direction: Vector): SlowHit | null {
  const hits: SlowHit[] = [];
  const plane = (key: string, centre: Vector, right: Vector, up: Vector, w: number, h: number) => {
    const normal = normalise(vector.cross(right, up));
    const t = dot(subtract(centre, origin), normal) / dot(direction, normal);
    if (!(t > 1e-6)) return;
    const on = subtract(add(origin, scale(direction, t)), centre);
    if (Math.abs(dot(on, right)) <= w / 2 && Math.abs(dot(on, up)) <= h / 2) hits.push({ t, key, normal });
  };
  for (const thing of [...set.lights, ...set.sheets]) {
    if (!('widthM' in thing)) continue;
    const frame = aimFrame(thing.positionM, thing.aimM, thing.rollDeg);
    plane(thing.tag, thing.positionM, frame.right, frame.up, thing.widthM, thing.heightM);
  }
  for (const product of set.products) {
    const foot = add(product.positionM, [0, 0, 1e-4]);
    if (product.kind === 'turned') {
      const hit = marchTurned(product, foot, origin, direction);
      if (hit) hits.push({ ...hit, key: product.id });
      continue;
    }
    if (product.kind !== 'box') continue;
    const turn = radians(product.turnDeg);
    const right = turnUpright([1, 0, 0], turn);
    const deep = turnUpright([0, 1, 0], turn);
    const up: Vector = [0, 0, 1];
    const { widthM: w, depthM: d, heightM: h } = product;
    const middle = add(foot, [0, 0, h / 2]);
    for (const side of [-0.5, 0.5]) {
      plane(product.id, add(middle, scale(deep, side * d)), right, up, w, h);
      plane(product.id, add(middle, scale(right, side * w)), deep, up, d, h);
      plane(product.id, add(middle, scale(up, side * h)), right, deep, w, d);
    }
  }
  return hits.sort((a, b) => a.t - b.t)[0] ?? null;
}

/** What is mirrored at the first hit of a ray; undefined when nothing is hit, null when the dark is mirrored. */
export function slowMirror(set: SetDocument, origin: Vector, direction: Vector) {
  const seen = slowTrace(set, origin, direction);
  if (!seen) return { seen: undefined, mirrored: null, point: null };
  const point = add(origin, scale(direction, seen.t));
  const turned = reflect(direction, seen.normal);
  const mirrored = slowTrace(set, add(point, scale(turned, 1e-5)), turned);
  return {
    seen: seen.key,
    mirrored: mirrored?.key ?? null,
    point: mirrored ? add(add(point, scale(turned, 1e-5)), scale(turned, mirrored.t)) : null,
  };
}

function marchTurned(product: Turned, foot: Vector, origin: Vector, direction: Vector) {
  const inside = (p: Vector) => depthInside(product, foot, p) > 0;
  const nearest = dot(subtract(foot, origin), direction);
  const start = Math.max(1e-5, nearest - 0.5);
  let before = add(origin, scale(direction, start));
  if (inside(before)) return null;
  for (let t = start + MARCH_M; t < nearest + 0.5; t += MARCH_M) {
    const here = add(origin, scale(direction, t));
    if (inside(here) && !inside(before)) {
      let low = t - MARCH_M;
      let high = t;
      for (let i = 0; i < 40; i++) {
        const middle = (low + high) / 2;
        if (inside(add(origin, scale(direction, middle)))) high = middle;
        else low = middle;
      }
      const p = add(origin, scale(direction, low));
      const step = 1e-7;
      const slope = [0, 1, 2].map((a) => {
        const ahead: Vector = [...p];
        const behind: Vector = [...p];
        ahead[a] = (ahead[a] as number) + step;
        behind[a] = (behind[a] as number) - step;
        return depthInside(product, foot, behind) - depthInside(product, foot, ahead);
      }) as Vector;
      return { t: low, normal: normalise(slope) };
    }
    before = here;
  }
  return null;
}

/** Above 0 inside of a straight profile: the least of the distances to side, foot and top. */
function depthInside(product: Turned, foot: Vector, point: Vector): number {
  const [x, y, z] = subtract(point, foot);
  const top = product.profile.at(-1)?.heightM ?? 0;
  const above = product.profile.findIndex(({ heightM }) => heightM >= z);
  const to = product.profile[Math.max(1, above)];
  const from = product.profile[Math.max(1, above) - 1];
  if (!to || !from) return -1;
  const part = (z - from.heightM) / (to.heightM - from.heightM);
  const radius = from.radiusM + part * (to.radiusM - from.radiusM);
  return Math.min(radius - Math.hypot(x, y), z, top - z);
}
