import type { Likeness, SetDocument, Vector } from '@fendrix/contract';
import { CORRECTION_GELS } from '../../colour/cast.js';
import { deltaE2000, labOf } from '../../colour/deltaE.js';
import { luminanceOf } from '../../exposure/display.js';
import { exposureWeights } from '../../exposure/recording.js';
import { productBounds, productShape } from '../../geometry/shape.js';
import { GROUND_KINDS } from '../../judge/ground.js';
import { outlineOf } from '../../plan/placeCamera.js';
import { type FrameRect, type View, viewOf } from '../../render/view.js';
import { degrees, radians } from '../../units/angle.js';
import { add, distance, dot, scale, subtract } from '../../units/vector.js';
import { allByStops, byStops, those, withCamera, withLight } from '../changes/changes.js';
import {
  type Evidence,
  evidenceOf,
  groundPlaces,
  heroOf,
  lightCauses,
  meanStops,
  measured,
  partPlaces,
  toneBelow,
} from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { apart, from, ratio, type Working, workedOut } from '../working.js';

/** Places of table, background and walls, or of a label; fewer tell no tone. */
const FEWEST_GROUND = 40;
const FEWEST_LABEL = 6;
/** A product that reaches so many frames beyond the frame is one that the camera stands in. */
const FAR_OFF = 10;
/** Lightness 60: at which two grounds are compared by their colour alone. */
const GREY = 0.28;
const GROUND = ['bench', ...GROUND_KINDS] as const;

/** The figures of a picture that another one may be held against; null where no product is seen. */
export function likenessOf(evidence: Evidence, name: string): Likeness | null {
  const here = framed(evidence);
  if (!here || Object.values(here.figures.outline).some((at) => Math.abs(at) > FAR_OFF)) return null;
  const ground = groundPlaces(evidence, GROUND);
  const label = labelPlaces(evidence);
  const tone = (
    places: readonly number[],
    of: () => number,
    key: 'groundStops' | 'labelStops',
    fewest: number,
  ) => (places.length >= fewest && Number.isFinite(of()) ? { [key]: of() } : {});
  const groundRgb = ground.length >= FEWEST_GROUND ? recordedColour(evidence, ground) : null;
  return {
    name,
    ...here.figures,
    ...tone(ground, () => meanStops(evidence.stops, ground), 'groundStops', FEWEST_GROUND),
    ...tone(label, () => paperStops(evidence.stops, label), 'labelStops', FEWEST_LABEL),
    ...(groundRgb ? { groundRgb } : {}),
  };
}

/** The lightest tenth of a label is its paper, whatever is printed on it. */
const paperStops = (stops: Float64Array, label: readonly number[]): number => toneBelow(stops, label, 0.9);

/** Where the main product stands in the frame, and how the camera sees it. */
function framed(evidence: Evidence) {
  const hero = heroOf(evidence);
  if (!hero) return null;
  const { low, high } = productBounds(hero.product);
  const view = viewOf(evidence.set.camera);
  const outline = outlineOf(view, productShape(hero.product).flat());
  const middle = scale(add(low, high), 0.5);
  const figures = { outline, heightM: high[2] - low[2], downDeg: degrees(Math.asin(-view.forward[2])) };
  return { hero, view, middle, figures };
}

/** The same, with the picture that this one is to be like; null where there is none, or no product is seen. */
function heldAgainst(evidence: Evidence) {
  const { like } = evidence.set.wishes;
  const here = like && framed(evidence);
  return here ? { like, ...here } : null;
}

