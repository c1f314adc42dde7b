import type { Camera, MaskArea, MaskPiece, Plate } from '@fendrix/contract';
import type { Thing } from '../geometry/scene.js';
import { pointBlur } from '../optics/depthDesk.js';
import { type PartMap, partCode, thingOfPart, withinThing } from './partMap.js';

/** The part of the frame that a mask covers, parts of the frame. */
export interface MaskWindow {
  left: number;
  top: number;
  width: number;
  height: number;
}

export const WHOLE_MASK: MaskWindow = { left: 0, top: 0, width: 1, height: 1 };

/** Cameras of frames that are put together by sharpness: of the set as it stands, then of each plate with such a piece. */
export const stackedCameras = (
  base: Camera,
  plates: readonly (Pick<Plate, 'mask'> & { camera: Camera })[],
): Camera[] => [
  base,
  ...plates.filter(({ mask }) => mask.some(({ area }) => area.by === 'sharpest')).map(({ camera }) => camera),
];

/** A mask as values of 16 bits, straight: half of it is half of the value. */
export const encodeMask16 = (mask: Float32Array): Uint16Array =>
  Uint16Array.from(mask, (part) => Math.round(65535 * part));

/** What masks are made from: what is seen where, and the cameras of frames that are put together by sharpness. */
export interface MaskGround {
  map: PartMap;
  things: readonly Thing[];
  window: MaskWindow;
  /** Width over height of the whole frame. */
  aspect: number;
  /** See `stackedCameras`: this plate's own among them. */
  cameras: readonly Camera[];
}

/**
 * How much of a plate goes into the picture, 0 to 1 a pixel of the map: pieces one after the other, then the feather.
 * A first piece that leaves out is taken from the whole.
 * @param camera with which the plate is taken
 */
export function plateMask(
  ground: MaskGround,
  plate: Pick<Plate, 'mask' | 'featherPart'>,
  camera: Camera,
): Float32Array {
  const { map, window } = ground;
  const mask = new Float32Array(map.width * map.height);
  const [first] = plate.mask;
  if (!first || first.leaveOut) mask.fill(1);
  for (const piece of plate.mask) addPiece(mask, ground, piece, camera);
  const radius = (plate.featherPart * map.width) / window.width;
  // A mask without an edge has nothing to fade.
  if (plate.mask.length > 0) feather(mask, map.width, map.height, radius);
  return mask;
}

function addPiece(
  mask: Float32Array,
  ground: MaskGround,
  { area, leaveOut }: MaskPiece,
  camera: Camera,
): void {
  const takes = takerOf(ground, area, camera);
  for (let i = 0; i < mask.length; i++) {
    const own = takes(i);
    const before = mask[i] as number;
    mask[i] = leaveOut ? Math.min(before, 1 - own) : Math.max(before, own);
  }
}

/** How much of each pixel an area takes. */
function takerOf(ground: MaskGround, area: MaskArea, camera: Camera): (pixel: number) => number {
  const { map, things } = ground;
  const ofThings = (wanted: (thing: Thing) => boolean) => {
    const held = things.map(wanted);
    return (pixel: number) => (held[thingOfPart(map.part[pixel] as number)] ? 1 : 0);
  };
  switch (area.by) {
    case 'products':
      return ofThings(({ kind }) => kind === 'product');
    case 'thing':
      return ofThings(({ kind, key }) => kind === area.kind && (kind === 'backdrop' || key === area.key));
    case 'part': {
      const thing = things.findIndex(({ kind, key }) => kind === 'product' && key === area.product);
      const wanted = withinThing(partCode(0, area.part, area.index));
      return (pixel) => {
        const own = map.part[pixel] as number;
        return thingOfPart(own) === thing && withinThing(own) === wanted ? 1 : 0;
      };
    }
    case 'gradient':
      return gradient(ground, area);
    case 'brush':
      return brush(ground, area);
    case 'sharpest':
      return sharpest(ground, camera);
  }
}

/** Where a pixel's middle lies, in widths of the frame. */
function placeOf({ map, window, aspect }: MaskGround) {
  return {
    x: (pixel: number) => window.left + (window.width * ((pixel % map.width) + 0.5)) / map.width,
    y: (pixel: number) =>
      (window.top + (window.height * (Math.floor(pixel / map.width) + 0.5)) / map.height) / aspect,
  };
}

