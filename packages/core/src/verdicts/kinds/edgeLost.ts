import type { SetDocument } from '@fendrix/contract';
import { MID_TONE, PAPER_WHITE_STOPS } from '../../exposure/exposure.js';
import { displayWeights } from '../../exposure/recording.js';
import { whiteGroundStops } from '../../judge/groundVerdict.js';
import { mostBackM, withPlacement } from '../../solve/placements.js';
import { withCardsAside } from '../changes/addedSheets.js';
import { byStops, those } from '../changes/changes.js';
import {
  BLACK_CLOTH,
  GREY_PAPER,
  greyOfGround,
  WHITE_PAPER,
  withGround,
  withLitGround,
} from '../changes/grounds.js';
import { type Evidence, type JudgedBy, lightCauses, measured, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { over } from '../working.js';

/** Less than a third of a stop across the outline is not seen as an edge. */
const STEP_STOPS = 1 / 3;
/** From here on the step in one of red, green and blue is seen as one of colour, stops: amber against white. */
const COLOUR_STEP_STOPS = 1;
/** Darker than five stops under mid-tone all is black, of whatever colour; recorded, of paper white. */
const BLACK = MID_TONE / 2 ** 5;
/** Fewer places of outline than this are no outline. */
const FEWEST = 10;

/** Places just within the outline, on it, and just outside of it. */
interface Edge {
  inside: number;
  on: number;
  outside: number;
}

/** Places across the outline of a product, those inside and outside one place clear of it so that neither is of both. */
function edgesOf({ across, down, thing, things }: Evidence, index: number): Edge[] {
  const edges: Edge[] = [];
  const at = (x: number, y: number) => (x < 0 || y < 0 || x >= across || y >= down ? null : y * across + x);
  const isGround = (place: number) => {
    const kind = things[thing[place] as number]?.kind;
    return kind === 'backdrop' || kind === 'room' || kind === 'bench';
  };
  for (let y = 0; y < down; y++)
    for (let x = 0; x < across; x++) {
      if (thing[y * across + x] !== index) continue;
      for (const [dx, dy] of [
        [-1, 0],
        [1, 0],
        [0, -1],
      ] as const) {
        const [next, outside, inside] = [at(x + dx, y + dy), at(x + 2 * dx, y + 2 * dy), at(x - dx, y - dy)];
        if (next === null || outside === null || inside === null) continue;
        if (thing[inside] === index && isGround(next) && isGround(outside))
          edges.push({ inside, on: y * across + x, outside });
      }
    }
  return edges;
}

/** Stops across the outline: from one side to the other, or to the line that draws a clear thing. Over paper white all is white. */
function stepAt(stops: Float64Array, { inside, on, outside }: Edge, isClear: boolean): number {
  const tone = (place: number) => Math.min(PAPER_WHITE_STOPS, stops[place] as number);
  const step = Math.abs(tone(inside) - tone(outside));
  return isClear ? Math.max(step, Math.abs(tone(on) - tone(outside))) : step;
}

/**
 * Whether the two sides are of colours so far apart that an outline of one tone is seen all the same.
 * @param weights of the films to what is recorded, see `displayWeights`
 */
function isColoured({ view }: Evidence, weights: Float64Array, { inside, outside }: Edge): boolean {
  const recorded = (place: number, channel: number) => {
    let value = 0;
    for (let k = channel; k < weights.length; k += 3)
      value += (weights[k] as number) * (view.whole.unit[place * weights.length + k] ?? 0);
    return Math.max(BLACK, Math.min(1, value));
  };
  return [0, 1, 2].some(
    (channel) =>
      Math.abs(Math.log2(recorded(inside, channel) / recorded(outside, channel))) > COLOUR_STEP_STOPS,
  );
}

/** An outline that has nearly the tone of what is behind it. */
export const edgeLost: Judge<'edge-lost'> = {
  code: 'edge-lost',
  judge: (evidence) =>
    seenProducts(evidence).flatMap(({ product, thing, index }) => {
      const isClear = product.material.kind === 'dielectric';
      const edges = edgesOf(evidence, index);
      // Water that lies there has no outline that matters.
      if (product.kind === 'water' || edges.length < FEWEST) return [];
      const weights = displayWeights(evidence.set);
      const ofOneColour = edges.filter((edge) => !isColoured(evidence, weights, edge));
      const lost = (stops: Float64Array) =>
        ofOneColour.filter((edge) => stepAt(stops, edge, isClear) < STEP_STOPS);
      const figure = measured(evidence, (stops) => lost(stops).length / edges.length);
      return beyond(evidence.limits, 'edge-lost', figure, () => {
        const found = lost(evidence.stops);
        const once = (places: readonly number[]) => [...new Set(places)];
        return {
          of: thing,
          places: once(found.map(({ inside }) => inside)),
          causes: lightCauses(evidence, once(found.map(({ outside }) => outside))),
          working: over({ lostPairs: found.length, outlinePairs: edges.length }, { leastStep: STEP_STOPS }),
        };
      });
    }),
  /** What lights the ground behind the edge, or the ground itself, lighter or darker; cards that draw the edges; the light further round. */
  cures(evidence, { of, causes }) {
    const { set } = evidence;
    const product = set.products.find(({ id }) => id === of?.key);
    const back = mostBackM(set);
    const main = causes[0]?.thing.key ?? '';
    const onLight = greyOfGround(set) > LIGHT_FROM;
    const edged = product ? withCardsAside(set, product, onLight ? 'black' : 'white') : null;
    const papers = set.wishes.ground !== 'open' ? [] : onLight ? [GREY_PAPER, BLACK_CLOTH] : [WHITE_PAPER];
    return those(
      ...causes
        .slice(0, 2)
        .flatMap(({ thing }) => [0.7, -0.7, 1.4, -1.4].map((stops) => byStops(set, thing.key, stops))),
      edged,
      ...(onLight && !isMeantDark(set)
        ? [set, edged].flatMap((from) =>
            BRIGHT_STOPS.map((stops) => from && brightField(evidence, from, stops)),
          )
        : []),
      ...papers.map((paper) => withGround(set, paper)),
      ...papers.map((paper) => edged && withGround(edged, paper)),
      ...[0.5, 1].map((part) =>
        back > 0.05 ? withPlacement(set, { vary: 'backdrop-distance' }, part * back) : null,
      ),
      ...[-35, 35, -70, 70].map((deg) => withPlacement(set, { vary: 'light-bearing', light: main }, deg)),
    );
  },
};

/** A ground lighter than this is left light, and edges are drawn dark on it. */
const LIGHT_FROM = 0.3;
const isMeantDark = ({ wishes: { mood, ground } }: SetDocument): boolean =>
  mood === 'dark' || ground === 'grey' || ground === 'black';

/** The ground alone is lit, by lights of its own, and what lit the products is switched off. */
const brightField = (by: JudgedBy, set: SetDocument, groundStops: number): SetDocument | null =>
  withLitGround(by, { ...set, lights: set.lights.map((light) => ({ ...light, on: false })) }, groundStops);

/** Tones tried for it: white, and such that its brightest part just is. */
const BRIGHT_STOPS = [whiteGroundStops(null), 1.3] as const;
