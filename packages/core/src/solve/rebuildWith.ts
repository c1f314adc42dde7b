import type { Product, SetDocument, Vector } from '@fendrix/contract';
import { RAY_TO } from '../engine/layouts.js';
import { brighter } from '../exposure/dials.js';
import { bareSet } from '../geometry/bareSet.js';
import { cornersOf } from '../geometry/bounds.js';
import { standsInRoom } from '../geometry/roomBounds.js';
import { productBounds } from '../geometry/shape.js';
import { withFocusKept } from '../judge/focus.js';
import { type MirrorBand, mirrorBand } from '../mirror/mirrorBand.js';
import { outlineOf } from '../plan/placeCamera.js';
import { prepareTracing } from '../render/prepareTracing.js';
import { viewOf } from '../render/view.js';
import { setRay } from '../trace/engineCalls.js';
import { add, distance, scale, subtract } from '../units/vector.js';
import type { MovableRef } from './movables.js';
import { type BandAnswer, imagesIn, placeForBand } from './placeForBand.js';
import { applyChange } from './setChange.js';

/** Another product in the place of one of an old set. */
export interface RebuildWish {
  /** The product that stood there, by its id. */
  product: string;
  with: Product;
  /** What stays on one line with the old picture: the feet, or the middles, by a riser. */
  align: 'base' | 'centre';
}

/** An image that the old product showed, on the new one. Ends in parts of the visible width. */
export interface RebuiltImage extends MovableRef {
  name: string;
  was: { from: number; to: number };
  /** With nothing moved; null where it is not mirrored then. */
  unmoved: { from: number; to: number } | null;
  /** As the set is in the end. */
  now: { from: number; to: number } | null;
  how: 'stays' | 'move' | 'size';
  /** Why it does not lie as it did; null where it does. */
  limited: BandAnswer['limited'] | 'not-mirrored' | 'no-place';
}

export interface Rebuilt {
  set: SetDocument;
  /** Height of the riser under the new product, m. */
  liftM: number;
  /** Height and width of the products, m. */
  size: { was: { heightM: number; widthM: number }; now: { heightM: number; widthM: number } };
  /** Part of the frame that the product takes in its tighter way. */
  fill: { was: number; now: number };
  /** How far the camera goes back because the new product would not be in the frame, m; 0 where it stays. */
  cameraBackM: number;
  /** Whether it is in the frame in the end. */
  fits: boolean;
  images: RebuiltImage[];
}

/** Images narrower than this part of the visible width are no highlight that a picture is known by. */
const LEAST_WIDTH = 0.02;
/** Ends that lie within this part of the width lie as they did. */
const SAME_PART = 0.015;
/** A product keeps so much of the frame round it at least. */
const MARGIN = 0.02;
/** As far as a camera is taken back, of its distance. */
const MOST_BACK = 3;
/** A spot is looked for on the new product from so far outside, m. */
const OUTSIDE_M = 0.3;

/**
 * An old set with another product in it: on the same foot, or on a riser so that the middles agree; camera, lens and exposure stay
 * (scale, base line and tone of the series are theirs) unless it would not be in the frame. Lights and cards whose images lay on the old
 * product are moved or cut so that they lie on the new one as they did; a light that goes nearer or farther gives as much at
 * the product as before. Spots and kept highlights go along by height.
 * Limits: images at the usual height of the band only; one thing after the other, what an earlier one covers is told.
 * @returns null where the set has no such product
 */
