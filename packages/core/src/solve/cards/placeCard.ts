import type { Kit, SetDocument } from '@fendrix/contract';
import { PRODUCT_KINDS } from '../../judge/ground.js';
import { prepareTracing, type Tracing } from '../../render/prepareTracing.js';
import type { Asked, CardAnswer } from './cardAnswer.js';
import { FLAG_PARTS, keepLightOff } from './keepLightOff.js';
import { type BounceKind, liftRegion } from './liftRegion.js';
import { MIRROR_AWAYS, type MirroredKind, mirrorIn } from './mirrorIn.js';
import { pointsOfRegion, type Region, type RegionPoint } from './region.js';

/** What a card or flag is wanted for. */
export type CardWish =
  /** Keep a light off a region, and leave another as it is. */
  | { what: 'keep-off'; light: string; region: Region; spare: Region | null }
  /** More light on a region. */
  | { what: 'lift'; region: Region; stops: number }
  /** A region mirrors a card. */
  | { what: 'mirror'; region: Region; kind: MirroredKind };

/** One way of many to try: each is a question of its own, so that all cores work at them. */
export type CardTry = { part: number } | { kind: BounceKind } | { awayM: number };

/** What is worth trying for a wish. */
export function cardTries(wish: CardWish): CardTry[] {
  switch (wish.what) {
    case 'keep-off':
      return FLAG_PARTS.map((part) => ({ part }));
    case 'lift':
      return (['white', 'silver', 'foil', 'mirror'] as const).map((kind) => ({ kind }));
    case 'mirror':
      return MIRROR_AWAYS.map((awayM) => ({ awayM }));
  }
}

/** Points that a region is asked by. */
const REGION_POINTS = 48;
const OTHER_POINTS = 6;

/** Tries one way to meet a wish; what comes of it is measured in the changed set. @param tracing of the set @param kit what the studio has, null where that is not known */
export function tryCard(
  tracing: Tracing,
  set: SetDocument,
  wish: CardWish,
  one: CardTry,
  kit: Pick<Kit, 'entries'> | null,
): CardAnswer[] {
  const region = pointsOfRegion(tracing, set, wish.region, REGION_POINTS);
  const spareRegion = wish.what === 'keep-off' ? wish.spare : null;
  const spare = spareRegion ? pointsOfRegion(tracing, set, spareRegion, REGION_POINTS) : [];
  const light = wish.what === 'keep-off' ? wish.light : null;
  const asked: Asked = {
    set,
    tracing,
    region,
    spare,
    light,
    kit,
    others: otherProducts(tracing, set, region, spare),
  };
  if (wish.what === 'keep-off' && 'part' in one) return keepLightOff(asked, one.part);
  if (wish.what === 'lift' && 'kind' in one) return liftRegion(asked, one.kind, wish.stops);
  if (wish.what === 'mirror' && 'awayM' in one) return mirrorIn(asked, wish.kind, one.awayM);
  return [];
}

/** Points of the products that are in neither region. */
function otherProducts(
  tracing: Tracing,
  set: SetDocument,
  ...regions: readonly (readonly RegionPoint[])[]
): Asked['others'] {
  const asked = new Set(regions.flatMap((points) => points.map(({ thing }) => thing)));
  const all = pointsOfRegion(
    tracing,
    set,
    { by: 'brush', strokes: [{ across: 0.5, down: 0.5, radius: 1 }] },
    Number.POSITIVE_INFINITY,
  );
  const things = new Set(all.map(({ thing }) => thing).filter(({ kind }) => PRODUCT_KINDS.includes(kind)));
  return [...things]
    .filter((thing) => !asked.has(thing))
    .map((thing) => {
      const own = all.filter((point) => point.thing === thing);
      const step = Math.max(1, Math.floor(own.length / OTHER_POINTS));
      return { thing, points: own.filter((_, i) => i % step === 0).slice(0, OTHER_POINTS) };
    });
}

/** What a flag takes at least of its light, and what part of a region mirrors a card at least: less is no answer. */
const LEAST_TAKEN_STOPS = 0.3;
const LEAST_MIRRORED = 0.5;

/** Whether a card does enough of what it is wanted for. */
function isAnswer({ regionStops, mirroredPart }: CardAnswer, wish: CardWish): boolean {
  switch (wish.what) {
    case 'keep-off':
      return regionStops !== null && regionStops <= -LEAST_TAKEN_STOPS;
    case 'lift':
      return regionStops !== null && regionStops >= wish.stops / 2;
    case 'mirror':
      return mirroredPart !== null && mirroredPart >= LEAST_MIRRORED;
  }
}

/** Answers as they are offered: out of the frame first, then not seen in the products, then the smaller. */
export function offeredCards(found: readonly CardAnswer[], wish: CardWish): CardAnswer[] {
  const off = ({ regionStops }: CardAnswer) =>
    wish.what === 'lift' && regionStops !== null ? Math.abs(regionStops - wish.stops) : 0;
  const trouble = (answer: CardAnswer) =>
    (answer.inFrame ? 4 : 0) +
    (answer.mirrored ? 1 : 0) +
    off(answer) +
    (answer.mirroredPart === null ? 0 : 3 * (1 - answer.mirroredPart)) +
    Math.max(0, Math.abs(answer.spareStops ?? 0) - 0.1) +
    0.5 * Math.sqrt(answer.widthM * answer.heightM) -
    (answer.fromKit ? 0.2 : 0);
  return found
    .filter((answer) => isAnswer(answer, wish))
    .sort((a, b) => trouble(a) - trouble(b))
    .slice(0, MOST_OFFERED);
}

const MOST_OFFERED = 4;

/** All ways to meet a wish, tried and measured, the best first. */
export const placeCard = (
  set: SetDocument,
  wish: CardWish,
  kit: Pick<Kit, 'entries'> | null,
): CardAnswer[] => {
  const tracing = prepareTracing(set);
  return offeredCards(
    cardTries(wish).flatMap((one) => tryCard(tracing, set, wish, one, kit)),
    wish,
  );
};
