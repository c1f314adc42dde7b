import type { Product, SetDocument } from '@fendrix/contract';
import { greyOf, luminanceOf } from '../../exposure/display.js';
import { exposureWeights, recordedMidToneCdSM2 } from '../../exposure/recording.js';
import { inProduct, turnBetween } from '../../geometry/products/partAt.js';
import { loseGlare } from '../../solve/loseGlare.js';
import { labelBearing, labelsToLens } from '../../solve/rows.js';
import { applyChange } from '../../solve/setChange.js';
import { degrees } from '../../units/angle.js';
import { CARDS, levelWay, withWhiteCard } from '../changes/addedSheets.js';
import { allByStops, byStops, those, withCamera } from '../changes/changes.js';
import {
  type Evidence,
  lightCauses,
  meanStops,
  measured,
  partPlaces,
  pointAt,
  seenProducts,
  thingCauses,
} from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { apart, mean, over } from '../working.js';

/** A label of fewer places is too small in the frame to be judged. */
const FEWEST = 6;
/** Ink on paper, where the print itself is not known. */
const INK = 0.05;
/** Letters against paper are read from this ratio on: WCAG 2.2, success criterion 1.4.3. */
const READABLE = 4.5;
/** A label this dark is not paper: how dark it looks says nothing of the light. */
const PAPER_FROM = 0.3;

/** Reflectance of a label's paper and of its ink, the lighter first. */
function printOf(product: Product): { paper: number; ink: number } {
  const material =
    product.kind === 'turned'
      ? product.labels[0]?.material
      : product.kind === 'box'
        ? product.label?.material
        : null;
  if (!material || !('reflectance' in material)) return { paper: 0.7, ink: INK };
  const own = greyOf(material.reflectance);
  const tone = 'tone' in material ? material.tone : undefined;
  const print = tone?.kind === 'text' ? greyOf(tone.ink) : own > 0.2 ? INK : 0.7;
  return { paper: Math.max(own, print), ink: Math.min(own, print) };
}