export function rebuildWith(before: SetDocument, wish: RebuildWish): Rebuilt | null {
  const old = before.products.find(({ id }) => id === wish.product);
  if (!old) return null;
  const [oldSize, newSize] = [sizeOf(old), sizeOf(wish.with)];
  const liftM = wish.align === 'centre' ? Math.max(0, (oldSize.heightM - newSize.heightM) / 2) : 0;
  const product = {
    ...wish.with,
    id: old.id,
    positionM: add(old.positionM, [0, 0, liftM]),
    turnDeg: old.turnDeg,
  } as Product;
  const placed = withProduct(before, old, product);
  const { set: framed, backM, fits } = inFrame(placed, product);
  const bandBefore = bandOf(before, old);
  const bandUnmoved = bandOf(framed, product);
  const found = bandBefore ? imagesOfBand(before, bandBefore) : [];
  let set = framed;
  const moved = found.map(({ ref, name, was }) => {
    const unmoved = nearest(bandUnmoved, ref, was);
    // A thing that was moved for another image of its own, or one before it, may have brought this along.
    const now = nearest(bandOf(set, product), ref, was);
    if (now && isSame(now, was)) return { ...ref, name, was, unmoved, how: 'stays' as const, limited: null };
    if (!mirrors(bandUnmoved))
      return { ...ref, name, was, unmoved, how: 'stays' as const, limited: 'not-mirrored' as const };
    const best = bestAnswer(set, { ...ref, product: product.id, heightM: bandUnmoved?.heightM ?? 0, ...was });
    const next = best && applyChange(set, best.answer.change);
    if (!best || !next || missOf(best.answer.reached, was) >= missOf(now, was))
      return {
        ...ref,
        name,
        was,
        unmoved,
        how: 'stays' as const,
        limited: best?.answer.limited ?? ('no-place' as const),
      };
    set = ref.kind === 'light' ? withSameLight(set, next, ref.key) : next;
    return { ...ref, name, was, unmoved, how: best.by, limited: best.answer.limited };
  });
  const bandAfter = bandOf(set, product);
  return {
    set,
    liftM,
    size: { was: oldSize, now: newSize },
    fill: { was: fillOf(before, old), now: fillOf(set, product) },
    cameraBackM: backM,
    fits,
    images: moved.map((image) => {
      const now = nearest(bandAfter, image, image.was);
      // Whatever the solver reached alone: as the whole set is in the end it counts.
      const limited = now && isSame(now, image.was) ? null : (image.limited ?? 'no-place');
      return { ...image, now, limited };
    }),
  };
}

function sizeOf(product: Product): { heightM: number; widthM: number } {
  const { low, high } = productBounds(product);
  return { heightM: high[2] - low[2], widthM: high[0] - low[0] };
}

/** The set with one product in place of another; what goes with the old one goes with the new one. */
function withProduct(before: SetDocument, old: Product, product: Product): SetDocument {
  const [was, now] = [sizeOf(old), sizeOf(product)];
  const [tall, wide] = [now.heightM / was.heightM, now.widthM / was.widthM];
  const { low, high } = productBounds(old);
  const carried = ([x, y, z]: Vector): Vector => [
    product.positionM[0] + wide * (x - old.positionM[0]),
    product.positionM[1] + wide * (y - old.positionM[1]),
    product.positionM[2] + tall * (z - old.positionM[2]),
  ];
  const isOn = (point: Vector) =>
    point.every((value, a) => value >= (low[a] as number) - 0.005 && value <= (high[a] as number) + 0.005);
  const bare = prepareTracing(bareSet(before, { products: [product] }), 'plain');
  /** The surface of the new product where a spot of the old one is carried to. */
  const onSurface = (point: Vector, normal: Vector): Vector => {
    const start = add(point, scale(normal, OUTSIDE_M));
    setRay(bare.engine.ray, start, scale(normal, -1), 2 * OUTSIDE_M);
    if (bare.engine.closestHit() < 0) return point;
    return add(start, scale(normal, -(bare.engine.ray[RAY_TO] as number)));
  };
  // What faced a point over the new product would light nothing of it.
  const aimed = <T extends { aimM?: Vector }>(thing: T): T =>
    thing.aimM && isOn(thing.aimM) && thing.aimM[2] > product.positionM[2] + now.heightM
      ? { ...thing, aimM: carried(thing.aimM) }
      : thing;
  const { focusOn } = before.camera;
  const after: SetDocument = {
    ...before,
    products: before.products.map((own) => (own.id === old.id ? product : own)),
    lights: before.lights.map((light) => ('aimM' in light ? (aimed(light) as typeof light) : light)),
    sheets: before.sheets.map((sheet) => aimed(sheet)),
    spots: before.spots.map((spot) =>
      isOn(spot.pointM) ? { ...spot, pointM: onSurface(carried(spot.pointM), spot.normal) } : spot,
    ),
    highlights: before.highlights.map((highlight) =>
      highlight.product === old.id ? { ...highlight, heightM: tall * highlight.heightM } : highlight,
    ),
    takes: [],
    takeId: undefined,
  };
  if (focusOn?.product !== old.id) return withFocusKept(before, after);
  const pointM: Vector = [wide * focusOn.pointM[0], wide * focusOn.pointM[1], tall * focusOn.pointM[2]];
  return withFocusKept(before, { ...after, camera: { ...after.camera, focusOn: { ...focusOn, pointM } } });
}

function rectOf({ camera }: SetDocument, product: Product) {
  return outlineOf(viewOf(camera), cornersOf(productBounds(product)));
}

