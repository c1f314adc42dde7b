import type { FrameFigures, Product, SetDocument } from '@fendrix/contract';
import { luminanceOf } from '../exposure/display.js';
import { MID_TONE } from '../exposure/exposure.js';
import type { Thing } from '../geometry/scene.js';
import { productBounds, productShape } from '../geometry/shape.js';
import type { MirrorBand } from '../mirror/mirrorBand.js';
import { outlineOf } from '../plan/placeCamera.js';
import { type PartMap, partCode, thingOfPart, withinThing } from '../plates/partMap.js';
import { viewOf } from '../render/view.js';
import { mean, median } from '../units/middle.js';
import { add, dot, scale, subtract } from '../units/vector.js';
import { edgeMoved, type GreyPicture, type MeasuredEdge, measureEdges, onItsSide } from './bandEdges.js';
import { shadowInFrame } from './shadowInFrame.js';
import { standingOfProducts } from './standingOfProducts.js';

/** A frame and the plan of its set, alike in size. Linear, red green blue, 3 a pixel, paper white at 1. */
export interface FrameToRead {
  set: SetDocument;
  width: number;
  height: number;
  frame: Float32Array;
  /** With its lights as strong as the frame says. */
  plan: Float32Array;
  bands: readonly MirrorBand[];
  /** What the lens of the plan sees, as coarse as one likes, and what the numbers in it stand for. */
  parts: PartMap;
  things: readonly Thing[];
}

/** Values outside of these tell no tone. */
const [DARKEST, BRIGHTEST] = [0.002, 0.97];
/** Cells round other things that are not counted as ground. */
const CLEAR = 2;
const FEWEST_GROUND = 40;
const FEWEST_LABEL = 4;
/** Both outlines at so many heights tell size and place. */
const FEWEST_HEIGHTS = 3;
const GROUND: ReadonlySet<Thing['kind']> = new Set(['bench', 'backdrop', 'room']);

/**
 * What a frame shows of the product that is largest in it: size, place, lean, tones, colour, shadow, highlight; measured in the frame,
 * with the plan saying only where to look. What is not found within an eighth of the product of where it was planned is
 * not told. Limits: round products, a ground that is even but for slow gradients.
 * @returns null where the plan shows no product
 */
export function frameFigures(read: FrameToRead): FrameFigures | null {
  const { set, bands, parts, things } = read;
  const hero = heroOf(set, parts, things);
  if (!hero) return null;
  const pictures = [read.plan, read.frame].map((rgb) => greyPicture(read, rgb)) as [GreyPicture, GreyPicture];
  const own = bands.filter(({ product }) => product === hero.id);
  const edges = measureEdges(...pictures, own);
  const view = viewOf(set.camera);
  const { low, high } = productBounds(hero);
  const depthM = dot(subtract(scale(add(low, high), 0.5), view.origin), view.forward);
  const frameWidthM = 2 * view.halfWidth * depthM;
  const cells = cellsOf(read);
  const ground = groundCells(parts, things);
  const label = cellsOfLabel(parts, things, hero);
  const [standing] = standingOfProducts(edges, [], own, () => frameWidthM);
  const outline = outlineInFrame(set, hero, pictures, own, edges);
  const shown = outline ?? outlineOf(view, productShape(hero).flat());
  const toneOf = (places: readonly number[], fewest: number, of: (tones: number[]) => number) => {
    const tones = places.flatMap((at) => {
      const value = cells.grey[at] as number;
      return value > DARKEST && value < BRIGHTEST ? [Math.log2(value / MID_TONE)] : [];
    });
    // Mostly clipped or black: what is left says nothing of the rest.
    return tones.length < fewest || tones.length < places.length / 2 ? null : of(tones);
  };
  return {
    product: hero.name,
    heightM: high[2] - low[2],
    outline,
    leanDeg: standing?.leanDeg?.value ?? null,
    groundStops: toneOf(ground, FEWEST_GROUND, mean),
    labelStops: toneOf(
      label,
      FEWEST_LABEL,
      (tones) => tones.sort((a, b) => a - b)[Math.floor(0.9 * tones.length)] as number,
    ),
    groundRgb: ground.length < FEWEST_GROUND ? null : colourOf(cells, ground),
    shadow: shadowInFrame({
      ...cells,
      ground,
      foot: [(shown.left + shown.right) / 2, shown.bottom],
      tall: shown.bottom - shown.top,
    }),
    highlights: highlightsOf(set, own, edges),
    frameWidthM,
    frameHeightM: 2 * view.halfHeight * depthM,
    depthM,
    whiteBalanceK: set.camera.whiteBalanceK,
  };
}