/** Luminance that places of labels mirror, over mid-tone; no entry for one that mirrors nothing. */
function glareAt({ set, view }: Evidence): Map<number, number> {
  const weights = exposureWeights(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  const { places, unit } = view.glare;
  const glare = new Map<number, number>();
  places.forEach((place, i) => {
    const rgb: [number, number, number] = [0, 0, 0];
    for (let k = 0; k < weights.length; k++)
      rgb[k % 3] = (rgb[k % 3] as number) + (weights[k] as number) * (unit[i * weights.length + k] ?? 0);
    glare.set(place, luminanceOf(...rgb) / midTone);
  });
  return glare;
}

const labelled = (evidence: Evidence) =>
  seenProducts(evidence).flatMap((seen) => {
    const label = partPlaces(evidence, seen.product, seen.places, ({ kind }) => kind === 'label');
    return label.length < FEWEST ? [] : [{ ...seen, label }];
  });

/** Words are read within so much of the line to the lens: further round they are too narrow, degrees. */
const READ_WITHIN_DEG = 40;

/** Whether a place of a product faces the lens, nearly. */
export function facesLens(evidence: Evidence, product: Product, place: number): boolean {
  const { positionM } = evidence.set.camera;
  if (product.kind === 'box') return true;
  const [own, lens] = [pointAt(evidence, place), positionM].map((point) => inProduct(product, point));
  if (!own || !lens) return false;
  return Math.abs(turnBetween(bearingOf(own), bearingOf(lens))) <= READ_WITHIN_DEG;
}

const bearingOf = ([x, y]: readonly number[]): number => degrees(Math.atan2(x as number, -(y as number)));

/** Words that a mirrored light or card covers, so that their ink is no longer dark against their paper. */
export const wordsGlare: Judge<'words-glare'> = {
  code: 'words-glare',
  judge(evidence) {
    if (evidence.set.wishes.words === 'open') return [];
    const glare = glareAt(evidence);
    return labelled(evidence).flatMap(({ product, thing, label: all }) => {
      const label = all.filter((place) => facesLens(evidence, product, place));
      if (label.length < FEWEST) return [];
      const { paper, ink } = printOf(product);
      // What the print itself sends back is told of the whole label: what one place shows may be ink or paper.
      const own = (stops: Float64Array) =>
        label.reduce(
          (sum, place) => sum + Math.max(0, 2 ** (stops[place] as number) - (glare.get(place) ?? 0)),
          0,
        ) / label.length;
      const covered = (stops: Float64Array) => {
        const light = own(stops);
        return label.filter((place) => {
          const veil = glare.get(place) ?? 0;
          return (light + veil) / ((light * ink) / paper + veil) < READABLE;
        });
      };
      const figure = measured(evidence, (stops) => covered(stops).length / label.length);
      return beyond(evidence.limits, 'words-glare', figure, () => {
        const places = covered(evidence.stops);
        return {
          of: thing,
          places,
          working: over(
            { veiledPlaces: places.length, labelPlaces: label.length },
            { paperReflects: paper, inkReflects: ink },
          ),
          causes: thingCauses(evidence, places, (place) => evidence.view.mirrored[place] as number),
        };
      });
    });
  },
  /** Each way out of the glare at its middle: turned, lifted, flagged, crossed films, off; a filter alone. */
  cures({ set, across, down, view }, { places }) {
    const strongest = places
      .map((place) => [place, view.glare.places.indexOf(place)] as const)
      .sort(
        (a, b) =>
          brightness(view.glare.unit, view.glare.places.length, b[1]) -
          brightness(view.glare.unit, view.glare.places.length, a[1]),
      )[0]?.[0];
    if (strongest === undefined) return [];
    const [u, v] = [((strongest % across) + 0.5) / across, (Math.floor(strongest / across) + 0.5) / down];
    return [
      ...loseGlare(set, u, v).flatMap(({ change }) => applyChange(set, change) ?? []),
      ...filterTurned(set),
    ];
  },
};

/** A filter put on the lens upright or level; one that is on turned further. */
function filterTurned(set: SetDocument): SetDocument[] {
  const on = set.camera.polariser;
  const filter = on ?? { lossStops: 1.5, extinction: 0.005 };
  const turns = on ? [45, 90, 135].map((deg) => turnBetween(0, on.axisDeg + deg)) : [0, 90];
  return turns.map((axisDeg) => withCamera(set, { polariser: { ...filter, axisDeg } }));
}

function brightness(unit: Float32Array, places: number, at: number): number {
  const width = unit.length / Math.max(1, places);
  let sum = 0;
  for (let k = 0; k < width; k++) sum += unit[at * width + k] ?? 0;
  return sum;
}

/** A light label that is under mid-tone: its words are not read at a glance. */
export const labelDark: Judge<'label-dark'> = {
  code: 'label-dark',
  judge: (evidence) =>
    evidence.set.wishes.words === 'open' || evidence.set.wishes.mood === 'dark'
      ? []
      : labelled(evidence).flatMap(({ product, thing, label }) => {
          if (printOf(product).paper < PAPER_FROM) return [];
          const figure = measured(evidence, (stops) => meanStops(stops, label));
          return beyond(evidence.limits, 'label-dark', figure, () => ({
            of: thing,
            places: label,
            causes: lightCauses(evidence, label),
            working: mean({ labelPlaces: label.length }),
          }));
        }),
  cures(evidence, { of, places, causes, figure }) {
    const { set } = evidence;
    const more = figure.limit - figure.value + 0.3;
    const product = set.products.find(({ id }) => id === of?.key);
    const lens = product && levelWay(product.positionM, set.camera.positionM);
    const beside = (side: 1 | -1) =>
      lens && ([lens[0] * 0.5 - side * lens[1], lens[1] * 0.5 + side * lens[0], 0] as const);
    const middle = places.length > 0 && product ? product.positionM : null;
    return those(
      ...causes.slice(0, 2).map(({ thing, part }) => {
        const left = part ? (2 ** more - (1 - part)) / part : 0;
        return left > 0.01 ? byStops(set, thing.key, Math.log2(left)) : null;
      }),
      allByStops(set, more),
      ...([1, -1] as const).map((side) => {
        const way = beside(side);
        return way && middle && CARDS[0] ? withWhiteCard(set, middle, [...way], CARDS[0]) : null;
      }),
    );
  },
};

/** Bearings of the middle of a product's label and of the lens from it, degrees; null without a label that has a middle. */
function labelAndLens(set: SetDocument, product: Product): { label: number; lens: number } | null {
  const own = labelBearing(product);
  if (own === null) return null;
  const [x, y] = product.positionM;
  const lens = degrees(Math.atan2(set.camera.positionM[0] - x, y - set.camera.positionM[1]));
  return { lens, label: lens + turnBetween(lens, product.turnDeg + own) };
}

/** A label that does not face the lens, and is not turned away on purpose. */
export const labelTurned: Judge<'label-turned'> = {
  code: 'label-turned',
  byMaps: true,
  judge: (evidence) =>
    evidence.set.wishes.words !== 'readable'
      ? []
      : labelled(evidence).flatMap(({ product, thing, label }) => {
          const bearings = labelAndLens(evidence.set, product);
          if (!bearings) return [];
          const value = Math.abs(bearings.label - bearings.lens);
          return beyond(evidence.limits, 'label-turned', { value }, () => ({
            of: thing,
            places: label,
            causes: [{ thing, part: null }],
            working: apart({ labelBearing: bearings.label, lensBearing: bearings.lens }),
          }));
        }),
  cures: ({ set }) => those(labelsToLens(set)),
};
