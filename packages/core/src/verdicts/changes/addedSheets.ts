import type { Product, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { standsInRoom } from '../../geometry/roomBounds.js';
import { productBounds } from '../../geometry/shape.js';
import { prepareTracing } from '../../render/prepareTracing.js';
import { BLACK_CARD, FROST, WHITE_CARD } from '../../solve/cardMaterials.js';
import { comesIntoFrame } from '../../solve/comesIntoFrame.js';
import { freeSheetTag } from '../../solve/movables.js';
import { add, cross, distance, normalise, scale, subtract } from '../../units/vector.js';

/** Sheets that a cure puts on the set: clear of the frame, within the room; null where there is no such place. */

interface Size {
  widthM: number;
  heightM: number;
}

/** Distances from the product that are tried, m: the nearest that is clear of the frame is taken. */
const AWAY_M = [0.3, 0.4, 0.55, 0.75];
/** Foam boards as they are sold, the smaller first. */
export const CARDS: readonly Size[] = [
  { widthM: 0.5, heightM: 0.7 },
  { widthM: 0.7, heightM: 1 },
  { widthM: 1, heightM: 1.4 },
];

/** Free over the table, m. */
const OVER_TABLE_M = 0.005;

const CLEAR = {
  rollDeg: 0,
  stand: false,
};

const WHITE = { kind: 'card', name: 'White card', front: WHITE_CARD, back: WHITE_CARD } as const;
const BLACK = { kind: 'flag', name: 'Black card', front: BLACK_CARD, back: BLACK_CARD } as const;

/** An upright card on one side of a product, facing it. @param way level or not, from the middle of the product */
export const withWhiteCard = (
  set: SetDocument,
  middle: Vector,
  way: Vector,
  size: Size,
): SetDocument | null => withUpright(set, middle, way, size, WHITE);

/** A black one, which takes light from that side. */
export const withBlackCard = (
  set: SetDocument,
  middle: Vector,
  way: Vector,
  size: Size,
): SetDocument | null => withUpright(set, middle, way, size, BLACK);

/** Cards that draw the edges of one product stand as near as the frame allows, m. */
const ASIDE_M = [0.08, 0.12, 0.18, ...AWAY_M];
/** They are so much higher than what they stand beside. */
const ASIDE_HIGHER = 1.3;

/** One card on either side of a product: the edges of glass, gloss and metal show them. */
export function withCardsAside(
  set: SetDocument,
  product: Product,
  tone: 'black' | 'white',
): SetDocument | null {
  const { low, high } = productBounds(product);
  const middle = scale(add(low, high), 0.5);
  const size = CARDS.find(({ heightM }) => heightM >= ASIDE_HIGHER * (high[2] - low[2])) ?? CARDS.at(-1);
  const made = tone === 'black' ? BLACK : WHITE;
  const right = normalise(cross(levelWay(set.camera.positionM, middle), [0, 0, 1]));
  const one = size ? withUpright(set, middle, right, size, made, ASIDE_M) : null;
  return one && size ? withUpright(one, middle, scale(right, -1), size, made, ASIDE_M) : null;
}

function withUpright(
  set: SetDocument,
  middle: Vector,
  way: Vector,
  size: Size,
  made: Pick<Sheet, 'name' | 'front' | 'back'> & { kind: 'card' | 'flag' },
  aways: readonly number[] = AWAY_M,
): SetDocument | null {
  const tag = freeSheetTag(set);
  if (tag === null) return null;
  for (const awayM of aways) {
    const [x, y, z] = add(middle, scale(way, awayM));
    const standsM = Math.max(z, size.heightM / 2 + OVER_TABLE_M);
    const changed = withSheet(set, {
      ...CLEAR,
      ...made,
      tag,
      positionM: [x, y, standsM],
      // Upright: tilted down a tall one would look into its own shade.
      aimM: [middle[0], middle[1], standsM],
      ...size,
    });
    if (changed) return changed;
  }
  return null;
}

/** A black card across the way between two points, at a part of it. */
export function withFlag(
  set: SetDocument,
  from: Vector,
  to: Vector,
  part: number,
  size: Size,
): SetDocument | null {
  const tag = freeSheetTag(set);
  if (tag === null) return null;
  const positionM = add(from, scale(subtract(to, from), part));
  return withSheet(set, {
    ...CLEAR,
    ...BLACK,
    tag,
    positionM,
    aimM: to,
    ...size,
  });
}

/** So much larger than the face behind it a frost is: the light spreads on the way. */
const FROST_LARGER = 1.6;
const LEAST_FROST_M = 0.3;

/** A frame of frost before a light, square to its beam, at a part of the way to its aim point. */
export function withFrost(set: SetDocument, tag: string, part: number): SetDocument | null {
  const light = set.lights.find((own) => own.tag === tag);
  const sheet = freeSheetTag(set);
  if (!light || !('aimM' in light) || sheet === null) return null;
  const towards = subtract(light.aimM, light.positionM);
  const side = (value: number) => Math.max(LEAST_FROST_M, FROST_LARGER * value);
  const [wide, high] =
    'widthM' in light
      ? [light.widthM, light.heightM]
      : 'diameterM' in light
        ? [light.diameterM, light.diameterM]
        : [LEAST_FROST_M, LEAST_FROST_M];
  return withSheet(set, {
    ...CLEAR,
    kind: 'frame',
    tag: sheet,
    name: 'Frost',
    positionM: add(light.positionM, scale(towards, part)),
    aimM: light.aimM,
    widthM: side(wide),
    heightM: side(high),
    front: FROST,
    back: FROST,
  });
}

/** A little black card by the lens, just out of the frame, that keeps a light from shining into it. */
export function withLensFlag(set: SetDocument, tag: string): SetDocument | null {
  const light = set.lights.find((own) => own.tag === tag);
  if (!light || light.kind === 'surround') return null;
  const lens = set.camera.positionM;
  const away = distance(lens, light.positionM);
  for (const m of [0.12, 0.2, 0.3]) {
    if (m > 0.8 * away) continue;
    for (const size of [0.12, 0.2, 0.3]) {
      const changed = withFlag(set, lens, light.positionM, m / away, { widthM: size, heightM: size });
      if (changed) return changed;
    }
  }
  return null;
}

/** The set with one sheet more; null out of the room, or where the lens sees it. */
function withSheet(set: SetDocument, sheet: Sheet): SetDocument | null {
  if (!standsInRoom(set, sheet.positionM)) return null;
  const changed = { ...set, sheets: [...set.sheets, sheet] };
  return comesIntoFrame(prepareTracing(changed, 'plain'), changed, { kind: 'sheet', key: sheet.tag })
    ? null
    : changed;
}

/** A unit way on the level from one point to another. */
export const levelWay = (from: Vector, to: Vector): Vector =>
  normalise([to[0] - from[0], to[1] - from[1], 0]);
