import type { Light, SetDocument, Sheet, Vector } from '@fendrix/contract';
import {
  MIRRORED,
  MIRRORED_POINT,
  MIRRORED_WAY,
  MIRRORED_WEIGHT,
  SEEN,
  SEEN_POINT,
  SEEN_SURFACE,
} from '../engine/sight.js';
import { luminanceOf } from '../exposure/display.js';
import { standsInRoom } from '../geometry/roomBounds.js';
import type { Thing } from '../geometry/scene.js';
import { prepareTracing, type Tracing } from '../render/prepareTracing.js';
import { rayThrough } from '../render/view.js';
import { setRay } from '../trace/engineCalls.js';
import { radians } from '../units/angle.js';
import { add, distance, scale, subtract, toTenthMm, turnUpright } from '../units/vector.js';
import { BLACK_CARD } from './cardMaterials.js';
import { comesIntoFrame } from './comesIntoFrame.js';
import { aloneInTheDark, freeSheetTag, type MovableRef, movableOf, withMovable } from './movables.js';
import { changeBetween, type SetChange } from './setChange.js';

/** One way to take what a spot mirrors away from it. */
export interface WayOut {
  /**
   * turn: round the product; lift: higher or lower; flag: a black card between; polarise: film on the light and a
   * filter across it on the lens; off: switched off.
   */
  how: 'turn' | 'lift' | 'flag' | 'polarise' | 'off';
  /**
   * Degrees towards camera right seen from the front, metres up, the tag of the new card or of the light, or how much
   * of its image stays, over what stays of the light that the surface scatters.
   */
  amount: number | string;
  change: SetChange;
  /** Stops that the light loses and stops that all other light loses, by film and filter; 0 for the other ways. */
  losesStops: { light: number; others: number };
  /** What the spot mirrors then. */
  mirrors: Thing | null;
  /** Whether what was moved or added comes into the picture and was not there before. */
  inFrame: boolean;
}

/** The spot is looked at this far round its middle too, parts of the frame: what is lost stays lost nearby. */
const ROUND = 0.008;
const TURN = { most: 100, step: 0.5 };
const LIFT = { most: 1.2, step: 0.01 };
/** Parts of the way from the spot to what it mirrors at which a card is tried. */
const FLAG_PARTS = [0.7, 0.5, 0.35];
const FLAG_MARGIN_M = 0.015;
/** Usual film and filter, see docs/physics/lights.md. */
const FILM_LOSS_STOPS = 1.4;
const FILTER = { lossStops: 1.5, extinction: 0.005 };

interface SpotRay {
  point: Vector;
  way: Vector;
  met: Vector;
}

/**
 * Ways to keep a light or sheet from being mirrored at a picture point: the least turn round the product to either
 * side, the least lift up and down, a small black card in the way of the mirrored light, and for a light its switch and,
 * where the spot is no metal, film and filter.
 * Each is measured in the changed set; ways that do not clear the spot are left out.
 * @returns nothing where the spot mirrors neither a light nor a sheet
 */