/** A verdict on how the main product is shown, by one figure of it. */
function ofMainProduct<C extends 'unlike-size' | 'unlike-place'>(
  code: C,
  working: (here: Held) => Working,
  cures: (set: SetDocument, here: Held) => SetDocument[],
): Judge<C> {
  return {
    code,
    byMaps: true,
    judge(evidence) {
      const here = heldAgainst(evidence);
      if (!here) return [];
      const { thing, places } = here.hero;
      const how = working(here);
      return beyond(evidence.limits, code, { value: workedOut(how) ?? 0 }, () => ({
        of: thing,
        places,
        causes: [{ thing, part: null }],
        working: how,
      }));
    },
    cures(evidence) {
      const here = heldAgainst(evidence);
      return here ? cures(evidence.set, here) : [];
    },
  };
}

type Held = NonNullable<ReturnType<typeof heldAgainst>>;

function labelPlaces(evidence: Evidence): number[] {
  const hero = heroOf(evidence);
  return hero ? partPlaces(evidence, hero.product, hero.places, ({ kind }) => kind === 'label') : [];
}

/** Mean colour that places are recorded in, linear, at a luminance of 1; null for black. */
function recordedColour({ set, view }: Evidence, places: readonly number[]): [number, number, number] | null {
  const weights = exposureWeights(set);
  const rgb: [number, number, number] = [0, 0, 0];
  for (const place of places)
    for (let k = 0; k < weights.length; k++)
      rgb[k % 3] =
        (rgb[k % 3] as number) + (weights[k] as number) * (view.whole.unit[place * weights.length + k] ?? 0);
  const luminance = luminanceOf(...rgb);
  return luminance > 0 ? (rgb.map((value) => Math.max(0, value) / luminance) as typeof rgb) : null;
}

const tall = ({ top, bottom }: FrameRect): number => bottom - top;
const middleOf = ({ left, right, top, bottom }: FrameRect) =>
  [(left + right) / 2, (top + bottom) / 2] as const;
const nearer = (one: number, other: number): number => (Math.abs(one) <= Math.abs(other) ? one : other);

/**
 * By how much the main product is shown larger than wished, as a logarithm. Two schools: the same scale, so that a small one
 * stays small beside a large one, or the same height in the frame; the one it is nearer to counts.
 */
function sizeOff(here: Pick<Likeness, 'outline' | 'heightM'>, like: Likeness): number {
  const fill = Math.log(tall(here.outline) / tall(like.outline));
  return nearer(fill, fill - Math.log(here.heightM / like.heightM));
}

/** How far it stands off, parts of the frame: across, and down by its foot or its middle, whichever is nearer. */
function placeOff(here: FrameRect, like: FrameRect): [across: number, down: number] {
  const [own, wanted] = [middleOf(here), middleOf(like)];
  return [own[0] - wanted[0], nearer(here.bottom - like.bottom, own[1] - wanted[1])];
}

/** The place of the lens as that of the aim: the camera pushed without being turned. */
const pushedCamera = (set: SetDocument, by: Vector): SetDocument =>
  withCamera(set, { positionM: add(set.camera.positionM, by), aimM: add(set.camera.aimM, by) });

/** One part of the frame at a depth, m, along the view's right and up. */
const onFrame = (
  { right, up, halfWidth, halfHeight }: View,
  depthM: number,
  [across, down]: readonly [number, number],
) => add(scale(right, 2 * across * halfWidth * depthM), scale(up, -2 * down * halfHeight * depthM));

/** The main product shown larger or smaller than in the picture that this one is to be like; the camera nearer or farther. */
export const unlikeSize = ofMainProduct(
  'unlike-size',
  ({ figures, like }) => {
    const [here, there] = [tall(figures.outline), tall(like.outline)];
    return sizeOff(figures, like) === Math.log(here / there)
      ? ratio({ sizeHere: here, sizeThere: there })
      : ratio({ scaleHere: here / figures.heightM, scaleThere: there / like.heightM });
  },
  (set, { figures, like, middle, view }) => {
    const { camera } = set;
    const depth = dot(subtract(middle, camera.positionM), view.forward);
    const fill = Math.log(tall(figures.outline) / tall(like.outline));
    return [sizeOff(figures, like), fill].map((off) => {
      const by = depth * Math.expm1(off);
      const moved = pushedCamera(set, scale(view.forward, -by));
      return withCamera(moved, { focusM: Math.max(0.05, camera.focusM + by) });
    });
  },
);

