import { normalsAt } from '../geometry/normal.js';
import { extentOf, isOnPanel, placeOnPanel, pointOnPanel } from '../geometry/pattern.js';
import { CONE, FLAT, type PrimitiveTable, STRIDE } from '../geometry/primitives.js';
import type { Scene } from '../geometry/scene.js';
import { CLOTH, COATED, MATTE, TRANSLUCENT } from '../geometry/surface.js';

/**
 * Lit sheets: every matte or translucent sheet, board, backdrop, bench and wall keeps the light that falls on it on
 * a grid of patches, for each film. Paths end there once they have scattered, and bright patches are sampled like
 * lamps. What the lens sees itself, directly or in mirrors and glass, is never taken from the grid.
 */
export interface LitSheets {
  /** For 2 x primitive + (0 front, 1 back) the panel, -1 where there is none. */
  panelAt: Int32Array;
  /** Of each panel: primitive, 0 front or 1 back, patches across and up, first patch, other side's panel or -1. */
  panels: Panel[];
  patches: number;
  channels: number;
  /** Irradiance at unit luminance, lx per cd/m2: [(patch * channels + channel) * 3 + colour]. */
  irradiance: Float32Array;
  /** Bright panels for light sampling, see `brightPanels`. */
  bright: BrightPanels;
}

export interface Panel {
  primitive: number;
  side: 0 | 1;
  across: number;
  up: number;
  first: number;
  other: number;
  areaM2: number;
}

export interface BrightPanels {
  /** Panels that are sampled. */
  panel: Int32Array;
  /** Flux of each, for the choice among them. */
  power: Float64Array;
  /** Middle, 3 a panel, and squared reach from there, m2. */
  middle: Float64Array;
  reach2: Float64Array;
  /** For each panel the running sum of the patch weights, by `Panel.first`; 1 at the end. */
  cumulative: Float64Array;
  /** Place of a panel in these lists, -1 for one that is not sampled. */
  placeOf: Int32Array;
}

/** Wanted size of a patch, m: finer on small sheets, coarser on walls. */
const PATCHES_ALONG = 7;
const LEAST_PATCH_M = 0.025;
const MOST_PATCH_M = 0.3;
const MOST_ALONG = 14;

/** Lays out the panels of a scene, dark for now. */
export function layOutSheets(scene: Scene): LitSheets {
  const { table, things, surfaces } = scene;
  const panelAt = new Int32Array(2 * table.count).fill(-1);
  const panels: Panel[] = [];
  let patches = 0;
  for (let primitive = 0; primitive < table.count; primitive++) {
    const kind = table.kind[primitive];
    if (kind !== FLAT && kind !== CONE) continue;
    const thing = things[table.thing[primitive] as number];
    if (thing === undefined || thing.kind === 'product') continue;
    const { width, height } = extentOf(table, primitive);
    const across = patchesAlong(width);
    const up = patchesAlong(height);
    const sides: (0 | 1)[] = thing.kind === 'room' ? [0] : [0, 1];
    const made: number[] = [];
    for (const side of sides) {
      if (side === 0 && (table.emitter[primitive] as number) >= 0) continue;
      const surface = surfaces[(side === 0 ? table.front : table.back)[primitive] as number];
      if (surface === undefined || !takesLight(surface.kind)) continue;
      made.push(panels.length);
      panelAt[2 * primitive + side] = panels.length;
      panels.push({ primitive, side, across, up, first: patches, other: -1, areaM2: width * height });
      patches += across * up;
    }
    if (made.length === 2) {
      (panels[made[0] as number] as Panel).other = made[1] as number;
      (panels[made[1] as number] as Panel).other = made[0] as number;
    }
  }
  const channels = scene.channelCount;
  return {
    panelAt,
    panels,
    patches,
    channels,
    irradiance: new Float32Array(patches * channels * 3),
    bright: noBrightPanels(panels.length, patches),
  };
}

function takesLight(kind: number): boolean {
  return kind === MATTE || kind === COATED || kind === CLOTH || kind === TRANSLUCENT;
}

