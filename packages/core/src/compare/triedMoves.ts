import type { SetDocument, Vector } from '@fendrix/contract';
import { cornersOf } from '../geometry/bounds.js';
import { productBounds } from '../geometry/shape.js';
import { liesOnTable } from '../geometry/sheets.js';
import type { Tile } from '../render/film.js';
import {
  bakedLight,
  bakeLightmaps,
  prepareTracing,
  type Tracing,
  takeBakedLight,
} from '../render/prepareTracing.js';
import { renderTile, type TileJob } from '../render/renderTile.js';
import { projectPoint, viewOf } from '../render/view.js';
import { add, scale } from '../units/vector.js';

/** Ways in which a thing may stand elsewhere: to the right, away from the camera, higher. */
export const WAYS = ['right', 'away', 'up'] as const;
export type Way = (typeof WAYS)[number];
/** Those that a frame tells; up and down only building moves a thing. */
export const LEVEL_WAYS = ['right', 'away'] as const;
export type LevelWay = (typeof LEVEL_WAYS)[number];

/** A light or sheet that may have been put elsewhere than planned. */
export interface StoodThing {
  kind: 'light' | 'sheet';
  key: string;
}

/** What a picture tells of, and the ways in which it does. */
export interface ToldThing extends StoodThing {
  ways: LevelWay[];
}

/** What is moved to see what that does to the picture. */
export type MovedPart = StoodThing | { kind: 'product' | 'camera'; key: string };

/** One thing of a set, moved. */
export interface TriedMove {
  part: MovedPart;
  way: Way;
  byM: number;
}

/** As far as lights and sheets are moved, m, either way: what building makes of it, what is a fault, and what is a large one. */
const [BUILT_M, FAULT_M, FAR_M] = [0.005, 0.025, 0.05];
/** A product and the camera are only taken to stand as building lets them, m. */
const [PRODUCT_M, CAMERA_M] = [0.003, 0.004];

const DIRECTIONS: Readonly<Record<Way, Vector>> = { right: [1, 0, 0], away: [0, 1, 0], up: [0, 0, 1] };

const bothWays = (part: MovedPart, ways: readonly Way[], lengths: readonly number[]): TriedMove[] =>
  ways.flatMap((way) => lengths.flatMap((length) => [-length, length].map((byM) => ({ part, way, byM }))));

/** Lights that are on and stand somewhere, and sheets that stand by themselves. */
export function stoodThings({ lights, sheets }: SetDocument): StoodThing[] {
  return [
    ...lights.flatMap((light) =>
      light.on && 'positionM' in light ? [{ kind: 'light' as const, key: light.tag }] : [],
    ),
    ...sheets.flatMap((sheet) => (sheet.kind === 'tent' ? [] : [{ kind: 'sheet' as const, key: sheet.tag }])),
  ];
}

/** Large moves of every light and sheet: which of them the picture tells at all. */
export const farMoves = (set: SetDocument): TriedMove[] =>
  stoodThings(set).flatMap((thing) => bothWays(thing, LEVEL_WAYS, [FAR_M]));

/** The rest for some of them, and what products and the camera do when they stand a little aside. */
export const nearMoves = (set: SetDocument, things: readonly StoodThing[]): TriedMove[] => [
  ...things.flatMap(({ kind, key }) => {
    const thing: StoodThing = { kind, key };
    return [
      ...bothWays(thing, LEVEL_WAYS, [BUILT_M, FAULT_M]),
      ...(lies(set, thing) ? [] : bothWays(thing, ['up'], [BUILT_M])),
    ];
  }),
  ...set.products.flatMap(({ id }) => bothWays({ kind: 'product', key: id }, LEVEL_WAYS, [PRODUCT_M])),
  ...bothWays({ kind: 'camera', key: '' }, WAYS, [CAMERA_M]),
];

const lies = ({ sheets }: SetDocument, { kind, key }: StoodThing): boolean =>
  kind === 'sheet' && sheets.some((sheet) => sheet.tag === key && liesOnTable(sheet));

/** A set with things moved, one after the other; what is aimed goes on facing its point. */
export const withMoved = (set: SetDocument, moves: readonly TriedMove[]): SetDocument =>
  moves.reduce(withOneMoved, set);

function withOneMoved(set: SetDocument, { part: { kind, key }, way, byM }: TriedMove): SetDocument {
  const by = scale(DIRECTIONS[way], byM);
  const moved = <T extends object>(thing: T, name: string): T =>
    name === key && 'positionM' in thing
      ? { ...thing, positionM: add(thing.positionM as Vector, by) }
      : thing;
  switch (kind) {
    case 'light':
      return { ...set, lights: set.lights.map((light) => moved(light, light.tag)) };
    case 'sheet':
      return { ...set, sheets: set.sheets.map((sheet) => moved(sheet, sheet.tag)) };
    case 'product':
      return { ...set, products: set.products.map((product) => moved(product, product.id)) };
    case 'camera':
      return { ...set, camera: moved(set.camera, key) };
  }
}

/**
 * A tile of the picture with things moved, of the same paths and the same light on large matte surfaces as that of the plan: what the move does not touch
 * stays the same to the bit, and the difference has little noise.
 * @param tracing of the plan  @param moves none for the plan itself
 */
export function movedTile(
  tracing: Tracing,
  set: SetDocument,
  moves: readonly TriedMove[],
  job: TileJob,
): Float32Array {
  if (tracing.tables.lit === 0) bakeLightmaps(tracing);
  if (moves.length === 0) return renderTile(tracing, job);
  const own = prepareTracing(withMoved(set, moves));
  takeBakedLight(own, bakedLight(tracing.tables));
  return renderTile(own, job);
}

/** Beyond the outline of the products, part of the frame. */
const MARGIN = 0.03;

/** Cells of a picture that show the products, with a little round them; null where none is in it. */
export function windowOfProducts(
  { camera, products }: SetDocument,
  { width, height }: { width: number; height: number },
): Tile | null {
  const view = viewOf(camera);
  const at = products.flatMap((product) =>
    cornersOf(productBounds(product)).flatMap((corner) => {
      const seen = projectPoint(view, corner);
      return seen ? [seen] : [];
    }),
  );
  const range = (axis: 0 | 1, cells: number): [number, number] => {
    const parts = at.map((point) => point[axis]);
    const cell = (part: number) => Math.min(cells, Math.max(0, part * cells));
    return [Math.floor(cell(Math.min(...parts) - MARGIN)), Math.ceil(cell(Math.max(...parts) + MARGIN))];
  };
  if (at.length === 0) return null;
  const [[left, right], [top, bottom]] = [range(0, width), range(1, height)];
  return right > left && bottom > top ? { x: left, y: top, width: right - left, height: bottom - top } : null;
}
