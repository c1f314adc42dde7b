import type { Sheet, Vector } from '@fendrix/contract';
import { prepareTracing, type Tracing } from '../../render/prepareTracing.js';
import { setRay } from '../../trace/engineCalls.js';
import { add, cross, distance, dot, normalise, scale, subtract } from '../../units/vector.js';
import { freeSheetTag } from '../movables.js';
import {
  type Asked,
  type CardAnswer,
  canStand,
  fittingSheet,
  lightAt,
  measuredAnswer,
  outlineInFrame,
  some,
  stopsBetween,
} from './cardAnswer.js';

type Bounce = Sheet & { widthM: number; heightM: number };

/** What bounces light: white spreads it, silver and mirror throw it on. */
export type BounceKind = 'white' | 'silver' | 'foil' | 'mirror';

const MATERIALS: Readonly<Record<BounceKind, Sheet['front']>> = {
  white: { kind: 'matte', reflectance: 0.85 },
  silver: { kind: 'mirror', reflectance: 0.8, roughness: 0.25 },
  foil: { kind: 'mirror', reflectance: 0.75, roughness: 0.5 },
  mirror: { kind: 'mirror', reflectance: 0.9, roughness: 0 },
};
const NAMES: Readonly<Record<BounceKind, string>> = {
  white: 'White card',
  silver: 'Silver card',
  foil: 'Card with crumpled foil',
  mirror: 'Mirror',
};

/** Sizes as paper and board are cut, m. */
const SIZES = [
  [0.1, 0.15],
  [0.21, 0.3],
  [0.3, 0.42],
  [0.5, 0.7],
  [0.7, 1],
] as const;
/** From the region, m. */
const AWAYS = [0.12, 0.18, 0.28, 0.42, 0.6];
const BEARINGS = 12;
/** Of each size so many that look best by the formula are asked for what stands in the way, and the best of them measured. */
const ASKED = 24;
const MEASURED = 3;
/** A card that does not see the light, or is not seen from the region, still gets some by way of other things. */
const BLOCKED_PART = 0.05;
/** Short of a light by so much, m: its own face does not stand in the way. */
const SHORT_OF_LIGHT_M = 0.03;
/** Of a wanted gain: nearer is as wanted, stops. */
const CLOSE = 0.12;
const HALVINGS = 5;
/** Points of the region that are measured while a card is brought nearer. */
const POINTS = 2;
/** Paths at each while cards are tried; what is offered is measured better. */
const TRIED_SAMPLES = 48;

/**
 * A card of one kind that lifts a region by so many stops, the smallest and best out of the way: placed round the region,
 * turned half way between it and the light that is strongest there, and brought nearer or farther until the gain measured in
 * the changed set is as wanted. @returns nothing where none of its sizes gives half of it
 */
export function liftRegion(asked: Asked, kind: BounceKind, wantedStops: number): CardAnswer[] {
  const { set, tracing, region } = asked;
  const tag = freeSheetTag(set);
  const few = some(region, POINTS);
  const [first] = few;
  if (tag === null || !first) return [];
  const middle = scale(few.map(({ pointM }) => pointM).reduce(add), 1 / few.length);
  const normal = normalise(few.map((point) => point.normal).reduce(add));
  const before = lightAt(set, tracing, few, null, TRIED_SAMPLES);
  const sources = set.lights.flatMap((light) =>
    light.on && light.kind !== 'surround' ? [{ tag: light.tag, positionM: light.positionM }] : [],
  );
  if (sources.length === 0) return [];
  const sheetAt = (
    way: Vector,
    awayM: number,
    light: Vector,
    [widthM, heightM]: readonly [number, number],
  ): Bounce => {
    const positionM = add(middle, scale(way, awayM));
    const half = normalise(
      add(normalise(subtract(middle, positionM)), normalise(subtract(light, positionM))),
    );
    return {
      kind: 'card',
      tag,
      name: NAMES[kind],
      positionM,
      aimM: add(positionM, scale(half, 0.2)),
      rollDeg: 0,
      widthM,
      heightM,
      front: MATERIALS[kind],
      back: { kind: 'matte', reflectance: 0.5 },
      stand: false,
    };
  };
  /** What a small card there would throw at the region, by its solid angle and how it is lit: only for their order. */
  const promise = (sheet: Sheet, light: Vector): number => {
    const toRegion = normalise(subtract(middle, sheet.positionM));
    const facing = normalise(subtract(sheet.aimM, sheet.positionM));
    const toLight = normalise(subtract(light, sheet.positionM));
    const area = 'widthM' in sheet ? sheet.widthM * ('heightM' in sheet ? sheet.heightM : 0) : 0;
    const solid = Math.min(1, area / (Math.PI * distance(middle, sheet.positionM) ** 2));
    return (
      (Math.max(0, dot(facing, toLight)) *
        Math.max(0, dot(facing, toRegion)) *
        Math.max(0, -dot(normal, toRegion)) *
        solid) /
      distance(light, sheet.positionM) ** 2
    );
  };
  const tried = SIZES.flatMap((size) =>
    waysRound(normal).flatMap((way) =>
      AWAYS.flatMap((awayM) =>
        sources.flatMap(({ positionM }) => {
          const sheet = sheetAt(way, awayM, positionM, size);
          return !outlineInFrame(tracing.view, sheet) && canStand(set, sheet)
            ? [{ sheet, way, awayM, light: positionM, size, promise: promise(sheet, positionM) }]
            : [];
        }),
      ),
    ),
  ).sort((a, b) => b.promise - a.promise);
  const gainOf = (sheet: Sheet): number => {
    const changed = { ...set, sheets: [...set.sheets, sheet] };
    return stopsBetween(before, lightAt(changed, prepareTracing(changed), few, null, TRIED_SAMPLES)) ?? 0;
  };
  /** The best of a size, by what it gives when it stands there; null where none of it can stand. */
  const strongest = (size: (typeof SIZES)[number]) =>
    tried
      .filter((one) => one.size === size)
      .slice(0, ASKED)
      .map((one) => ({ ...one, promise: one.promise * clearPart(tracing, middle, one) }))
      .sort((a, b) => b.promise - a.promise)
      .slice(0, MEASURED)
      .map((one) => ({ ...one, gain: gainOf(one.sheet) }))
      .sort((a, b) => b.gain - a.gain)[0] ?? null;
  const strong = smallestThat(strongest, wantedStops);
  if (!strong || strong.gain < wantedStops / 2) return [];
  const { size } = strong;
  const { sheet } = brought(
    strong,
    wantedStops,
    (awayM) => {
      const moved = sheetAt(strong.way, awayM, strong.light, size);
      return !outlineInFrame(tracing.view, moved) && canStand(set, moved) ? moved : null;
    },
    gainOf,
  );
  const held = fittingSheet(
    asked,
    (other) => other.front.kind === MATERIALS[kind].kind && isAlike(other, kind),
    size[0],
    size[1],
  );
  const isSame = held && held.widthM <= 1.2 * size[0] && held.heightM <= 1.2 * size[1];
  return [
    measuredAnswer(
      asked,
      isSame ? { ...sheet, name: held.entry.name } : sheet,
      isSame ? held.entry.name : null,
    ),
  ];
}