function patchesAlong(lengthM: number): number {
  const size = Math.min(MOST_PATCH_M, Math.max(LEAST_PATCH_M, lengthM / PATCHES_ALONG));
  return Math.max(1, Math.min(MOST_ALONG, Math.round(lengthM / size)));
}

const place = new Float64Array(2);

/** Patch that a point lies in. */
export function patchAt(
  lit: LitSheets,
  table: PrimitiveTable,
  panelIndex: number,
  point: Float64Array,
): number {
  const panel = lit.panels[panelIndex] as Panel;
  placeOnPanel(place, table, panel.primitive, point);
  const i = Math.max(0, Math.min(panel.across - 1, Math.floor((place[0] as number) * panel.across)));
  const j = Math.max(0, Math.min(panel.up - 1, Math.floor((place[1] as number) * panel.up)));
  return panel.first + j * panel.across + i;
}

/**
 * Irradiance of all films at a point of a panel, bilinear between the patches' middles.
 * @param out [channel * 3 + colour] of `lit.channels`
 */
export function irradianceAt(
  out: Float64Array,
  lit: LitSheets,
  table: PrimitiveTable,
  panelIndex: number,
  point: Float64Array,
): void {
  const panel = lit.panels[panelIndex] as Panel;
  placeOnPanel(place, table, panel.primitive, point);
  const x = Math.max(0, Math.min(panel.across - 1, (place[0] as number) * panel.across - 0.5));
  const y = Math.max(0, Math.min(panel.up - 1, (place[1] as number) * panel.up - 0.5));
  const i0 = Math.floor(x);
  const j0 = Math.floor(y);
  const i1 = Math.min(panel.across - 1, i0 + 1);
  const j1 = Math.min(panel.up - 1, j0 + 1);
  const fx = x - i0;
  const fy = y - j0;
  const size = lit.channels * 3;
  const e = lit.irradiance;
  const p00 = (panel.first + j0 * panel.across + i0) * size;
  const p10 = (panel.first + j0 * panel.across + i1) * size;
  const p01 = (panel.first + j1 * panel.across + i0) * size;
  const p11 = (panel.first + j1 * panel.across + i1) * size;
  const w00 = (1 - fx) * (1 - fy);
  const w10 = fx * (1 - fy);
  const w01 = (1 - fx) * fy;
  const w11 = fx * fy;
  for (let c = 0; c < size; c++) {
    out[c] =
      w00 * (e[p00 + c] as number) +
      w10 * (e[p10 + c] as number) +
      w01 * (e[p01 + c] as number) +
      w11 * (e[p11 + c] as number);
  }
}

/** Patches this many times as bright as the mean are worth sampling. */
const BRIGHT = 3;

function noBrightPanels(panels: number, patches: number): BrightPanels {
  return {
    panel: new Int32Array(0),
    power: new Float64Array(0),
    middle: new Float64Array(0),
    reach2: new Float64Array(0),
    cumulative: new Float64Array(patches),
    placeOf: new Int32Array(panels).fill(-1),
  };
}

/**
 * Finds the panels that hold patches much brighter than the mean, from their radiosity over all films together,
 * each film taken relative to its own mean.
 * @param radiosity what leaves each patch towards its side, [(patch * channels + channel) * 3 + colour]
 */