function heroOf({ products }: SetDocument, parts: PartMap, things: readonly Thing[]): Product | null {
  const count = new Map<string, number>();
  for (const code of parts.part) {
    const thing = things[thingOfPart(code)];
    if (thing?.kind === 'product') count.set(thing.key, (count.get(thing.key) ?? 0) + 1);
  }
  const [largest] = [...count].sort((a, b) => b[1] - a[1]);
  return products.find(({ id }) => id === largest?.[0]) ?? null;
}

function greyPicture({ width, height }: FrameToRead, rgb: Float32Array): GreyPicture {
  const grey = Float32Array.from({ length: width * height }, (_, i) =>
    luminanceOf(rgb[3 * i] as number, rgb[3 * i + 1] as number, rgb[3 * i + 2] as number),
  );
  return { width, height, grey };
}

/** A frame as means of the cells of the map of parts. */
export interface Cells extends GreyPicture {
  rgb: Float32Array;
}

function cellsOf({ width, height, frame, parts }: FrameToRead): Cells {
  const rgb = new Float32Array(parts.width * parts.height * 3);
  const count = new Float32Array(parts.width * parts.height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const cell =
        Math.floor(((y + 0.5) * parts.height) / height) * parts.width +
        Math.floor(((x + 0.5) * parts.width) / width);
      count[cell] = (count[cell] as number) + 1;
      for (let c = 0; c < 3; c++)
        rgb[3 * cell + c] = (rgb[3 * cell + c] as number) + (frame[3 * (y * width + x) + c] as number);
    }
  }
  for (let i = 0; i < rgb.length; i++)
    rgb[i] = (rgb[i] as number) / Math.max(1, count[Math.floor(i / 3)] as number);
  const grey = Float32Array.from(count, (_, i) =>
    luminanceOf(rgb[3 * i] as number, rgb[3 * i + 1] as number, rgb[3 * i + 2] as number),
  );
  return { width: parts.width, height: parts.height, rgb, grey };
}

/** Cells of table, background and room that are clear of all else. */
function groundCells({ width, height, part }: PartMap, things: readonly Thing[]): number[] {
  const isGround = (x: number, y: number) => {
    const thing = things[thingOfPart(part[y * width + x] as number)];
    return thing === undefined || GROUND.has(thing.kind);
  };
  const cells: number[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let isClear = things[thingOfPart(part[y * width + x] as number)] !== undefined;
      for (let v = Math.max(0, y - CLEAR); isClear && v <= Math.min(height - 1, y + CLEAR); v++)
        for (let u = Math.max(0, x - CLEAR); isClear && u <= Math.min(width - 1, x + CLEAR); u++)
          isClear = isGround(u, v);
      if (isClear) cells.push(y * width + x);
    }
  }
  return cells;
}

function cellsOfLabel({ part }: PartMap, things: readonly Thing[], hero: Product): number[] {
  const labels =
    'labels' in hero ? hero.labels.map((_, index) => withinThing(partCode(0, 'label', index))) : [];
  return [...part.keys()].filter((at) => {
    const code = part[at] as number;
    return things[thingOfPart(code)]?.key === hero.id && labels.includes(withinThing(code));
  });
}

/** Mean colour at a luminance of 1; null for black. */
function colourOf({ rgb }: Cells, places: readonly number[]): [number, number, number] | null {
  const sum: [number, number, number] = [0, 0, 0];
  for (const at of places)
    for (let c = 0; c < 3; c++) sum[c] = (sum[c] as number) + (rgb[3 * at + c] as number);
  const luminance = luminanceOf(...sum);
  return luminance / places.length > DARKEST ? (sum.map((value) => value / luminance) as typeof sum) : null;
}

