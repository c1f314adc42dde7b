import type { Kit, KitEntry, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { luminanceOf } from '../../exposure/display.js';
import { exposureWeights } from '../../exposure/recording.js';
import { standsInRoom } from '../../geometry/roomBounds.js';
import type { Thing } from '../../geometry/scene.js';
import { productBounds } from '../../geometry/shape.js';
import { illuminanceByLight } from '../../judge/illuminance.js';
import { channelsOf } from '../../photometry/channels.js';
import { leftInKit } from '../../plan/kitCheck.js';
import { prepareTracing, type Tracing } from '../../render/prepareTracing.js';
import { projectPoint, type View } from '../../render/view.js';
import { aimFrame } from '../../units/frame.js';
import { add, scale } from '../../units/vector.js';
import { comesIntoFrame, showsInFrame } from '../comesIntoFrame.js';
import { changeBetween, type SetChange } from '../setChange.js';
import type { RegionPoint } from './region.js';

/** A card, flag or frame put on the set, as measured there. */
export interface CardAnswer {
  change: SetChange;
  tag: string;
  /** What it is: a piece of the kit by its name, or null for one to be cut to its size. */
  fromKit: string | null;
  widthM: number;
  heightM: number;
  /** What the light does at the region, and at what is to be left as it is, stops; null where that is not asked. */
  regionStops: number | null;
  spareStops: number | null;
  /** Part of the region that mirrors it; null where that is not asked. */
  mirroredPart: number | null;
  /** Other products whose light changes, the most first. */
  elsewhere: readonly { thing: Thing; stops: number }[];
  /** Whether the lens sees it, itself or in a product. */
  inFrame: boolean;
  mirrored: boolean;
}

/** Of light without end, stops: more is told as all of it. */
const MOST_STOPS = 12;
/** A product whose light changes by less is as it was, stops. */
const TOLD_STOPS = 0.1;
const SAMPLES = 96;
/** Points at which each region and product is measured. */
const MEASURED = 6;

/** Some points of many, spread over them. */
export const some = <T>(points: readonly T[], count: number): T[] =>
  points.length <= count
    ? [...points]
    : Array.from({ length: count }, (_, i) => points[Math.floor(((i + 0.5) * points.length) / count)] as T);

/**
 * Light that arrives at points, over mid-tone or for one light alone, in any unit that stays the same.
 * @param light tag of the light that is asked about; null for all
 */
export function lightAt(
  set: SetDocument,
  tracing: Tracing,
  points: readonly RegionPoint[],
  light: string | null,
  samples = SAMPLES,
): number {
  const weights = exposureWeights(set);
  const channels = channelsOf(set);
  let sum = 0;
  for (const { pointM, normal } of points) {
    const off = pointM.map((value, a) => value + 1e-4 * (normal[a] as number)) as Vector;
    const shares = illuminanceByLight(tracing, off, normal, { samples, seed: 1, directOnly: false });
    shares.forEach(({ direct, indirect }, channel) => {
      const own = channels[channel];
      if (!own || (light !== null && set.lights[own.light]?.tag !== light)) return;
      const rgb = [0, 1, 2].map((c) => weights[3 * channel + c] as number) as [number, number, number];
      sum += luminanceOf(...rgb) * (direct + indirect);
    });
  }
  return sum / Math.max(1, points.length);
}

/** From one amount of light to another, stops; null where there was none before. */
export function stopsBetween(before: number, after: number): number | null {
  if (!(before > 0)) return null;
  return after > 0 ? Math.max(-MOST_STOPS, Math.log2(after / before)) : -MOST_STOPS;
}

/** What the set was before, and the points that are asked about: shared by all that is tried. */
export interface Asked {
  set: SetDocument;
  tracing: Tracing;
  region: readonly RegionPoint[];
  spare: readonly RegionPoint[];
  /** Points of the other products, by product. */
  others: readonly { thing: Thing; points: readonly RegionPoint[] }[];
  light: string | null;
  kit: Pick<Kit, 'entries' | 'printer'> | null;
}

/** Measures a set with one sheet more against the set as it was. */
export function measuredAnswer(asked: Asked, sheet: Sheet, fromKit: string | null): CardAnswer {
  const { set, tracing, region, spare, others, light } = asked;
  const changed = { ...set, sheets: [...set.sheets, sheet] };
  const after = prepareTracing(changed);
  const own = { kind: 'sheet' as const, key: sheet.tag };
  const stops = (points: readonly RegionPoint[], of: string | null) => {
    const few = some(points, MEASURED);
    return few.length === 0
      ? null
      : stopsBetween(lightAt(set, tracing, few, of), lightAt(changed, after, few, of));
  };
  const elsewhere = others
    .map(({ thing, points }) => ({ thing, stops: stops(points, null) ?? 0 }))
    .filter((other) => Math.abs(other.stops) >= TOLD_STOPS)
    .sort((a, b) => Math.abs(b.stops) - Math.abs(a.stops));
  const inFrame = comesIntoFrame(after, changed, own);
  return {
    change: changeBetween(set, changed),
    tag: sheet.tag,
    fromKit,
    widthM: 'widthM' in sheet ? sheet.widthM : 0,
    heightM: 'heightM' in sheet ? sheet.heightM : 0,
    regionStops: stops(region, light),
    spareStops: stops(spare, light),
    mirroredPart: null,
    elsewhere,
    inFrame,
    mirrored: !inFrame && showsInFrame(after, own),
  };
}

/** The smallest sheet of the kit that is not on the set yet and is as large as needed, either way up. */
export function fittingSheet(
  { set, kit }: Pick<Asked, 'set' | 'kit'>,
  suits: (sheet: Sheet) => boolean,
  widthM: number,
  heightM: number,
): { entry: KitEntry; thing: Sheet; widthM: number; heightM: number } | null {
  if (!kit) return null;
  const left = leftInKit(set, kit);
  const fitting = kit.entries.flatMap((entry) => {
    if (entry.what !== 'sheet' || !((left.get(entry.id) ?? 0) > 0)) return [];
    const { thing } = entry;
    if (!('widthM' in thing) || !isFlat(thing) || !suits(thing)) return [];
    const ways = [
      [thing.widthM, thing.heightM],
      [thing.heightM, thing.widthM],
    ] as const;
    const way = ways.find(([w, h]) => w >= widthM && h >= heightM);
    return way ? [{ entry, thing, widthM: way[0], heightM: way[1] }] : [];
  });
  return fitting.sort((a, b) => a.widthM * a.heightM - b.widthM * b.heightM)[0] ?? null;
}

const FLAT: ReadonlySet<Sheet['kind']> = new Set(['card', 'flag', 'frame', 'roof']);
const isFlat = (sheet: Sheet): boolean =>
  FLAT.has(sheet.kind) && !('holeDiameterM' in sheet && sheet.holeDiameterM);

/** A flat sheet with a size. */
type Flat = Sheet & { widthM: number; heightM: number };

/** Corners of a flat sheet, m. */
export function cornersOfSheet(sheet: Flat): Vector[] {
  const { right, up } = aimFrame(sheet.positionM, sheet.aimM, sheet.rollDeg);
  return [-1, 1].flatMap((a) =>
    [-1, 1].map((b) =>
      add(sheet.positionM, add(scale(right, (a * sheet.widthM) / 2), scale(up, (b * sheet.heightM) / 2))),
    ),
  );
}

/** Free over the table, m. */
const OVER_TABLE_M = 0.003;

/** Whether a sheet can stand: in the room, over the table, clear of all products. */
export function canStand(set: SetDocument, sheet: Sheet): boolean {
  if (!('widthM' in sheet) || !('heightM' in sheet) || !standsInRoom(set, sheet.positionM)) return false;
  const corners = cornersOfSheet(sheet as Flat);
  if (set.bench && corners.some(([, , z]) => z < OVER_TABLE_M)) return false;
  const bounds = set.products.map((product) => productBounds(product));
  const points = [
    sheet.positionM,
    ...corners,
    ...corners.map((corner) => scale(add(corner, sheet.positionM), 0.5)),
  ];
  return bounds.every(({ low, high }) =>
    points.every((point) =>
      point.some((value, a) => value < (low[a] as number) - CLEAR_M || value > (high[a] as number) + CLEAR_M),
    ),
  );
}

/** From products, m. */
const CLEAR_M = 0.01;

/** A sheet whose lower edge would be in the table, cut off over it; null where nothing is left. */
export function overTable<S extends Flat>(set: SetDocument, sheet: S): S | null {
  const lowest = Math.min(...cornersOfSheet(sheet).map(([, , z]) => z));
  if (!set.bench || lowest >= OVER_TABLE_M) return sheet;
  const { up } = aimFrame(sheet.positionM, sheet.aimM, sheet.rollDeg);
  if (!(up[2] > 0.2)) return null;
  const cut = Math.ceil((100 * (OVER_TABLE_M - lowest)) / up[2]) / 100;
  if (sheet.heightM - cut < 0.02) return null;
  const lift = scale(up, cut / 2);
  return {
    ...sheet,
    heightM: Number((sheet.heightM - cut).toFixed(3)),
    positionM: add(sheet.positionM, lift),
    aimM: add(sheet.aimM, lift),
  };
}

/** Whether a sheet that nothing covers would be in the frame, by its outline alone: for leaving it out before it is traced. */
export function outlineInFrame(view: View, sheet: Flat): boolean {
  const seen = cornersOfSheet(sheet).map((corner) => projectPoint(view, corner));
  if (seen.some((at) => at === null)) return false;
  const [x, y] = [0, 1].map((a) => seen.map((at) => (at as [number, number])[a as 0 | 1])) as [
    number[],
    number[],
  ];
  return Math.max(...x) > 0 && Math.min(...x) < 1 && Math.max(...y) > 0 && Math.min(...y) < 1;
}

/** Rounded up to whole centimetres: as it is cut. */
export const cutSize = (m: number): number => Math.ceil(100 * m - 1e-6) / 100;