export function brightPanels(lit: LitSheets, table: PrimitiveTable, radiosity: Float32Array): BrightPanels {
  const { panels, patches, channels } = lit;
  const brightness = new Float64Array(patches);
  const areas = new Float64Array(patches);
  for (const panel of panels) {
    const n = panel.across * panel.up;
    for (let i = 0; i < n; i++) areas[panel.first + i] = panel.areaM2 / n;
  }
  const whole = areas.reduce((sum, area) => sum + area, 0);
  for (let channel = 0; channel < channels; channel++) {
    let mean = 0;
    const grey = (patch: number) => {
      const at = (patch * channels + channel) * 3;
      return (radiosity[at] as number) + (radiosity[at + 1] as number) + (radiosity[at + 2] as number);
    };
    for (let patch = 0; patch < patches; patch++) mean += (grey(patch) * (areas[patch] as number)) / whole;
    if (!(mean > 0)) continue;
    for (let patch = 0; patch < patches; patch++) {
      brightness[patch] = (brightness[patch] as number) + grey(patch) / mean;
    }
  }
  const bright = noBrightPanels(panels.length, patches);
  const chosen: number[] = [];
  const power: number[] = [];
  const middle: number[] = [];
  const reach2: number[] = [];
  const point = new Float64Array(3);
  panels.forEach((panel, index) => {
    const n = panel.across * panel.up;
    let most = 0;
    let sum = 0;
    for (let i = 0; i < n; i++) {
      const value = brightness[panel.first + i] as number;
      most = Math.max(most, value);
      sum += value;
    }
    if (!(most > BRIGHT * channels)) return;
    bright.placeOf[index] = chosen.length;
    chosen.push(index);
    power.push((sum * panel.areaM2) / n);
    pointOnPanel(point, table, panel.primitive, 0.5, 0.5);
    middle.push(...point);
    let reach = 0;
    for (const [a, b] of [
      [0, 0],
      [0, 1],
      [1, 0],
      [1, 1],
    ] as const) {
      pointOnPanel(corner, table, panel.primitive, a, b);
      reach = Math.max(
        reach,
        Math.hypot(...[0, 1, 2].map((i) => (corner[i] as number) - (point[i] as number))),
      );
    }
    reach2.push(reach * reach);
    let running = 0;
    for (let i = 0; i < n; i++) {
      running += (brightness[panel.first + i] as number) / sum;
      bright.cumulative[panel.first + i] = running;
    }
    bright.cumulative[panel.first + n - 1] = 1;
  });
  return {
    ...bright,
    panel: Int32Array.from(chosen),
    power: Float64Array.from(power),
    middle: Float64Array.from(middle),
    reach2: Float64Array.from(reach2),
  };
}

const corner = new Float64Array(3);

/** Samples a place on a bright panel from a point, and knows the density of having done so. */
export interface SheetSampler {
  /** Makes ready for a point; false where no bright panel can be seen from there. */
  look(point: Float64Array): boolean;
  /**
   * @param choice, uv three numbers from 0 to 1
   * @param out 0-2 direction, 3 distance m, 4 density per sr
   * @returns the panel, or -1 when the place sampled cannot shine here
   */
  sample(out: Float64Array, choice: number, uv: Float64Array): number;
  /** Point sampled last, and the cosine there towards the point looked from. */
  readonly target: Float64Array;
  cosine(): number;
  /** Density per sr, from the point made ready, of a direction that hits a panel at a point and distance. */
  pdf(panelIndex: number, target: Float64Array, direction: Float64Array, distance: number): number;
}

