import type { SetDocument } from '@fendrix/contract';
import { blurPx } from '../optics/blur.js';
import { median } from '../units/middle.js';
import type { TracedView } from '../verdicts/tracedView.js';

/** A part of a frame at its full size in which edges are looked at. */
export interface SharpnessPatch {
  product: string;
  /** Of what is seen there, along the lens axis, m. */
  depthM: number;
  /** Middle and half width, parts of the frame. */
  across: number;
  down: number;
  half: number;
}

/** A patch with how wide its clear edges are blurred, deviation of a Gaussian, file px; null where it has none. */
export interface MeasuredPatch extends SharpnessPatch {
  sigmaPx: number | null;
}

/** How sharp the products of a frame are. */
export interface FrameSharpness {
  /** The circle of blur of the sharpest edges of each, and of the sharpest part that was looked at in the plan; on the sensor, px. */
  products: { product: string; blurPx: number; plannedPx: number }[];
  /** The smallest circle of blur that a file of this size tells, sensor px. */
  resolvedPx: number;
}

/** From this part of its light on a place shows what it mirrors, or what is behind it. */
const NOT_ITSELF = 0.5;
/** Layers of depth of a product, and places looked at in each. */
const LAYERS = 5;
const PLACES = 6;
/** Gaussians that edges are looked at with, px of the file: the coarser ones where an edge is wider than this many of the fine one. */
const SMOOTHINGS = [
  { fine: 1, coarse: 2 },
  { fine: 2, coarse: 4 },
] as const;
const WIDE = 2.5;
/** Edges of a patch that count: as strong as this part of its strongest, and at least so much of white a px. */
const STRONG = 0.5;
const LEAST_SLOPE = 0.008;
const FEWEST_EDGES = 6;
/** Slopes are edges from so many deviations of the slopes that noise makes: the steepest of ten thousand is four. */
const OVER_NOISE = 6;
/** What a file blurs by itself (demosaicing, resizing), one deviation of a Gaussian, px. */
const OWN_SIGMA = 0.6;
/** A disc of this diameter is as wide as a Gaussian of deviation 1. */
const DISC = 4;
/** Below so many px of the file, blur is not told from what a file has by itself. */
const RESOLVED = 2;

/**
 * Where to look for sharp edges: outlines and prints of products, by layers of depth, those with the most contrast in the frame.
 * @param luminance of the frame, as small as one likes
 */
export function sharpnessPatches(
  set: SetDocument,
  {
    whole: { across, down, thing, things },
    depthM: depths,
    mirroredPart,
    throughPart,
  }: Pick<TracedView, 'whole' | 'depthM' | 'mirroredPart' | 'throughPart'>,
  { width, height, luminance }: { width: number; height: number; luminance: Float32Array },
): SharpnessPatch[] {
  /** Darkest against brightest round a place, as a difference. */
  const contrast = (i: number, j: number): number => {
    let [least, most] = [Number.POSITIVE_INFINITY, 0];
    for (let y = Math.floor((j / down) * height); y < ((j + 1) / down) * height; y++)
      for (let x = Math.floor((i / across) * width); x < ((i + 1) / across) * width; x++) {
        const value = luminance[Math.min(height - 1, y) * width + Math.min(width - 1, x)] as number;
        least = Math.min(least, value);
        most = Math.max(most, value);
      }
    return most - least;
  };
  return set.products.flatMap(({ id, kind }) => {
    if (kind === 'water') return [];
    const own = things.findIndex((one) => one.kind === 'product' && one.key === id);
    const places = [...thing.keys()].flatMap((place) => {
      const [i, j] = [place % across, Math.floor(place / across)];
      const depth = depths[place] as number;
      // What is mirrored or seen through has a focus of its own; an outline has not.
      const isOwn = Math.max(mirroredPart[place] as number, throughPart[place] as number) < NOT_ITSELF;
      const isOutline = [1, -1, across, -across].some((step) => thing[place + step] !== own);
      if (!isOwn && !isOutline) return [];
      // At the border of the frame a patch would be cut.
      if (thing[place] !== own || !(depth > 0) || i < 1 || j < 1 || i >= across - 1 || j >= down - 1)
        return [];
      return [{ i, j, depthM: depth, contrast: contrast(i, j) }];
    });
    return layersOf(places).flatMap((layer) =>
      layer
        .sort((a, b) => b.contrast - a.contrast)
        .slice(0, PLACES)
        .map(
          ({ i, j, depthM }): SharpnessPatch => ({
            product: id,
            depthM,
            across: (i + 0.5) / across,
            down: (j + 0.5) / down,
            half: 0.75 / across,
          }),
        ),
    );
  });
}

