import type { Kit, Product, SetDocument, Vector } from '@fendrix/contract';
import { luminanceOf } from '../exposure/display.js';
import { exposureWeights, recordedMidToneCdSM2 } from '../exposure/recording.js';
import { type ProductPart, partAt } from '../geometry/products/partAt.js';
import type { Thing } from '../geometry/scene.js';
import { fieldStops } from '../judge/readField.js';
import { type SpotReading, spotReading } from '../judge/readSpot.js';
import { channelsOf } from '../photometry/channels.js';
import { isKept } from '../plan/frameFit.js';
import { limitsWith, THRESHOLDS, type Thresholds } from './thresholds.js';
import type { TracedView } from './tracedView.js';
import type { Cause, Figure } from './verdict.js';

/** What is judged by: the table of limits, and what the studio has. */
export interface JudgedBy {
  limits: Thresholds;
  /** Null where it is not known. */
  kit: Pick<Kit, 'entries' | 'studio' | 'printer'> | null;
}

/** The table as it is, and no kit. */
export const USUAL: JudgedBy = { limits: THRESHOLDS, kit: null };

/** What a studio judges by: its own limits and its kit. Products and materials of the kit are large, and no judge asks for them. */
export const judgedBy = ({
  entries,
  studio,
  printer,
  verdicts,
}: Pick<Kit, 'entries' | 'studio' | 'printer' | 'verdicts'>): JudgedBy => ({
  limits: limitsWith(verdicts),
  kit: { entries: entries.filter(({ what }) => what === 'light' || what === 'sheet'), studio, printer },
});

/** What judges look at: a set, its traced view with the powers and settings of now, and what it is judged by. */
export interface Evidence extends JudgedBy {
  set: SetDocument;
  view: TracedView;
  across: number;
  down: number;
  things: readonly Thing[];
  /** Thing seen at each place; -1 for nothing. */
  thing: Int32Array;
  /** Tone of each place, stops from mid-tone; of the mean of all batches, and of each batch. */
  stops: Float64Array;
  batchStops: readonly Float64Array[];
  /** The pinned spots, read with them. */
  readings: readonly SpotReading[];
}

/** Applies powers, switches and settings of a set to a view that was traced of it. No rays. */
export function evidenceOf(set: SetDocument, view: TracedView, { limits, kit }: JudgedBy = USUAL): Evidence {
  const { across, down, things, thing } = view.whole;
  const stops = fieldStops(set, view.whole);
  const batchStops = view.batches.map((batch) => fieldStops(set, batch));
  const readings = view.spots.map((spot) => spotReading(set, spot));
  return { set, view, across, down, things, thing, stops, batchStops, readings, limits, kit };
}

/** Places that see a thing. */
export function placesOf({ thing }: Evidence, index: number): number[] {
  const places: number[] = [];
  for (let place = 0; place < thing.length; place++) if (thing[place] === index) places.push(place);
  return places;
}

/** The point seen at a place, m. */
export const pointAt = ({ view }: Evidence, place: number): Vector =>
  [0, 1, 2].map((a) => view.pointM[3 * place + a]) as Vector;

/** Places of a product that are of a certain part of it. */
export const partPlaces = (
  evidence: Evidence,
  product: Product,
  places: readonly number[],
  wanted: (part: ProductPart) => boolean,
): number[] => places.filter((place) => wanted(partAt(product, pointAt(evidence, place))));

/** A tone such that a part of the places is darker, stops from mid-tone. */
export function toneBelow(stops: Float64Array, places: readonly number[], part: number): number {
  const tones = places.map((place) => stops[place] as number).sort((a, b) => a - b);
  return tones[Math.round(part * (tones.length - 1))] ?? Number.NaN;
}

/** Places of table, backdrop and walls. */
export function groundPlaces({ things, thing }: Evidence, kinds: readonly Thing['kind'][]): number[] {
  return [...thing.keys()].filter((place) => {
    const kind = things[thing[place] as number]?.kind;
    return kind !== undefined && kinds.includes(kind);
  });
}

/** Places of the frame, of which those that no crop keeps are left out. */
export const keptPlaces = ({ set: { camera }, across, down, thing }: Evidence): number[] =>
  [...thing.keys()].filter((place) =>
    isKept(camera, ((place % across) + 0.5) / across, (Math.floor(place / across) + 0.5) / down),
  );

