import type { MirrorBand } from '../mirror/mirrorBand.js';
import { degrees, radians } from '../units/angle.js';
import { mean, median } from '../units/middle.js';
import type { MeasuredEdge, MeasuredPrint } from './bandEdges.js';
import type { Measure } from './frameShift.js';

/** How a product stands in a frame against its plan; null where its edges do not tell it. Each with one deviation. */
export interface ProductStanding {
  product: string;
  /** Further to camera right, m. */
  right: Measure | null;
  /** Leans to camera right, degrees; the camera leaning left looks the same. */
  leanDeg: Measure | null;
  /** Its label is turned towards camera right, degrees. */
  turnDeg: Measure | null;
}

/** Where one deviation is more than these, the edges do not tell it: m, degrees. */
const VAGUE = { rightM: 0.003, leanDeg: 1.5, turnDeg: 3 };
/** What an edge is off by at best, part of the visible width, see `movedThings`. */
const EDGE_ERROR = 0.004;
/** Places that tell something at least, and over how much of the height they have to lie to tell a lean, m. */
const FEWEST = 3;
const LEAST_HEIGHT_M = 0.02;

/**
 * How products stand, by their outlines and what is printed on their labels: where both sides are at several heights, and how far
 * the print went past them. Limits: round products; print needs contrast along a line.
 * @param edges, prints as measured  @param bands of the plan
 * @param frameWidthM how much of the room the frame is wide at a product
 */
export function standingOfProducts(
  edges: readonly MeasuredEdge[],
  prints: readonly MeasuredPrint[],
  bands: readonly MirrorBand[],
  frameWidthM: (product: string) => number,
): ProductStanding[] {
  return [...new Set(bands.map(({ product }) => product))].map((product): ProductStanding => {
    const sides = edges.filter(
      (edge) => edge.product === product && edge.left === null && edge.right === null,
    );
    const widthM = (edge: MeasuredEdge) => {
      const band = bandOf(bands, edge);
      return band ? (band.right - band.left) * frameWidthM(product) : 0;
    };
    const outline = sides.map((edge) => ({
      heightM: edge.heightM,
      rightM: edge.by * widthM(edge),
      widthM: widthM(edge),
    }));
    return {
      product,
      right: outline.length < FEWEST ? null : unlessVague(shiftOf(outline), VAGUE.rightM),
      leanDeg: unlessVague(leanOf(outline), VAGUE.leanDeg),
      turnDeg: unlessVague(
        turnOf(
          sides,
          prints.filter((print) => print.product === product),
        ),
        VAGUE.turnDeg,
      ),
    };
  });
}

const unlessVague = (found: Measure | null, most: number): Measure | null =>
  found && found.error <= most ? found : null;

interface OutlinePlace {
  heightM: number;
  rightM: number;
  widthM: number;
}

const spreadOf = (values: readonly number[]): number => {
  const middle = median(values);
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
};

function shiftOf(outline: readonly OutlinePlace[]): Measure {
  const all = outline.map(({ rightM }) => rightM);
  const floor = EDGE_ERROR * mean(outline.map(({ widthM }) => widthM));
  return { value: median(all), error: Math.hypot(floor, spreadOf(all) / Math.sqrt(all.length)) };
}

/** The slope of the outline over the height, by least squares. */
function leanOf(outline: readonly OutlinePlace[]): Measure | null {
  const heights = outline.map(({ heightM }) => heightM);
  if (outline.length < FEWEST || Math.max(...heights) - Math.min(...heights) < LEAST_HEIGHT_M) return null;
  const [middleM, middleRightM] = [mean(heights), mean(outline.map(({ rightM }) => rightM))];
  const squares = outline.reduce((sum, { heightM }) => sum + (heightM - middleM) ** 2, 0);
  const slope =
    outline.reduce((sum, { heightM, rightM }) => sum + (heightM - middleM) * (rightM - middleRightM), 0) /
    squares;
  const left = outline.reduce(
    (sum, { heightM, rightM }) => sum + (rightM - middleRightM - slope * (heightM - middleM)) ** 2,
    0,
  );
  const each = Math.hypot(
    Math.sqrt(left / Math.max(1, outline.length - 2)),
    EDGE_ERROR * mean(outline.map(({ widthM }) => widthM)),
  );
  return { value: degrees(Math.atan(slope)), error: degrees(each / Math.sqrt(squares)) };
}

/** How far the print of a label went past the outline, over how far it goes for a degree. */
function turnOf(outline: readonly MeasuredEdge[], prints: readonly MeasuredPrint[]): Measure | null {
  if (outline.length < FEWEST || prints.length < FEWEST) return null;
  const common = median(outline.map(({ by }) => by));
  const turns = prints.map(({ angleDeg, by }) => (by - common) / widthADegree(angleDeg));
  const value = median(turns);
  const floor = EDGE_ERROR / mean(prints.map(({ angleDeg }) => widthADegree(angleDeg)));
  return { value, error: Math.hypot(floor, spreadOf(turns) / Math.sqrt(turns.length)) };
}

/** What a degree moves a place of a round product by, part of its visible width. */
const widthADegree = (angleDeg: number): number => 0.5 * Math.cos(radians(angleDeg)) * radians(1);

const bandOf = (bands: readonly MirrorBand[], { product, heightM }: MeasuredEdge): MirrorBand | undefined =>
  bands.find((band) => band.product === product && band.heightM === heightM);