/**
 * How wide the sharpest edges of a picture are blurred, as the deviation of a Gaussian, px. An edge of a step that was blurred by s
 * slopes as 1 / sqrt(s² + a²) once it is smoothed by a: two smoothings tell s. Idea: Zhuo and Sim 2011, Defocus map estimation from a
 * single image. Lines are passed over: their slopes fall off faster, as if they were sharper. Shading looks softer than it is.
 * @param light linear, one value a px  @returns null where there is no clear edge
 */
export function edgeSigma(light: Float32Array, width: number, height: number): number | null {
  let found: number | null = null;
  for (const { fine, coarse } of SMOOTHINGS) {
    const sigma = sigmaBy(light, width, height, fine, coarse);
    if (sigma === null) return found;
    found = sigma;
    if (sigma < WIDE * fine) break;
  }
  return found;
}

/** The same by one pair of smoothings. */
function sigmaBy(
  light: Float32Array,
  width: number,
  height: number,
  fine: number,
  coarse: number,
): number | null {
  const [sharper, smoother] = [slopes(light, width, height, fine), slopes(light, width, height, coarse)];
  const margin = Math.max(3 * coarse, LINE_REACH * fine + 1);
  // The slope of white noise that is smoothed by a Gaussian.
  const noiseSlope = noiseOf(light, width, height) / (Math.sqrt(8 * Math.PI) * fine * fine);
  const least = Math.max(LEAST_SLOPE, OVER_NOISE * noiseSlope);
  const found: { slope: number; sigma: number }[] = [];
  for (let y = margin; y < height - margin; y++) {
    for (let x = margin; x < width - margin; x++) {
      const at = y * width + x;
      const slope = sharper.size[at] as number;
      if (slope < least || !isCrest(sharper, at, width) || !isStep(sharper, light, at, width, fine)) continue;
      const ratio2 = (slope / (smoother.size[at] as number)) ** 2;
      // As wide as the smoothing hides, or no edge at all.
      if (!(ratio2 > 1.02)) continue;
      const sigma2 = (coarse * coarse - ratio2 * fine * fine) / (ratio2 - 1);
      found.push({ slope, sigma: Math.sqrt(Math.max(0, sigma2)) });
    }
  }
  const strongest = Math.max(...found.map(({ slope }) => slope));
  const own = found.filter(({ slope }) => slope >= STRONG * strongest);
  return own.length < FEWEST_EDGES ? null : median(own.map(({ sigma }) => sigma));
}

/**
 * How sharp the products of a frame are: of the layers of each the sharpest, of the patches of a layer the sharpest third. Shading and
 * penumbras are soft in focus too, so that a softer part says nothing; where nothing at all is sharp, that says something.
 * @param fileWidthPx of the frame's file, which may be smaller than what the sensor holds
 */
export function frameSharpness(
  { camera }: Pick<SetDocument, 'camera'>,
  patches: readonly MeasuredPatch[],
  fileWidthPx: number,
): FrameSharpness {
  const perFilePx = camera.body.pixelsWide / fileWidthPx;
  const names = [...new Set(patches.map(({ product }) => product))];
  const products = names.flatMap((product) => {
    const all = patches.filter((patch) => patch.product === product);
    const told = all.flatMap(({ sigmaPx, depthM }) => (sigmaPx === null ? [] : [{ sigmaPx, depthM }]));
    if (told.length === 0) return [];
    const sigmas = layersOf(told).map((layer) => {
      const sharpest = layer.map(({ sigmaPx }) => sigmaPx).sort((a, b) => a - b);
      return median(sharpest.slice(0, Math.ceil(sharpest.length / 3)));
    });
    const disc = DISC * Math.sqrt(Math.max(0, Math.min(...sigmas) ** 2 - OWN_SIGMA ** 2));
    const plannedPx = Math.min(...all.map(({ depthM }) => blurPx(camera, depthM)));
    return [{ product, blurPx: perFilePx * disc, plannedPx }];
  });
  return { products, resolvedPx: RESOLVED * perFilePx };
}