/** The main product off the place that it has there; it is pushed across, or the camera is, without being turned. */
export const unlikePlace = ofMainProduct(
  'unlike-place',
  ({ figures: { outline }, like }) => {
    const [across, down] = placeOff(outline, like.outline);
    const [own] = middleOf(outline);
    return Math.abs(across) >= Math.abs(down)
      ? apart({ placeHere: own, placeThere: own - across })
      : apart({ placeHere: outline.bottom, placeThere: outline.bottom - down });
  },
  (set, { figures, like, hero, middle, view }) => {
    const [across, down] = placeOff(figures.outline, like.outline);
    const depth = dot(subtract(middle, set.camera.positionM), view.forward);
    const [x, y] = onFrame(view, depth, [-across, 0]);
    const products = set.products.map((product) =>
      product.id === hero.product.id ? { ...product, positionM: add(product.positionM, [x, y, 0]) } : product,
    );
    return [{ ...set, products }, pushedCamera(set, onFrame(view, depth, [across, down]))];
  },
);

/** The camera looks down more, or less, than there. */
export const unlikeAngle: Judge<'unlike-angle'> = {
  code: 'unlike-angle',
  byMaps: true,
  judge(evidence) {
    const here = heldAgainst(evidence);
    if (!here) return [];
    const [own, there] = [here.figures.downDeg, here.like.downDeg];
    return beyond(evidence.limits, 'unlike-angle', { value: Math.abs(own - there) }, () => ({
      of: null,
      places: [],
      causes: [],
      working: apart({ downHere: own, downThere: there }),
    }));
  },
  /** Round the main product at the same distance; and so that it stays where it is in the frame. */
  cures(evidence) {
    const { set } = evidence;
    const here = heldAgainst(evidence);
    if (!here) return [];
    const { positionM, aimM } = set.camera;
    const [x, y] = subtract(positionM, aimM);
    const level = Math.hypot(x, y);
    if (level < 1e-6) return [];
    const away = distance(positionM, aimM);
    const down = radians(here.like.downDeg);
    const way: Vector = [(x / level) * Math.cos(down), (y / level) * Math.cos(down), Math.sin(down)];
    const turned = withCamera(set, { positionM: add(aimM, scale(way, away)) });
    const view = viewOf(turned.camera);
    const outline = outlineOf(view, productShape(here.hero.product).flat());
    const depth = dot(subtract(here.middle, turned.camera.positionM), view.forward);
    return [turned, pushedCamera(turned, onFrame(view, depth, placeOff(outline, here.like.outline)))];
  },
};

/** The tones that differ most from those of the other picture: of the ground, or of the label's paper. */
function tonesOff(evidence: Evidence) {
  const { like } = evidence.set.wishes;
  if (!like) return [];
  const ground = groundPlaces(evidence, GROUND);
  const label = labelPlaces(evidence);
  const off = (
    places: readonly number[],
    fewest: number,
    wanted: number | undefined,
    tone: (stops: Float64Array, places: readonly number[]) => number,
  ) =>
    wanted === undefined || places.length < fewest
      ? []
      : [
          {
            places,
            off: tone(evidence.stops, places) - wanted,
            wanted,
            figure: measured(evidence, (stops) => Math.abs(tone(stops, places) - wanted)),
          },
        ];
  return [
    ...off(ground, FEWEST_GROUND, like.groundStops, meanStops),
    ...off(label, FEWEST_LABEL, like.labelStops, paperStops),
  ].sort((a, b) => b.figure.value - a.figure.value);
}

