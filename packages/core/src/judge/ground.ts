import type { Light, SetDocument } from '@fendrix/contract';
import { onDial } from '../exposure/dials.js';
import { PAPER_WHITE_STOPS } from '../exposure/exposure.js';
import type { Thing } from '../geometry/scene.js';
import { dialGives } from '../photometry/output.js';
import { type FieldTrace, fieldByLight, fieldFigures, fieldStops } from './readField.js';

/** What counts as the ground behind the products, and as the products. */
export const GROUND_KINDS: readonly Thing['kind'][] = ['backdrop', 'room'];
export const PRODUCT_KINDS: readonly Thing['kind'][] = ['product'];

/** A light is the ground's own where it gives a good part of the ground and far less of the products. */
const OWN_PART = 0.15;
const LITTLE = 0.6;
/** Less of the ground than this is not worth a word. */
const LEAST_PART = 0.02;

/** What one light gives of ground and products. */
export interface GroundLight {
  tag: string;
  /** Of the light of the ground and of the products, 0 to 1. */
  ofGround: number;
  ofProducts: number;
  /** On the ground, over mid-tone. */
  onGround: number;
  /** Whether it is there for the ground: dimming it leaves the products nearly as they are. */
  own: boolean;
}

/** The lights that are on and light the ground, by the powers of the set. No rays. */
export function groundLights(set: SetDocument, field: FieldTrace): GroundLight[] {
  const ground = fieldByLight(set, field, GROUND_KINDS);
  const products = fieldByLight(set, field, PRODUCT_KINDS);
  const [groundSum, productsSum] = [sumOf(ground), sumOf(products)];
  const part = (value: number | undefined, sum: number) => (sum > 0 ? (value ?? 0) / sum : 0);
  return set.lights.flatMap((light, i) => {
    const [ofGround, ofProducts] = [part(ground[i], groundSum), part(products[i], productsSum)];
    if (!light.on || ofGround < LEAST_PART) return [];
    const own = ofGround > OWN_PART && ofProducts < LITTLE * ofGround;
    return [{ tag: light.tag, ofGround, ofProducts, onGround: ground[i] ?? 0, own }];
  });
}

/** Of the light of the products, what may come from other lights than that of the ground for the two to be alike. */
const ALIKE_PART = 0.15;

/**
 * Whether products and ground take their light from the same lights in the same parts, as what is clear does: the ground is seen
 * through it, and it cannot stay as it is while the ground changes. With one light that says nothing.
 */
export function goodsFollowGround(lights: readonly GroundLight[]): boolean {
  const apart = sumOf(lights.map(({ ofGround, ofProducts }) => Math.abs(ofProducts - ofGround))) / 2;
  return lights.length > 1 && apart < ALIKE_PART;
}

/** How much of the frame is paper white, and where the ground is not. */
export interface WhiteParts {
  /** Of the frame that sees the ground, and of the frame that is white ground, 0 to 1. */
  ground: number;
  white: number;
  /** Of the ground in each ninth of the frame that is white; null where a ninth sees none. Rows from the top left. */
  ninths: (number | null)[];
}

/** Regions of a white ground, by the tones of its places. No rays. */
export function whiteParts(set: SetDocument, field: FieldTrace): WhiteParts {
  const stops = fieldStops(set, field);
  const { across, down } = field;
  const seen = new Array<number>(9).fill(0);
  const white = new Array<number>(9).fill(0);
  field.thing.forEach((thing, place) => {
    const kind = field.things[thing]?.kind;
    if (kind === undefined || !GROUND_KINDS.includes(kind)) return;
    const column = Math.floor((3 * (place % across)) / across);
    const row = Math.floor((3 * Math.floor(place / across)) / down);
    const ninth = 3 * row + column;
    seen[ninth] = (seen[ninth] as number) + 1;
    if ((stops[place] as number) >= PAPER_WHITE_STOPS) white[ninth] = (white[ninth] as number) + 1;
  });
  const places = across * down;
  return {
    ground: sumOf(seen) / places,
    white: sumOf(white) / places,
    ninths: seen.map((count, i) => (count === 0 ? null : (white[i] as number) / count)),
  };
}

/** Powers that change the ground, and what comes of them. */
export interface GroundChange {
  /** New power of each light that is changed, stops from full. */
  powers: { tag: string; powerStops: number }[];
  /** Ground, products and their darkest part once they are set, stops from mid-tone. */
  groundStops: number;
  productsStops: number;
  darkestStops: number;
  /** How much the products change, stops. */
  productsChange: number;
  /** Whether a light runs out. */
  limited: boolean;
}