/**
 * The best of the smallest size that gives what is wanted, by halves: a larger card gives more. Where none does, the one that
 * gives most; null where the sizes that fit are too small to come near.
 */
function smallestThat<S extends { gain: number }>(
  strongest: (size: (typeof SIZES)[number]) => S | null,
  wantedStops: number,
): S | null {
  let [low, high] = [0, SIZES.length - 1];
  let [enough, most]: [S | null, S | null] = [null, null];
  while (low <= high) {
    const middle = (low + high) >> 1;
    const size = SIZES[middle] as (typeof SIZES)[number];
    const strong = strongest(size);
    if (strong && (!most || strong.gain > most.gain)) most = strong;
    if (strong && strong.gain >= wantedStops - CLOSE) enough = strong;
    const largest = SIZES.at(-1) as (typeof SIZES)[number];
    const growth = (largest[0] * largest[1]) / (size[0] * size[1]);
    // Light that is added grows no faster than the face of the card.
    const hopeless = strong !== null && (2 ** strong.gain - 1) * growth < 2 ** (wantedStops / 2) - 1;
    if (hopeless) break;
    if (enough === strong || !strong) high = middle - 1;
    else low = middle + 1;
  }
  return enough ?? most;
}

/** Part of what a card promises that is left by what stands between it, its light and the region. */
function clearPart({ engine }: Tracing, region: Vector, { sheet, light }: { sheet: Sheet; light: Vector }) {
  const isClear = (to: Vector, shortM: number) => {
    const way = normalise(subtract(to, sheet.positionM));
    setRay(engine.ray, sheet.positionM, way, Math.max(0, distance(sheet.positionM, to) - shortM));
    return !engine.anyHit();
  };
  const clear = isClear(light, SHORT_OF_LIGHT_M) && isClear(region, OFF_REGION_M);
  return clear ? 1 : BLOCKED_PART;
}

/** The middle of a region may lie in what it is a region of, m. */
const OFF_REGION_M = 0.05;

/** Ways round a normal in which a card may stand. */
function waysRound(normal: Vector): Vector[] {
  const side = normalise(Math.abs(normal[2]) > 0.9 ? cross(normal, [0, 1, 0]) : cross(normal, [0, 0, 1]));
  const up = cross(side, normal);
  return [0.35, 0.7].flatMap((steep) =>
    Array.from({ length: BEARINGS }, (_, i) => {
      const angle = (2 * Math.PI * i) / BEARINGS;
      const flat = add(scale(side, Math.cos(angle)), scale(up, Math.sin(angle)));
      return normalise(add(scale(normal, steep), scale(flat, 1 - steep / 2)));
    }),
  );
}

/** Brought farther by halves until it gives no more than is wanted. */
function brought<S extends { sheet: Sheet; awayM: number; gain: number }>(
  strong: S,
  wanted: number,
  at: (awayM: number) => Sheet | null,
  gainOf: (sheet: Sheet) => number,
): { sheet: Sheet } {
  if (strong.gain <= wanted + CLOSE) return strong;
  let [near, far] = [strong.awayM, 4 * strong.awayM];
  let best: { sheet: Sheet; off: number } = { sheet: strong.sheet, off: strong.gain - wanted };
  for (let i = 0; i < HALVINGS && best.off > CLOSE; i++) {
    const away = (near + far) / 2;
    const sheet = at(away);
    const gain = sheet ? gainOf(sheet) : 0;
    if (sheet && Math.abs(gain - wanted) < best.off) best = { sheet, off: Math.abs(gain - wanted) };
    if (gain > wanted) near = away;
    else far = away;
  }
  return best;
}

function isAlike({ front }: Sheet, kind: BounceKind): boolean {
  if (kind === 'white')
    return 'reflectance' in front && typeof front.reflectance === 'number' && front.reflectance > 0.6;
  return (
    front.kind === 'mirror' &&
    Math.abs(front.roughness - (MATERIALS[kind] as { roughness: number }).roughness) < 0.15
  );
}