function fillOf(set: SetDocument, product: Product): number {
  const { left, right, top, bottom } = rectOf(set, product);
  return Math.max(right - left, bottom - top);
}

const isWithin = ({ left, right, top, bottom }: ReturnType<typeof rectOf>) =>
  left >= MARGIN && right <= 1 - MARGIN && top >= MARGIN && bottom <= 1 - MARGIN;

/** The camera taken back along its axis until the product is in the frame, as little as that takes. */
function inFrame(set: SetDocument, product: Product): { set: SetDocument; backM: number; fits: boolean } {
  if (isWithin(rectOf(set, product))) return { set, backM: 0, fits: true };
  const { camera } = set;
  const away = subtract(camera.positionM, camera.aimM);
  const at = (factor: number): SetDocument =>
    withFocusKept(set, { ...set, camera: { ...camera, positionM: add(camera.aimM, scale(away, factor)) } });
  let [near, far] = [1, MOST_BACK];
  if (!isWithin(rectOf(at(far), product))) return { set, backM: 0, fits: false };
  for (let i = 0; i < 24; i++) {
    const middle = (near + far) / 2;
    if (isWithin(rectOf(at(middle), product))) far = middle;
    else near = middle;
  }
  const back = at(far);
  if (!standsInRoom(back, back.camera.positionM)) return { set, backM: 0, fits: false };
  return { set: back, backM: distance(back.camera.positionM, camera.positionM), fits: true };
}

const bandOf = (set: SetDocument, product: Product): MirrorBand | null =>
  mirrorBand(prepareTracing(set), product);

/** Whether a band shows anything of what stands round. */
const mirrors = (band: MirrorBand | null): boolean =>
  band?.lengths.some(({ kind }) => kind !== 'matte' && kind !== 'hidden') ?? false;

/** The images of lights and sheets in a band, widest first. */
function imagesOfBand(set: SetDocument, band: MirrorBand) {
  const refs: (MovableRef & { name: string })[] = [
    ...set.lights.map(({ tag, name }) => ({ kind: 'light' as const, key: tag, name })),
    ...set.sheets.map(({ tag, name }) => ({ kind: 'sheet' as const, key: tag, name })),
  ];
  return refs
    .flatMap(({ name, ...ref }) => imagesIn(band, ref).map((was) => ({ ref, name, was })))
    .filter(({ was }) => was.to - was.from >= LEAST_WIDTH)
    .sort((a, b) => b.was.to - b.was.from - (a.was.to - a.was.from));
}

interface Ends {
  from: number;
  to: number;
}

/** The image of a thing that lies nearest to where one lay. */
function nearest(band: MirrorBand | null, ref: MovableRef, was: Ends): Ends | null {
  const own = band ? imagesIn(band, ref) : [];
  return [...own].sort((a, b) => missOf(a, was) - missOf(b, was))[0] ?? null;
}

/** How far both ends are off together; more than any where there is no image. */
const missOf = (now: Ends | null, was: Ends): number =>
  now ? Math.abs(now.from - was.from) + Math.abs(now.to - was.to) : 2;

const isSame = (now: Ends, was: Ends): boolean =>
  Math.abs(now.from - was.from) <= SAME_PART && Math.abs(now.to - was.to) <= SAME_PART;

/** A card is cut to another width sooner than moved; a light is what it is, and moved. */
function bestAnswer(set: SetDocument, wish: Omit<Parameters<typeof placeForBand>[1], 'by'>) {
  const ways = wish.kind === 'sheet' ? (['size', 'move'] as const) : (['move'] as const);
  let best: { by: 'size' | 'move'; answer: BandAnswer } | null = null;
  for (const by of ways) {
    const answer = placeForBand(set, { ...wish, by });
    if (!answer || answer.inFrame) continue;
    if (answer.reached && isSame(answer.reached, wish)) return { by, answer };
    if (!best || missOf(answer.reached, wish) < missOf(best.answer.reached, wish)) best = { by, answer };
  }
  return best;
}

/** A light that was moved, at the power at which as much of it arrives as before. */
function withSameLight(before: SetDocument, after: SetDocument, tag: string): SetDocument {
  const was = before.lights.find((light) => light.tag === tag);
  const lights = after.lights.map((light) => {
    if (light.tag !== tag || !was || !('aimM' in light) || !('aimM' in was)) return light;
    const byStops = 2 * Math.log2(distance(light.positionM, light.aimM) / distance(was.positionM, was.aimM));
    return { ...light, powerStops: brighter(light, byStops) };
  });
  return { ...after, lights };
}