export function loseGlare(set: SetDocument, across: number, down: number): WayOut[] {
  const tracing = prepareTracing(set);
  const seen = raysAt(tracing, across, down);
  const thing = seen.thing;
  if (!thing || (thing.kind !== 'light' && thing.kind !== 'sheet')) return [];
  const ref: MovableRef = { kind: thing.kind, key: thing.key };
  const movable = movableOf(set, ref);
  if (!movable) return [];
  const tried: WayOut[] = [];
  const before = comesIntoFrame(tracing, set, ref);
  const attempt = (how: WayOut['how'], amount: WayOut['amount'], changed: SetDocument, own: MovableRef) => {
    const after = prepareTracing(changed);
    const then = raysAt(after, across, down);
    if (then.things.some((other) => sameThing(other, ref))) return false;
    const inFrame = comesIntoFrame(after, changed, own) && !(own === ref && before);
    tried.push({
      how,
      amount,
      change: changeBetween(set, changed),
      losesStops: NO_LOSS,
      mirrors: then.thing,
      inFrame,
    });
    return true;
  };

  const axis = axisOf(set, seen.on, seen.rays[0]?.point);
  const bare = aloneInTheDark(set, ref, movable);
  const moved = (positionM: Vector) => withMovable(set, ref, { ...movable, positionM: toTenthMm(positionM) });
  // Facing its aim point as before, it turns a little as it goes: somewhat more where the least is not enough.
  for (const side of [1, -1]) {
    const least = leastClear(bare, seen.rays, TURN, (deg) => turnedBack(axis, side * deg));
    for (let deg = least ?? Number.POSITIVE_INFINITY; deg <= (least ?? 0) + 5; deg += 1) {
      const to = turnRound(movable.positionM, axis, side * deg);
      if (!standsInRoom(set, to) || attempt('turn', side * deg, moved(to), ref)) break;
    }
  }
  for (const side of [1, -1]) {
    const least = leastClear(bare, seen.rays, LIFT, (m) => sunkBy(side * m));
    for (let m = least ?? Number.POSITIVE_INFINITY; m <= (least ?? 0) + 0.1; m += 0.02) {
      const to = add(movable.positionM, [0, 0, side * m]);
      if (to[2] < 0 || !standsInRoom(set, to) || attempt('lift', side * m, moved(to), ref)) break;
    }
  }
  for (const part of FLAG_PARTS) {
    const flag = flagBefore(set, seen.rays, part);
    if (!flag) break;
    const withFlag = { ...set, sheets: [...set.sheets, flag] };
    if (!attempt('flag', flag.tag, withFlag, { kind: 'sheet', key: flag.tag })) continue;
    if (!tried.at(-1)?.inFrame) break;
    tried.pop();
  }
  const crossed = ref.kind === 'light' && !seen.metal ? withCrossedFilms(set, ref.key) : null;
  if (crossed) {
    tried.push({
      how: 'polarise',
      amount: imageLeft(crossed),
      change: changeBetween(set, crossed),
      losesStops: filmLosses(crossed, ref.key),
      mirrors: thing,
      inFrame: false,
    });
  }
  if (ref.kind === 'light') {
    const lights = set.lights.map((light) => (light.tag === ref.key ? { ...light, on: false } : light));
    tried.push({
      how: 'off',
      amount: ref.key,
      change: changeBetween(set, { ...set, lights }),
      losesStops: NO_LOSS,
      mirrors: thing,
      inFrame: false,
    });
  }
  // What stays out of the picture first.
  return tried.sort((a, b) => Number(a.inFrame) - Number(b.inFrame));
}

/** The set with film on a light and a filter on the lens across it; null where that cannot be, or is so already. */
function withCrossedFilms(set: SetDocument, tag: string): SetDocument | null {
  const light = set.lights.find((one) => one.tag === tag);
  if (!light || light.kind === 'window' || light.kind === 'surround') return null;
  // A filter that is there stays as it is turned: other lights may be set to it.
  const polariser = set.camera.polariser ?? { ...FILTER, axisDeg: squareTo(light.polarised?.axisDeg ?? 0) };
  const axisDeg = squareTo(polariser.axisDeg);
  const now = set.camera.polariser && light.polarised;
  if (now && Math.abs(Math.cos(radians(now.axisDeg - polariser.axisDeg))) < 0.02) return null;
  const polarised = { lossStops: FILM_LOSS_STOPS, ...light.polarised, axisDeg };
  return {
    ...set,
    lights: set.lights.map((one): Light => (one === light ? { ...light, polarised } : one)),
    camera: { ...set.camera, polariser },
  };
}

const NO_LOSS: WayOut['losesStops'] = { light: 0, others: 0 };

function filmLosses({ lights, camera }: SetDocument, tag: string): WayOut['losesStops'] {
  const light = lights.find((one) => one.tag === tag);
  const film = (light && 'polarised' in light && light.polarised?.lossStops) || 0;
  const others = camera.polariser?.lossStops ?? 0;
  return { light: film + others, others };
}

const squareTo = (deg: number) => (deg > 0 ? deg - 90 : deg + 90);

/** What passes a filter of light that has kept the polarisation of a film across it, over what passes of other light. */
const imageLeft = ({ camera: { polariser } }: SetDocument): number =>
  polariser ? (2 * polariser.extinction) / (1 + polariser.extinction) : 1;

const sameThing = (thing: Thing | null, ref: MovableRef) => thing?.kind === ref.kind && thing.key === ref.key;