export function createSheetSampler(lit: LitSheets, table: PrimitiveTable): SheetSampler {
  const { bright, panels } = lit;
  const count = bright.panel.length;
  const chance = new Float64Array(count);
  const from = new Float64Array(3);
  const target = new Float64Array(3);
  const normals = new Float64Array(6);
  let total = 0;
  let facingCosine = 1;

  function look(point: Float64Array): boolean {
    total = 0;
    for (let a = 0; a < 3; a++) from[a] = point[a] as number;
    for (let i = 0; i < count; i++) {
      const dx = (bright.middle[3 * i] as number) - (point[0] as number);
      const dy = (bright.middle[3 * i + 1] as number) - (point[1] as number);
      const dz = (bright.middle[3 * i + 2] as number) - (point[2] as number);
      let weight = (bright.power[i] as number) / (dx * dx + dy * dy + dz * dz + (bright.reach2[i] as number));
      const panel = panels[bright.panel[i] as number] as Panel;
      if (table.kind[panel.primitive] === FLAT) {
        const o = panel.primitive * STRIDE;
        const d = table.data;
        const towards = dx * (d[o + 9] as number) + dy * (d[o + 10] as number) + dz * (d[o + 11] as number);
        if ((panel.side === 0 ? towards : -towards) >= 0) weight = 0;
      }
      chance[i] = weight;
      total += weight;
    }
    return total > 0;
  }

  function sample(out: Float64Array, choice: number, uv: Float64Array): number {
    let left = choice * total;
    let i = 0;
    while (i < count - 1 && left >= (chance[i] as number)) {
      left -= chance[i] as number;
      i++;
    }
    const panelIndex = bright.panel[i] as number;
    const panel = panels[panelIndex] as Panel;
    const n = panel.across * panel.up;
    const u = uv[0] as number;
    // The patch by bisection of the running sum.
    let low = 0;
    let high = n - 1;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((bright.cumulative[panel.first + middle] as number) > u) high = middle;
      else low = middle + 1;
    }
    const before = low === 0 ? 0 : (bright.cumulative[panel.first + low - 1] as number);
    const share = (bright.cumulative[panel.first + low] as number) - before;
    const a = ((low % panel.across) + (u - before) / share) / panel.across;
    const b = (Math.floor(low / panel.across) + (uv[1] as number)) / panel.up;
    if (!isOnPanel(table, panel.primitive, a, b)) return -1;
    pointOnPanel(target, table, panel.primitive, a, b);
    let squared = 0;
    for (let k = 0; k < 3; k++) {
      out[k] = (target[k] as number) - (from[k] as number);
      squared += (out[k] as number) ** 2;
    }
    const distance = Math.sqrt(squared);
    if (!(distance > 1e-6)) return -1;
    for (let k = 0; k < 3; k++) out[k] = (out[k] as number) / distance;
    out[3] = distance;
    out[4] = density(i, panel, share, b, out, distance);
    return (out[4] as number) > 0 ? panelIndex : -1;
  }

  function pdf(panelIndex: number, at: Float64Array, direction: Float64Array, distance: number): number {
    const i = bright.placeOf[panelIndex] as number;
    if (i < 0) return 0;
    const panel = panels[panelIndex] as Panel;
    placeOnPanel(place, table, panel.primitive, at);
    const column = Math.max(0, Math.min(panel.across - 1, Math.floor((place[0] as number) * panel.across)));
    const row = Math.max(0, Math.min(panel.up - 1, Math.floor((place[1] as number) * panel.up)));
    const patch = row * panel.across + column;
    const before = patch === 0 ? 0 : (bright.cumulative[panel.first + patch - 1] as number);
    const share = (bright.cumulative[panel.first + patch] as number) - before;
    for (let k = 0; k < 3; k++) target[k] = at[k] as number;
    return density(i, panel, share, place[1] as number, direction, distance);
  }

  /** Chance of the panel and patch over the patch's area there, turned to solid angle. */
  function density(
    i: number,
    panel: Panel,
    share: number,
    b: number,
    direction: Float64Array,
    distance: number,
  ): number {
    normalsAt(normals, table, panel.primitive, target);
    const facing =
      (normals[0] as number) * (direction[0] as number) +
      (normals[1] as number) * (direction[1] as number) +
      (normals[2] as number) * (direction[2] as number);
    const cosine = panel.side === 0 ? -facing : facing;
    if (!(cosine > 1e-6)) return 0;
    facingCosine = Math.min(1, cosine);
    const n = panel.across * panel.up;
    const perArea = ((chance[i] as number) / total) * share * n;
    return (perArea * distance * distance) / (cosine * panel.areaM2 * narrowing(panel.primitive, b));
  }

  /** Area of a stretch of a cone at a height over that at its middle. */
  function narrowing(primitive: number, b: number): number {
    if (table.kind[primitive] !== CONE) return 1;
    const d = table.data;
    const o = primitive * STRIDE;
    const slope = (d[o + 8] as number) * (d[o + 6] as number);
    const foot = d[o + 7] as number;
    return (foot + b * slope) / (foot + slope / 2);
  }

  return { look, sample, target, cosine: () => facingCosine, pdf };
}
