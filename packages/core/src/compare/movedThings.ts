import type { SetDocument, Vector } from '@fendrix/contract';
import type { MirrorBand } from '../mirror/mirrorBand.js';
import { mean, median } from '../units/middle.js';
import { solveLinear } from '../units/solveLinear.js';
import { add } from '../units/vector.js';
import type { EdgeSide, MeasuredEdge } from './bandEdges.js';

/** A light or sheet that is mirrored. */
export interface MirroredThing {
  kind: 'light' | 'sheet';
  key: string;
}

/** Heights at which bands are held against a frame, parts of the height at which the bench shows the band. */
export const BAND_HEIGHTS: readonly number[] = Array.from({ length: 15 }, (_, i) => 0.5 + i / 14);
/** How far a thing is moved to see where its image goes, m. */
export const TRIED_M = 0.01;

/** Ways in which a thing may stand elsewhere: to the right, or away from the camera. */
export const WAYS = ['right', 'away'] as const;
export type Way = (typeof WAYS)[number];

/** A thing that is moved to see where images go: a product moves all of them. */
export type TriedThing = MirroredThing | { kind: 'product'; key: string };

/** The bands of a set in which one thing stands elsewhere: how edges go along. */
export interface TriedMove {
  thing: TriedThing;
  way: Way;
  byM: number;
  bands: readonly MirrorBand[];
}

/** A light or sheet whose images stand elsewhere than planned. */
export interface MovedThing extends MirroredThing {
  /** Where one of its edges was meant to be and where it is, fractions of the product's visible width. */
  edge: { product: string; plan: number; frame: number };
  /** What would explain it, the shortest way first: m that way, with one deviation. */
  moves: { way: Way; byM: number; errorM: number }[];
  /** Whether that is surely more than building by tape lets it be. */
  isOff: boolean;
}

/**
 * What the mean of an edge over several heights is off by, part of the visible width, whatever their spread: pixels, noise of the
 * plan, neighbours; more near the outline, where all is narrow. Measured: docs/physics/frames.md.
 */
const EDGE_ERROR = 0.004;
const OUTLINE_ERROR = 0.008;
const NEAR_OUTLINE = 0.08;
/** What building by tape alone makes of places, m, one deviation, see `BUILT_TO`; of a product with the camera that sees it. */
const BUILT_TO_M = { light: 0.006, sheet: 0.004, product: 0.0015 } as const;
/** Where places are told less finely, nothing is named, m. */
const MOST_ERROR_M = 0.02;
/** Deviations that count as sure. */
const SURE = 3;
/** Other edges of a product, of which the middle is taken as what all of it moved by. */
const FEWEST_COMMON = 3;
/** Heights at which an edge must be found: a single one may be chance. */
const FEWEST_HEIGHTS = 2;

const isThing = (side: EdgeSide | null): boolean => side?.kind === 'light' || side?.kind === 'sheet';

const isOf = (side: EdgeSide | null, { kind, key }: MirroredThing): boolean =>
  side !== null && side.kind === kind && side.what === key;

/** What has to be moved to tell what edges say: lights and sheets that they tell of, and the products they are on. */
export function triedThings(edges: readonly MeasuredEdge[]): TriedThing[] {
  const products = [...new Set(edges.map(({ product }) => product))];
  return [...thingsOfEdges(edges), ...products.map((key) => ({ kind: 'product' as const, key }))];
}

/** Lights and sheets that edges tell of. */
function thingsOfEdges(edges: readonly MeasuredEdge[]): MirroredThing[] {
  const found = new Map<string, MirroredThing>();
  for (const { left, right } of edges) {
    for (const side of [left, right]) {
      if (side?.what == null || (side.kind !== 'light' && side.kind !== 'sheet')) continue;
      found.set(`${side.kind} ${side.what}`, { kind: side.kind, key: side.what });
    }
  }
  return [...found.values()];
}

/** An edge of the image of one thing, over all heights of a product. */
interface ThingEdge {
  thing: MirroredThing;
  product: string;
  /** Of single heights: how much further right than all else of the product. */
  offs: { edge: MeasuredEdge; by: number }[];
  off: number;
  error: number;
}

/**
 * Which lights and sheets stand elsewhere, by the edges of their images: each edge against what all other edges of its product
 * moved by. Each thing and way is fitted alone by generalised least squares; what building by tape makes of all else (the other
 * things, the product itself) is part of the errors, with what of it is common to several edges.
 * @param edges as measured  @param bands of the plan  @param tries each thing, and each product, moved a little, both ways
 */
export function movedThings(
  edges: readonly MeasuredEdge[],
  bands: readonly MirrorBand[],
  tries: readonly TriedMove[],
): MovedThing[] {
  const things = thingsOfEdges(edges);
  const all = things.flatMap((thing) => edgesOfThing(edges, thing));
  const slopes = tries.map((tried) => ({
    tried,
    slopes: all.map((own) => slopeOfAll(own, bands, tried) / tried.byM),
  }));
  return things.flatMap((thing): MovedThing[] => {
    const isOwn = ({ tried }: { tried: TriedMove }) =>
      tried.thing.kind === thing.kind && tried.thing.key === thing.key;
    const scatter = slopes
      .filter((one) => !isOwn(one))
      .map(({ tried, slopes: by }) => by.map((slope) => slope * BUILT_TO_M[tried.thing.kind]));
    const moves = slopes
      .filter(isOwn)
      .flatMap(({ tried, slopes: by }) => {
        const fitted = fit(all, by, scatter);
        return fitted ? [{ way: tried.way, ...fitted }] : [];
      })
      .sort((a, b) => b.explained - a.explained);
    const [best] = moves;
    const own = all.filter((edge) => edge.thing === thing);
    const widest = [...own].sort((a, b) => Math.abs(b.off) / b.error - Math.abs(a.off) / a.error)[0];
    if (!best || !widest) return [];
    const plan = mean(widest.offs.map(({ edge }) => edge.plan));
    const builtM = BUILT_TO_M[thing.kind];
    return [
      {
        ...thing,
        edge: { product: widest.product, plan, frame: plan + widest.off },
        moves: moves.map(({ way, byM, errorM }) => ({ way, byM, errorM })),
        isOff: best.errorM < MOST_ERROR_M && Math.abs(best.byM) > SURE * Math.hypot(best.errorM, builtM),
      },
    ];
  });
}