/** Ground or label lighter or darker than there. */
export const unlikeTone: Judge<'unlike-tone'> = {
  code: 'unlike-tone',
  judge(evidence) {
    const [worst] = tonesOff(evidence);
    if (!worst) return [];
    return beyond(evidence.limits, 'unlike-tone', worst.figure, () => ({
      of: null,
      places: worst.places,
      causes: lightCauses(evidence, worst.places),
      working: apart({ toneHere: worst.wanted + worst.off, toneThere: worst.wanted }),
    }));
  },
  /** All lights; the strongest there alone; two of them, each so much that it suffices. */
  cures(evidence, { causes }) {
    const { set } = evidence;
    const [worst] = tonesOff(evidence);
    if (!worst) return [];
    return those(
      allByStops(set, -worst.off),
      ...causes.slice(0, 2).map(({ thing, part }) => {
        const left = part ? (2 ** -worst.off - (1 - part)) / part : 0;
        return left > 0.01 ? byStops(set, thing.key, Math.log2(left)) : null;
      }),
    );
  },
};

/** Colour of the ground here and in the other picture, CIELAB at one lightness; null where it is not known. */
function groundColours(evidence: Evidence) {
  const wanted = evidence.set.wishes.like?.groundRgb;
  const ground = groundPlaces(evidence, GROUND);
  if (!wanted || ground.length < FEWEST_GROUND) return null;
  const own = recordedColour(evidence, ground);
  const lab = (rgb: readonly number[]) => labOf(rgb.map((value) => GREY * value) as [number, number, number]);
  return own && { here: lab(own), there: lab(wanted) };
}

/** Difference between the two, CIEDE2000. */
function colourOff(evidence: Evidence): number | null {
  const colours = groundColours(evidence);
  return colours && deltaE2000(colours.here, colours.there);
}

/** Ground of another colour than there. */
export const unlikeColour: Judge<'unlike-colour'> = {
  code: 'unlike-colour',
  judge(evidence) {
    const colours = groundColours(evidence);
    if (!colours) return [];
    const { here, there } = colours;
    return beyond(evidence.limits, 'unlike-colour', { value: deltaE2000(here, there) }, () => {
      const places = groundPlaces(evidence, GROUND);
      return {
        of: null,
        places,
        causes: lightCauses(evidence, places),
        working: from({
          greenRedHere: here[1],
          blueYellowHere: here[2],
          greenRedThere: there[1],
          blueYellowThere: there[2],
        }),
      };
    });
  },
  /** The white balance, or a gel on the main light, that comes nearest; neither needs rays. */
  cures(evidence, { causes }) {
    const { set, view } = evidence;
    const off = (of: SetDocument) => colourOff(evidenceOf(of, view, evidence)) ?? Number.POSITIVE_INFINITY;
    const nearest = (sets: readonly SetDocument[]) =>
      sets.map((of) => ({ of, off: off(of) })).sort((a, b) => a.off - b.off)[0]?.of ?? null;
    const balances = Array.from(
      { length: BALANCES },
      (_, i) => COOLEST_K * (WARMEST_K / COOLEST_K) ** (i / (BALANCES - 1)),
    );
    const light = set.lights.find(({ tag }) => tag === causes[0]?.thing.key);
    const gels = light?.colour
      ? CORRECTION_GELS.map((gel) =>
          withLight(set, light.tag, { colour: { ...light.colour, gels: [{ ...gel }] } } as Partial<
            typeof light
          >),
        )
      : [];
    const bare =
      light?.colour && light.colour.gels.length > 0
        ? [withLight(set, light.tag, { colour: { ...light.colour, gels: [] } } as Partial<typeof light>)]
        : [];
    return those(
      nearest(balances.map((k) => withCamera(set, { whiteBalanceK: Math.round(k / 50) * 50 }))),
      nearest([...gels, ...bare]),
    );
  },
};

/** White balances that are tried, K. */
const BALANCES = 49;
const WARMEST_K = 2500;
const COOLEST_K = 10_000;