/** Products that change by no more than this stay as they are, stops. */
export const KEPT_STOPS = 0.1;

/**
 * Powers that bring the mean of the ground to a tone so that the products stay as they are: the ground's own lights by one
 * factor and all others by another, exactly, since tones are linear in powers; then on the dials. Where that cannot be, its
 * own lights alone.
 * @returns null where no light is the ground's own
 */
export function powersForGround(
  set: SetDocument,
  field: FieldTrace,
  wantedStops: number,
): GroundChange | null {
  const own = new Set(groundLights(set, field).flatMap((light) => (light.own ? [light.tag] : [])));
  if (own.size === 0) return null;
  const parts = (kinds: readonly Thing['kind'][]) => {
    const byLight = fieldByLight(set, field, kinds);
    const of = (wanted: boolean) =>
      sumOf(byLight.filter((_, i) => own.has(set.lights[i]?.tag as string) === wanted));
    return { own: of(true), rest: of(false) };
  };
  const [ground, products] = [parts(GROUND_KINDS), parts(PRODUCT_KINDS)];
  const wanted = 2 ** wantedStops;
  const kept = products.own + products.rest;
  const determinant = ground.own * products.rest - ground.rest * products.own;
  const both = {
    own: (wanted * products.rest - kept * ground.rest) / determinant,
    rest: (kept * ground.own - wanted * products.own) / determinant,
  };
  const alone = { own: (wanted - ground.rest) / ground.own, rest: 1 };
  const tried = [both, alone]
    .filter(({ own: a, rest }) => a > 0 && rest > 0 && Number.isFinite(a * rest))
    .map((factor) => changed(set, field, (light) => (own.has(light.tag) ? factor.own : factor.rest)));
  const miss = ({ groundStops }: GroundChange) => Math.abs(groundStops - wantedStops);
  const [first, second] = tried;
  // What keeps the products and comes as near; otherwise what comes nearest.
  if (first && second && miss(first) > miss(second) + KEPT_STOPS) return second;
  return first ?? null;
}

/** Ground lights that differ by this much are told, stops. */
export const UNEVEN_STOPS = 0.5;

/** How unlike the two strongest of the ground's own lights are on it, and what evens them with the ground as bright as before. */
export interface GroundEvening {
  stronger: string;
  weaker: string;
  byStops: number;
  change: GroundChange;
}

/** @returns null where the ground has no two lights of its own, or they are alike */
export function evenedGround(set: SetDocument, field: FieldTrace): GroundEvening | null {
  const [one, other] = groundLights(set, field)
    .filter(({ own }) => own)
    .sort((a, b) => b.onGround - a.onGround);
  if (!one || !other || !(other.onGround > 0)) return null;
  const byStops = Math.log2(one.onGround / other.onGround);
  if (byStops < UNEVEN_STOPS) return null;
  const half = (one.onGround + other.onGround) / 2;
  const factors = new Map([
    [one.tag, half / one.onGround],
    [other.tag, half / other.onGround],
  ]);
  const change = changed(set, field, ({ tag }) => factors.get(tag) ?? 1);
  return { stronger: one.tag, weaker: other.tag, byStops, change };
}

/** The set with each light by a factor, on its dial, and what ground and products come to. */
function changed(set: SetDocument, field: FieldTrace, factorOf: (light: Light) => number): GroundChange {
  let limited = false;
  const powers: GroundChange['powers'] = [];
  const lights = set.lights.map((light) => {
    const factor = factorOf(light);
    if (!light.on || Math.abs(factor - 1) < 1e-3) return light;
    const wanted = light.powerStops + Math.log2(factor) / dialGives(light);
    const powerStops = onDial(light, wanted);
    if (Math.abs(powerStops - wanted) > (light.dial?.stepStops ?? 0.1) * 0.51) limited = true;
    powers.push({ tag: light.tag, powerStops });
    return { ...light, powerStops };
  });
  const levels = (of: SetDocument) => {
    const stops = fieldStops(of, field);
    return {
      ground: fieldFigures(field, stops, GROUND_KINDS)?.meanStops ?? Number.NEGATIVE_INFINITY,
      products: fieldFigures(field, stops, PRODUCT_KINDS),
    };
  };
  const [before, after] = [levels(set), levels({ ...set, lights })];
  const productsStops = after.products?.meanStops ?? Number.NEGATIVE_INFINITY;
  return {
    powers,
    groundStops: after.ground,
    productsStops,
    darkestStops: after.products?.leastStops ?? Number.NEGATIVE_INFINITY,
    productsChange: before.products ? productsStops - before.products.meanStops : 0,
    limited,
  };
}

const sumOf = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0);