/** A figure by a function of the tones, with its standard error by the batches. */
export function measured(
  { stops, batchStops }: Evidence,
  of: (stops: Float64Array) => number,
): Pick<Figure, 'value' | 'error'> {
  const each = batchStops.map(of).filter(Number.isFinite);
  const mean = each.reduce((sum, value) => sum + value, 0) / each.length;
  const spread = each.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, each.length - 1);
  return { value: of(stops), error: each.length > 1 ? Math.sqrt(spread / each.length) : 0 };
}

/** Mean tone of places, stops from mid-tone. */
export const meanStops = (stops: Float64Array, places: readonly number[]): number =>
  Math.log2(places.reduce((sum, place) => sum + 2 ** (stops[place] as number), 0) / places.length);

/** Which lights give the light of places, largest part first; those that give less than a hundredth are left out. */
export function lightCauses({ set, view, things }: Evidence, places: readonly number[]): Cause[] {
  const weights = exposureWeights(set);
  const channels = channelsOf(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  const sums = set.lights.map(() => 0);
  const { unit } = view.whole;
  for (const place of places)
    channels.forEach(({ light }, channel) => {
      const at = (c: number) => {
        const k = 3 * channel + c;
        return (weights[k] as number) * (unit[place * weights.length + k] ?? 0);
      };
      sums[light] = (sums[light] ?? 0) + luminanceOf(at(0), at(1), at(2)) / midTone;
    });
  const whole = sums.reduce((sum, value) => sum + value, 0);
  if (!(whole > 0)) return [];
  return set.lights
    .map(({ tag, name }, i) => ({
      thing: things.find(({ kind, key }) => kind === 'light' && key === tag) ?? {
        kind: 'light' as const,
        key: tag,
        name,
      },
      part: (sums[i] as number) / whole,
    }))
    .filter(({ part }) => part >= 0.01)
    .sort((a, b) => b.part - a.part);
}

/** How much of places each thing has, largest part first. @param thingAt its number at a place */
export function thingCauses(
  { things }: Evidence,
  places: readonly number[],
  thingAt: (place: number) => number,
): Cause[] {
  const counts = new Map<number, number>();
  for (const place of places) counts.set(thingAt(place), (counts.get(thingAt(place)) ?? 0) + 1);
  return [...counts]
    .flatMap(([index, count]) => {
      const thing = things[index];
      return thing ? [{ thing, part: count / places.length }] : [];
    })
    .sort((a, b) => b.part - a.part);
}

/** Products of the set with the number of each among the things, those that are seen. */
export function seenProducts(evidence: Evidence): ReturnType<typeof findSeen> {
  const kept = seen.get(evidence) ?? findSeen(evidence);
  seen.set(evidence, kept);
  return kept;
}

/** Nearly every judge asks for them. */
const seen = new WeakMap<Evidence, ReturnType<typeof findSeen>>();

function findSeen(evidence: Evidence) {
  return evidence.set.products.flatMap((product) => {
    const index = evidence.things.findIndex(({ kind, key }) => kind === 'product' && key === product.id);
    const places = index < 0 ? [] : placesOf(evidence, index);
    return places.length === 0 ? [] : [{ product, thing: evidence.things[index] as Thing, index, places }];
  });
}

/** The product that takes most of the picture; null where none is seen. */
export const heroOf = (evidence: Evidence) =>
  [...seenProducts(evidence)].sort((a, b) => b.places.length - a.places.length)[0] ?? null;

/** A mirror that sends back less shows no highlight. */
const SHOWS_FROM = 0.02;

/** Whether a thing makes highlights: a light that is on, or a sheet. */
export const isSource = (set: SetDocument, thing: Thing | undefined): thing is Thing =>
  thing?.kind === 'light'
    ? set.lights.some(({ tag, on }) => on && tag === thing.key)
    : thing?.kind === 'sheet';

/** Lights and sheets that a product mirrors, by the fine map, largest part first. @param index of the product among the things */
export function mirroredSources({ set, view, things }: Evidence, index: number): Cause[] {
  const { thing, mirrored, weight } = view.fine;
  const counts = new Map<number, number>();
  for (let i = 0; i < thing.length; i++) {
    const source = mirrored[i] as number;
    if (thing[i] !== index || !((weight[i] as number) >= SHOWS_FROM) || !isSource(set, things[source]))
      continue;
    counts.set(source, (counts.get(source) ?? 0) + 1);
  }
  const all = [...counts.values()].reduce((sum, count) => sum + count, 0);
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .map(([source, count]) => ({ thing: things[source] as Thing, part: count / all }));
}