/** What a spot and eight places round it mirror, and the rays of those that mirror the same as the spot. */
function raysAt(
  { scene, engine, view }: Tracing,
  across: number,
  down: number,
): { thing: Thing | null; on: Thing | null; metal: boolean; things: (Thing | null)[]; rays: SpotRay[] } {
  const direction = new Float64Array(3);
  const rays: SpotRay[] = [];
  const things: (Thing | null)[] = [];
  let on: Thing | null = null;
  let middle: Thing | null = null;
  let metal = false;
  const shape = view.halfWidth / view.halfHeight;
  const thingAt = (primitive: number) =>
    primitive < 0 ? null : (scene.things[scene.table.thing[primitive] as number] ?? null);
  for (let i = 0; i < 9; i++) {
    const angle = (i * Math.PI) / 4;
    const [dx, dy] = i === 8 ? [0, 0] : [ROUND * Math.cos(angle), ROUND * shape * Math.sin(angle)];
    rayThrough(direction, view, across + dx, down + dy);
    engine.point.set(view.origin);
    engine.direction.set(direction);
    engine.look();
    const s = engine.sight;
    const triple = (at: number) => [...s.subarray(at, at + 3)] as Vector;
    const weight = triple(MIRRORED_WEIGHT);
    const mirrored = thingAt(s[MIRRORED] as number);
    if (i === 8) {
      on = thingAt(s[SEEN] as number);
      middle = mirrored;
      // Bare metal has a mirror lobe and nothing under it.
      metal = (scene.surfaces[s[SEEN_SURFACE] as number]?.lobe ?? null) !== null;
    }
    if (luminanceOf(...weight) <= 0) continue;
    rays.push({ point: triple(SEEN_POINT), way: triple(MIRRORED_WAY), met: triple(MIRRORED_POINT) });
    things.push(mirrored);
  }
  const own = rays.filter(
    (_, i) => middle && things[i]?.key === middle.key && things[i]?.kind === middle.kind,
  );
  const kept = own.length > 0 && middle ? own : rays;
  return { thing: middle, on, metal, things, rays: kept };
}

/** The upright line that things are turned round: through the foot of the product, or through the spot. */
function axisOf(set: SetDocument, on: Thing | null, point: Vector | undefined): Vector {
  const product = on?.kind === 'product' ? set.products.find(({ id }) => id === on.key) : undefined;
  return product ? product.positionM : (point ?? [0, 0, 0]);
}

function turnRound(point: Vector, axis: Vector, deg: number): Vector {
  return add(axis, turnUpright(subtract(point, axis), radians(deg)));
}

/** A ray as the thing meets it once it has moved: the thing stays, the ray is moved back. */
type MovedBack = (v: Vector, isPoint: boolean) => Vector;

const turnedBack =
  (axis: Vector, deg: number): MovedBack =>
  (v, isPoint) =>
    isPoint ? turnRound(v, axis, -deg) : turnUpright(v, radians(-deg));

const sunkBy =
  (liftM: number): MovedBack =>
  (v, isPoint) =>
    isPoint ? subtract(v, [0, 0, liftM]) : v;

/** The least amount, in steps, at which no ray meets the thing any more; null where there is none. */
function leastClear(
  { engine }: Tracing,
  rays: readonly SpotRay[],
  { most, step }: { most: number; step: number },
  movedBack: (amount: number) => MovedBack,
): number | null {
  for (let amount = step; amount <= most; amount += step) {
    const change = movedBack(amount);
    const clear = rays.every(({ point, way }) => {
      setRay(engine.ray, change(point, true), change(way, false));
      return !engine.anyHit();
    });
    if (clear) return amount;
  }
  return null;
}

/** A black card across the rays, at a part of the way to what they mirror, as small as covers them. */
function flagBefore(set: SetDocument, rays: readonly SpotRay[], part: number): Sheet | null {
  const tag = freeSheetTag(set);
  const [first] = rays;
  if (tag === null || !first) return null;
  const at = rays.map(({ point, met }) => add(point, scale(subtract(met, point), part)));
  const middle = scale(at.reduce(add), 1 / at.length);
  const reach = Math.max(...at.map((place) => distance(place, middle))) + FLAG_MARGIN_M;
  return {
    kind: 'flag',
    tag,
    name: 'Black card',
    positionM: toTenthMm(middle),
    aimM: toTenthMm(add(middle, scale(first.way, -0.1))),
    rollDeg: 0,
    widthM: Math.ceil(200 * reach) / 100,
    heightM: Math.ceil(200 * reach) / 100,
    front: BLACK_CARD,
    back: BLACK_CARD,
    stand: false,
  };
}