/** The box of a product in a frame: its width and middle by its sides at several heights, its foot and top by level edges. */
function outlineInFrame(
  set: SetDocument,
  hero: Product,
  [plan, frame]: readonly [GreyPicture, GreyPicture],
  bands: readonly MirrorBand[],
  edges: readonly MeasuredEdge[],
): FrameFigures['outline'] {
  const planned = outlineOf(viewOf(set.camera), productShape(hero).flat());
  const sides = bands.flatMap(({ heightM, left, right }) => {
    const at = (place: number) =>
      edges.find(
        (edge) =>
          edge.heightM === heightM && edge.plan === place && (place === 0 ? edge.left : edge.right) === null,
      );
    const [l, r] = [at(0), at(1)];
    return l && r
      ? [{ larger: 1 + r.by - l.by, right: ((l.by + r.by) / 2) * (right - left), wide: right - left }]
      : [];
  });
  const across = sides.length < FEWEST_HEIGHTS ? acrossMiddle(planned, plan, frame) : acrossHeights(sides);
  if (!across) return null;
  const { larger, right: byAcross } = across;
  const middle = (planned.left + planned.right) / 2 + byAcross;
  const half = (larger * (planned.right - planned.left)) / 2;
  const tall = (planned.bottom - planned.top) * plan.height;
  const turned = [onItsSide(plan), onItsSide(frame)] as const;
  const column = (planned.left + planned.right) / 2;
  const levelMoved = (at: number) => edgeMoved(...turned, column * plan.width, at * plan.height, tall);
  const [foot, top] = [levelMoved(planned.bottom), levelMoved(planned.top)];
  if (foot === null && top === null) return null;
  const high = larger * (planned.bottom - planned.top);
  const bottom =
    foot === null ? planned.top + (top as number) / plan.height + high : planned.bottom + foot / plan.height;
  return {
    left: middle - half,
    right: middle + half,
    bottom,
    top: top === null ? bottom - high : planned.top + top / plan.height,
  };
}

/** How much larger a product is than planned, and how much further right, parts of the frame. */
interface Across {
  larger: number;
  right: number;
}

const acrossHeights = (sides: readonly Across[]): Across => ({
  larger: median(sides.map(({ larger }) => larger)),
  right: median(sides.map(({ right }) => right)),
});

/** Seen from above a product has no bands: its sides on the row through its middle. */
function acrossMiddle(
  { left, right, top, bottom }: NonNullable<FrameFigures['outline']>,
  plan: GreyPicture,
  frame: GreyPicture,
): Across | null {
  const wide = (right - left) * plan.width;
  const moved = (at: number) =>
    edgeMoved(plan, frame, ((top + bottom) / 2) * plan.height, at * plan.width, wide);
  const [l, r] = [moved(left), moved(right)];
  if (l === null || r === null) return null;
  return { larger: 1 + (r - l) / wide, right: (l + r) / 2 / plan.width };
}

/** As many heights tell where an image lies. */
const FEWEST_IMAGES = 3;

/** Images of lights and sheets of which both ends were found at several heights: the middle of where they are. */
function highlightsOf(
  set: SetDocument,
  bands: readonly MirrorBand[],
  edges: readonly MeasuredEdge[],
): FrameFigures['highlights'] {
  const found = bands.flatMap(({ heightM, lengths }) => {
    const here = edges.filter((edge) => edge.heightM === heightM);
    const at = (place: number) => here.find((edge) => Math.abs(edge.plan - place) < 1e-9);
    const [l, r] = [at(0), at(1)];
    if (!l || !r) return [];
    // As parts of what is visible in the frame.
    const inFrame = ({ plan, by }: MeasuredEdge) => (plan + by - l.by) / (1 + r.by - l.by);
    return lengths.flatMap(({ kind, what, from, to }) => {
      const [a, b] = [at(from), at(to)];
      return (kind === 'light' || kind === 'sheet') && what !== null && a && b && a !== l && b !== r
        ? [{ kind, tag: what, from: inFrame(a), to: inFrame(b) }]
        : [];
    });
  });
  return [...new Set(found.map(({ kind, tag }) => `${kind} ${tag}`))]
    .flatMap((key) => {
      const own = found.filter(({ kind, tag }) => `${kind} ${tag}` === key);
      const [one] = own;
      if (!one || own.length < FEWEST_IMAGES) return [];
      const { kind, tag } = one;
      const name = (kind === 'light' ? set.lights : set.sheets).find((it) => it.tag === tag)?.name ?? tag;
      return [
        { kind, tag, name, from: median(own.map(({ from }) => from)), to: median(own.map(({ to }) => to)) },
      ];
    })
    .sort((a, b) => b.to - b.from - (a.to - a.from));
}