/** What lies as deep, in layers of even thickness. */
function layersOf<T extends { depthM: number }>(all: readonly T[]): T[][] {
  const depths = all.map(({ depthM }) => depthM);
  const [near, far] = [Math.min(...depths), Math.max(...depths)];
  return Array.from({ length: LAYERS }, (_, index) =>
    all.filter(({ depthM }) => layerOf(depthM, near, far) === index),
  ).filter((layer) => layer.length > 0);
}

const layerOf = (depthM: number, near: number, far: number): number =>
  Math.min(LAYERS - 1, Math.floor(((depthM - near) / Math.max(far - near, 1e-9)) * LAYERS));

/** Deviation of the noise of a px: the middle of what is neither even nor an edge. Source: Immerkaer 1996, Fast noise variance estimation. */
function noiseOf(light: Float32Array, width: number, height: number): number {
  const at = (x: number, y: number) => light[y * width + x] as number;
  const rough: number[] = [];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const corners = at(x - 1, y - 1) + at(x + 1, y - 1) + at(x - 1, y + 1) + at(x + 1, y + 1);
      const sides = at(x, y - 1) + at(x - 1, y) + at(x + 1, y) + at(x, y + 1);
      rough.push(Math.abs(corners - 2 * sides + 4 * at(x, y)));
    }
  // The mask makes six of one deviation, of which the middle is 0.6745.
  return rough.length === 0 ? 0 : median(rough) / (6 * 0.6745);
}

interface Slopes {
  x: Float32Array;
  y: Float32Array;
  size: Float32Array;
}

/** Slopes of a picture that is smoothed by a Gaussian. */
function slopes(light: Float32Array, width: number, height: number, sigma: number): Slopes {
  const reach = Math.ceil(3 * sigma);
  const bell = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma)),
  );
  const sum = bell.reduce((all, value) => all + value, 0);
  const smooth = bell.map((value) => value / sum);
  const slope = smooth.map((value, i) => ((i - reach) / (sigma * sigma)) * value);
  const [x, y] = [
    along(along(light, width, height, slope, 1, 0), width, height, smooth, 0, 1),
    along(along(light, width, height, smooth, 1, 0), width, height, slope, 0, 1),
  ];
  return { x, y, size: x.map((value, i) => Math.hypot(value, y[i] as number)) };
}

/** One line of weights laid over each px; at the border over what is there. */
function along(
  from: Float32Array,
  width: number,
  height: number,
  weights: readonly number[],
  dx: number,
  dy: number,
): Float32Array {
  const reach = (weights.length - 1) / 2;
  const out = new Float32Array(from.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let k = -reach; k <= reach; k++) {
        const [u, v] = [
          Math.max(0, Math.min(width - 1, x + k * dx)),
          Math.max(0, Math.min(height - 1, y + k * dy)),
        ];
        sum += (weights[k + reach] as number) * (from[v * width + u] as number);
      }
      out[y * width + x] = sum;
    }
  }
  return out;
}

/** So far on either side of an edge no slope may go back, smoothings; and by how much of its own. */
const LINE_REACH = 5;
const BACK = 0.2;
/** What is clipped has an edge of its own, sharp whatever the blur. */
const CLIPPED = 0.97;

/**
 * Whether a slope is that of one step from a tone to another: across a line it goes back soon, and what slopes tell of its blur
 * is wrong, as it is beside what is clipped.
 */
function isStep(
  { x, y, size }: Slopes,
  light: Float32Array,
  at: number,
  width: number,
  smoothing: number,
): boolean {
  const [gx, gy, own] = [x[at] as number, y[at] as number, size[at] as number];
  for (let d = smoothing; d <= LINE_REACH * smoothing; d += smoothing) {
    for (const side of [-d, d]) {
      const to = at + Math.round((side * gx) / own) + width * Math.round((side * gy) / own);
      const along = (x[to] as number) * gx + (y[to] as number) * gy;
      if (along < -BACK * own * own || (light[to] as number) >= CLIPPED) return false;
    }
  }
  return true;
}

/** Whether a slope is the steepest across its edge. */
function isCrest({ x, y, size }: Slopes, at: number, width: number): boolean {
  const [gx, gy] = [x[at] as number, y[at] as number];
  const step =
    Math.abs(gx) > 2 * Math.abs(gy)
      ? 1
      : Math.abs(gy) > 2 * Math.abs(gx)
        ? width
        : gx * gy > 0
          ? width + 1
          : width - 1;
  const own = size[at] as number;
  return own >= (size[at + step] as number) && own > (size[at - step] as number);
}