/** A set in which a light or sheet stands elsewhere, aimed as it was. */
export function withMoved(set: SetDocument, { kind, key }: TriedThing, way: Way, byM: number): SetDocument {
  const by: Vector = way === 'right' ? [byM, 0, 0] : [0, byM, 0];
  const moved = <T extends { tag: string; positionM?: unknown }>(thing: T): T =>
    thing.tag !== key || !('positionM' in thing)
      ? thing
      : { ...thing, positionM: add(thing.positionM as Vector, by) };
  if (kind === 'product') {
    const products = set.products.map((product) =>
      product.id === key ? { ...product, positionM: add(product.positionM, by) } : product,
    );
    return { ...set, products };
  }
  return kind === 'light'
    ? { ...set, lights: set.lights.map(moved) }
    : { ...set, sheets: set.sheets.map(moved) };
}

/** Both edges of the image of a thing on each product, where they are found at several heights. */
function edgesOfThing(edges: readonly MeasuredEdge[], thing: MirroredThing): ThingEdge[] {
  const groups = new Map<string, MeasuredEdge[]>();
  for (const edge of edges) {
    const begins = isOf(edge.right, thing);
    // Between two such things it is not told which of them it belongs to.
    if (begins === isOf(edge.left, thing) || isThing(begins ? edge.left : edge.right)) continue;
    const name = `${edge.product} ${begins}`;
    groups.set(name, [...(groups.get(name) ?? []), edge]);
  }
  return [...groups.values()].flatMap((own): ThingEdge[] => {
    const { product } = own[0] as MeasuredEdge;
    const others = edges.filter(
      (other) => other.product === product && !isOf(other.left, thing) && !isOf(other.right, thing),
    );
    if (own.length < FEWEST_HEIGHTS || others.length < FEWEST_COMMON) return [];
    const common = median(others.map(({ by }) => by));
    const offs = own.map((edge) => ({ edge, by: edge.by - common }));
    const off = median(offs.map(({ by }) => by));
    const spread = 1.4826 * median(offs.map(({ by }) => Math.abs(by - off)));
    const plan = mean(own.map((edge) => edge.plan));
    const isNear = Math.min(plan, 1 - plan) < NEAR_OUTLINE;
    const error = Math.hypot(isNear ? OUTLINE_ERROR : EDGE_ERROR, spread / Math.sqrt(own.length));
    return [{ thing, product, offs, off, error }];
  });
}

/** Generalised least squares of one number. @param scatter how far each edge may go by what else is built a little off */
function fit(
  all: readonly ThingEdge[],
  slopes: readonly number[],
  scatter: readonly (readonly number[])[],
): { byM: number; errorM: number; explained: number } | null {
  /** What is common to two edges, with the slope of the edge as the right side. */
  const rows = all.map(({ error }, i) =>
    Float64Array.from([
      ...all.map((_, j) =>
        scatter.reduce((sum, by) => sum + (by[i] as number) * (by[j] as number), i === j ? error * error : 0),
      ),
      slopes[i] as number,
    ]),
  );
  const weighed = solveLinear(rows);
  const dot = (values: readonly number[]) =>
    values.reduce((sum, value, i) => sum + value * (weighed[i] as number), 0);
  const information = dot(slopes);
  if (!(information > 0)) return null;
  const byM = dot(all.map(({ off }) => off)) / information;
  return { byM, errorM: 1 / Math.sqrt(information), explained: byM * byM * information };
}

/** How far an edge goes when a thing is moved, the middle of all its heights; none where it is not found again. */
const slopeOfAll = (own: ThingEdge, bands: readonly MirrorBand[], { bands: moved }: TriedMove): number => {
  const found = own.offs.flatMap(({ edge }) => slopeOf(edge, bands, moved) ?? []);
  return found.length === 0 ? 0 : median(found);
};

/** How far an edge went when the thing was moved; null where it is not there any more. */
function slopeOf(
  edge: MeasuredEdge,
  bands: readonly MirrorBand[],
  moved: readonly MirrorBand[],
): number | null {
  const at = bands.findIndex(({ product, heightM }) => product === edge.product && heightM === edge.heightM);
  const before = bands[at];
  const after = moved.find(({ product, heightM }) => product === edge.product && heightM === edge.heightM);
  if (!before || !after) return null;
  const candidates = after.lengths.slice(1).flatMap(({ from, ...right }, i) => {
    const left = after.lengths[i] as EdgeSide;
    return matches(edge.left, left) && matches(edge.right, right) ? [from] : [];
  });
  const nearest = candidates.sort((a, b) => Math.abs(a - edge.plan) - Math.abs(b - edge.plan))[0];
  return nearest === undefined ? null : nearest - edge.plan;
}

/** What stands behind a thing may change when it moves; the thing itself is what it was. */
const matches = (planned: EdgeSide | null, now: EdgeSide): boolean =>
  planned === null ||
  (planned.kind !== 'light' && planned.kind !== 'sheet') ||
  (planned.kind === now.kind && planned.what === now.what && planned.front === now.front);