/** Evenly from nothing to all, the same across the line between the two places. */
function gradient(ground: MaskGround, { fromPoint, toPoint }: MaskArea & { by: 'gradient' }) {
  const { x, y } = placeOf(ground);
  const [dx, dy] = [toPoint.across - fromPoint.across, (toPoint.down - fromPoint.down) / ground.aspect];
  const long = dx * dx + dy * dy;
  if (long === 0) return () => 1;
  return (pixel: number) => {
    const part =
      ((x(pixel) - fromPoint.across) * dx + (y(pixel) - fromPoint.down / ground.aspect) * dy) / long;
    return Math.max(0, Math.min(1, part));
  };
}

function brush(ground: MaskGround, { strokes }: MaskArea & { by: 'brush' }) {
  const { map, window, aspect } = ground;
  const painted = new Uint8Array(map.width * map.height);
  const { x, y } = placeOf(ground);
  const column = (across: number) => ((across - window.left) / window.width) * map.width;
  const row = (down: number) => ((down - window.top) / window.height) * map.height;
  const limited = (value: number, most: number) => Math.max(0, Math.min(most, value));
  for (const { across, down, radius } of strokes) {
    const high = radius * aspect;
    const right = limited(Math.ceil(column(across + radius)), map.width);
    const bottom = limited(Math.ceil(row(down + high)), map.height);
    for (let j = limited(Math.floor(row(down - high)), map.height); j < bottom; j++) {
      for (let i = limited(Math.floor(column(across - radius)), map.width); i < right; i++) {
        const pixel = j * map.width + i;
        if (Math.hypot(x(pixel) - across, y(pixel) - down / aspect) <= radius) painted[pixel] = 1;
      }
    }
  }
  return (pixel: number) => painted[pixel] as number;
}

/** Depths of a set are told apart in steps of this part: blur changes by less than what can be seen. */
const DEPTH_STEP = 1e-3;

/** Where no other camera has less blur; where two have the same, the first one has it. Nothing where nothing is seen. */
function sharpest({ map, cameras }: MaskGround, camera: Camera) {
  const own = cameras.indexOf(camera);
  const known = new Map<number, number>();
  const best = (depthM: number) => {
    const step = Math.round(Math.log(depthM) / DEPTH_STEP);
    let found = known.get(step);
    if (found === undefined) {
      const blur = cameras.map((one) => pointBlur(one, depthM).totalM);
      found = blur.indexOf(Math.min(...blur));
      known.set(step, found);
    }
    return found;
  };
  return (pixel: number) => {
    const depthM = map.depth[pixel] as number;
    return !Number.isNaN(depthM) && best(depthM) === own ? 1 : 0;
  };
}

/** Times a mask is evened out: three even windows come near a bell, and end. */
const PASSES = 3;

/**
 * Fades a mask's edges over a radius to either side: 0 and 1 are left where no edge is nearer. Below three pixels it still
 * reaches the third, faintly. The border counts as what lies at it.
 */
export function feather(mask: Float32Array, width: number, height: number, radiusPx: number): void {
  const reach = radiusPx / PASSES;
  if (!(reach > 0.05)) return;
  const line = new Float32Array(Math.max(width, height));
  for (let pass = 0; pass < PASSES; pass++) {
    for (let y = 0; y < height; y++) evenOut(mask, line, y * width, 1, width, reach);
    for (let x = 0; x < width; x++) evenOut(mask, line, x, width, height, reach);
  }
}

/** Mean over `reach` to either side of each pixel's middle, the pixels at both ends in part. */
function evenOut(
  mask: Float32Array,
  line: Float32Array,
  first: number,
  stride: number,
  count: number,
  reach: number,
): void {
  for (let i = 0; i < count; i++) line[i] = mask[first + i * stride] as number;
  // A pixel reaches half a pixel to either side of its middle.
  const whole = Math.floor(reach);
  const ends = reach - whole;
  const at = (i: number) => line[Math.max(0, Math.min(count - 1, i))] as number;
  let sum = 0;
  for (let i = -whole; i <= whole; i++) sum += at(i);
  const all = 2 * reach + 1;
  for (let i = 0; i < count; i++) {
    mask[first + i * stride] = (sum + ends * (at(i - whole - 1) + at(i + whole + 1))) / all;
    sum += at(i + whole + 1) - at(i - whole);
  }
}
