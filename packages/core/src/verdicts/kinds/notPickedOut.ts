import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { withPlacement } from '../../solve/placements.js';
import { radians } from '../../units/angle.js';
import { add, cross, dot, length, normalise, scale, subtract } from '../../units/vector.js';
import { byStops, switchedOff, those } from '../changes/changes.js';
import { type Evidence, lightCauses, partPlaces, pointAt, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { mean } from '../working.js';
import { ownPlaces } from './burnt.js';
import { facesLens } from './labels.js';

/** Engraving, embossing and weave stand off their surface by slopes of about this, degrees. */
const SLOPE_DEG = 5;
/** Fewer places are too small in the frame for detail to be seen. */
const FEWEST = 12;

/** A surface as it lies at a place, towards the lens, by the places beside it; null at an edge. */
function normalAt(evidence: Evidence, place: number): Vector | null {
  const { across, thing, set } = evidence;
  const [right, below] = [place + 1, place + across];
  if (right % across === 0 || below >= thing.length) return null;
  if (thing[right] !== thing[place] || thing[below] !== thing[place]) return null;
  const here = pointAt(evidence, place);
  const over = cross(subtract(pointAt(evidence, right), here), subtract(pointAt(evidence, below), here));
  if (!(length(over) > 0)) return null;
  const normal = normalise(over);
  return dot(normal, subtract(set.camera.positionM, here)) < 0 ? scale(normal, -1) : normal;
}

/**
 * How far the two sides of a small slope differ, part of the light there: of one light at an angle i from the normal, twice
 * the sine of the slope times tan i; of several, their sum as vectors, each by its part. Limits: a light counts by its middle,
 * and what comes from no light of its own, off cards and walls, as if it came with it.
 */
function reliefOf(
  evidence: Evidence,
  places: readonly number[],
): { value: number; places: number; lights: ReturnType<typeof lightCauses> } | null {
  const lights = lightCauses(evidence, places);
  const standing = lights.flatMap(({ thing, part }) => {
    const light = evidence.set.lights.find(({ tag }) => tag === thing.key);
    return light && light.kind !== 'surround' ? [{ light, part: part ?? 0 }] : [];
  });
  let [sum, count] = [0, 0];
  for (const place of places) {
    const normal = normalAt(evidence, place);
    if (!normal) continue;
    const across = standing.reduce<Vector>(
      (so, { light, part }) => add(so, scale(slantOf(light, pointAt(evidence, place), normal), part)),
      [0, 0, 0],
    );
    sum += 2 * Math.sin(radians(SLOPE_DEG)) * length(across);
    count++;
  }
  return count < FEWEST ? null : { value: sum / count, places: count, lights };
}

/** The way to a light along the surface, over its height above it: as long as the tangent of its angle from the normal. */
function slantOf(light: Exclude<Light, { kind: 'surround' }>, point: Vector, normal: Vector): Vector {
  const way = normalise(subtract(light.positionM, point));
  const height = dot(way, normal);
  return height > LEAST_HEIGHT ? scale(subtract(way, scale(normal, height)), 1 / height) : [0, 0, 0];
}

/** A light lower over a surface than this hardly lights it. */
const LEAST_HEIGHT = 0.05;

/** What is engraved, embossed or woven, under light from the front: nothing tells that it is not flat. */
export const notPickedOut: Judge<'not-picked-out'> = {
  code: 'not-picked-out',
  judge(evidence) {
    if (evidence.set.wishes.words !== 'picked-out') return [];
    return seenProducts(evidence).flatMap(({ product, thing, places }) => {
      const label = partPlaces(evidence, product, places, ({ kind }) => kind === 'label');
      const body = label.length > 0 ? label : ownPlaces(evidence, places);
      const front = body.filter((place) => facesLens(evidence, product, place));
      const relief = reliefOf(evidence, front);
      if (!relief) return [];
      return beyond(evidence.limits, 'not-picked-out', { value: relief.value }, () => ({
        of: thing,
        places: front,
        causes: relief.lights,
        working: mean({ detailPlaces: relief.places }, { slope: SLOPE_DEG }),
      }));
    });
  },
  /** The main light further round, with what it then lacks; what fills from the other side weaker, or off. */
  cures({ set }, { causes }) {
    const [key, fill] = causes.map(({ thing }) => thing.key);
    if (key === undefined) return [];
    const round = (of: SetDocument, deg: number, stops: number) => {
      const moved = withPlacement(of, { vary: 'light-bearing', light: key }, deg);
      return moved && (byStops(moved, key, stops) ?? moved);
    };
    const without = fill === undefined ? null : switchedOff(set, fill);
    const weaker = fill === undefined ? null : byStops(set, fill, -2);
    return those(
      ...[-20, 20, -40, 40].map((deg) => round(set, deg, 0.5)),
      weaker,
      without,
      ...(weaker ? [-25, 25].map((deg) => round(weaker, deg, 0.8)) : []),
      ...(without ? [-30, 30].map((deg) => round(without, deg, 1)) : []),
    );
  },
};
