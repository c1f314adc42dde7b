import type { Light, StandingLight } from '@fendrix/contract';
import { LRUCache } from 'lru-cache';
import { faceLuminance } from '../engine/faceLuminance.js';
import {
  BEAM,
  CELLS,
  CUTOFF_TAN,
  FIELD_TAN,
  HALF_WIDTH,
  HOT_CENTRE,
  INNER,
  LUMINANCE_SCALE,
  NO_CELLS,
  PROJECTED,
} from '../engine/layouts.js';
import { SceneTables } from '../engine/tables.js';
import { type Emitter, faceOf, faceShape, type IntensityTable, MEAN_PROFILE } from './emitter.js';
import { intensityTimeFromGuideNumberCdS } from './guideNumber.js';
import { packEmitters } from './packEmitters.js';

export interface LightLuminance {
  /** Flash is given as luminance times time. */
  time: 'flash' | 'continuous';
  /** Mean over the face seen straight on, at the power set: cd s/m2 for flash, cd/m2 for continuous light. */
  luminance: number;
  /** Of the modelling lamp of a flash, on the same face, cd/m2; 0 without one. */
  modellingCdM2: number;
}

/** Luminance of a light's face from its output and power; what a film of unit luminance is multiplied by. */
export function lightLuminance(light: Light): LightLuminance {
  const { output } = light;
  const power = 2 ** (light.powerStops * dialGives(light) - lossStops(light));
  const time =
    output.kind === 'flash-energy' || output.kind === 'guide-number' || output.kind === 'flash-exposure'
      ? 'flash'
      : 'continuous';
  const modelling = 'modelling' in light && light.modelling?.on ? light.modelling.lumens : 0;
  return {
    time,
    luminance: power * fullLuminance(light),
    modellingCdM2:
      modelling > 0 && light.kind !== 'surround' ? fromFlux(light, modelling) * 2 ** -lossStops(light) : 0,
  };
}

/** Stops of light that a stop of a light's dial gives: 1 where it was not calibrated. */
export const dialGives = ({ dial }: Light): number => dial?.givesPart ?? 1;

/** What gels and polarising film take, stops. */
function lossStops(light: Light): number {
  const gels = light.colour?.gels.reduce((sum, gel) => sum + gel.lossStops, 0) ?? 0;
  return gels + ('polarised' in light ? (light.polarised?.lossStops ?? 0) : 0);
}

function fullLuminance(light: Light): number {
  const { output } = light;
  if (output.kind === 'luminance') return output.luminanceCdM2;
  if (light.kind === 'surround') return Number.NaN;
  switch (output.kind) {
    case 'flash-energy':
      return fromFlux(light, output.energyJ * output.efficacyLmSPerJ * output.modifierEfficiency);
    case 'lumens':
      return fromFlux(light, output.lumens * output.modifierEfficiency);
    case 'guide-number':
      return intensityTimeFromGuideNumberCdS(output.guideNumberM) / straightOnArea(light);
    case 'flash-exposure':
      return output.luxSecondsAt1M / onAxisLx(light, 1);
    case 'illuminance':
      return output.luxAt1M / onAxisLx(light, 1);
  }
}

/**
 * Mean luminance straight on from the flux that leaves the modifier, spread by the light's own beam.
 * A grid counts after that: it takes its loss straight ahead and what lies outside its cells.
 */
function fromFlux(light: StandingLight, flux: number): number {
  const luminance = flux / fluxOfUnit(light);
  return 'grid' in light && light.grid ? luminance * 2 ** -light.grid.lossStops : luminance;
}

/** Flux that leaves a light whose mean luminance straight on is 1 cd/m2, before any grid, lm. */
export function fluxOfUnit(light: StandingLight): number {
  return once('flux', light, () => integrateFlux(light));
}

/**
 * Figures of a light's form: the same wherever it stands and however it burns. Asked for at every frame of a drag,
 * integrated once.
 */
const known = new LRUCache<string, number>({ max: 500 });

function once(figure: string, light: StandingLight, integrate: () => number): number {
  const key = `${figure} ${JSON.stringify(light, formOnly)} ${facingOf(light)}`;
  const found = known.get(key);
  if (found !== undefined) return found;
  const value = integrate();
  known.set(key, value);
  return value;
}

/** Fields that tell nothing of a light's form. */
const NOT_FORM = new Set(
  'tag name positionM aimM rollDeg output powerStops on dial colour modelling polarised duration stand'.split(
    ' ',
  ),
);

const formOnly = (field: string, value: unknown): unknown => (NOT_FORM.has(field) ? undefined : value);

/** An overcast sky is brighter overhead: of a window alone it matters which way it faces. */
function facingOf(light: StandingLight): string {
  if (light.kind !== 'window') return '';
  return JSON.stringify([
    light.positionM.map((value, a) => (light.aimM[a] as number) - value),
    light.rollDeg,
  ]);
}

function integrateFlux(light: StandingLight): number {
  if (light.kind === 'bare-lamp' || light.kind === 'table-lamp') return 4 * Math.PI * straightOnArea(light);
  if (light.kind === 'tube') return Math.PI ** 2 * light.diameterM * light.lengthM;
  const face = faceOf(light, 0);
  if (face.data[CELLS] !== NO_CELLS && light.kind !== 'snoot') {
    face.data[CELLS] = NO_CELLS;
    face.data[CUTOFF_TAN] = 0;
  }
  const both = light.kind === 'umbrella' ? 1 + light.backShare : 1;
  return faceShape(light).areaM2 * beamIntegral(face) * both;
}

/** Luminous area seen from afar straight on, m2. */
function straightOnArea(light: StandingLight): number {
  if (light.kind === 'bare-lamp' || light.kind === 'table-lamp') return Math.PI * light.radiusM ** 2;
  if (light.kind === 'tube') return light.lengthM * light.diameterM;
  return faceShape(light).areaM2;
}

const BEAM_STEPS = 256;
const TABLE_STEPS = 32;

/**
 * Integral of relative luminance times cosine over all directions, sr; pi for an even face.
 * Of a projector with its gobo taken out. Midpoint rule, even in sin^2, 256 x 256 directions; measured intensities
 * within each step of their table.
 */
function beamIntegral(face: Emitter): number {
  if (face.table) return tableIntegral(face.table);
  if (face.data[BEAM] === PROJECTED) {
    const tangent = face.data[FIELD_TAN] as number;
    return (Math.PI * tangent * tangent) / (1 + tangent * tangent);
  }
  const even: Emitter = { ...face, data: Float64Array.from(face.data) };
  const hot = face.data[HOT_CENTRE] as number;
  even.data[LUMINANCE_SCALE] =
    (face.data[LUMINANCE_SCALE] as number) * (1 + hot * (MEAN_PROFILE[face.data[0] as number] as number));
  even.data[HOT_CENTRE] = 0;
  const inner = face.data[INNER] as number;
  const x = inner > 0 ? ((1 + inner) / 2) * (face.data[HALF_WIDTH] as number) : 0;
  const tables = alone(even);
  let sum = 0;
  for (let i = 0; i < BEAM_STEPS; i++) {
    const sine = Math.sqrt((i + 0.5) / BEAM_STEPS);
    const wz = Math.sqrt(1 - sine * sine);
    for (let j = 0; j < BEAM_STEPS; j++) {
      const phi = (2 * Math.PI * (j + 0.5)) / BEAM_STEPS;
      sum += faceLuminance(tables, 0, x, 0, sine * Math.cos(phi), sine * Math.sin(phi), wz);
    }
  }
  return (Math.PI * sum) / BEAM_STEPS ** 2;
}

/** Integral of measured intensities over the front, by the midpoint rule within each step of both angles, sr. */
function tableIntegral({ verticalRad, horizontalRad, value }: IntensityTable): number {
  const columns = verticalRad.length;
  const rows = horizontalRad.length;
  // Mean over the horizontal angles of each column; angles stand for a quarter, half or whole turn alike.
  const around = Float64Array.from({ length: columns }, (_, column) => {
    if (rows === 1) return value[column] as number;
    let sum = 0;
    for (let row = 1; row < rows; row++) {
      const step = (horizontalRad[row] as number) - (horizontalRad[row - 1] as number);
      sum +=
        (step *
          ((value[(row - 1) * columns + column] as number) + (value[row * columns + column] as number))) /
        2;
    }
    return sum / ((horizontalRad[rows - 1] as number) - (horizontalRad[0] as number));
  });
  let whole = 0;
  for (let column = 1; column < columns; column++) {
    const from = verticalRad[column - 1] as number;
    const to = Math.min(Math.PI / 2, verticalRad[column] as number);
    const step = (to - from) / TABLE_STEPS;
    for (let i = 0; i < TABLE_STEPS && step > 0; i++) {
      const angle = from + (i + 0.5) * step;
      const part = (angle - from) / ((verticalRad[column] as number) - from);
      const intensity = (around[column - 1] as number) * (1 - part) + (around[column] as number) * part;
      whole += 2 * Math.PI * intensity * Math.sin(angle) * step;
    }
  }
  return whole;
}

/**
 * Illuminance on the axis of a light of unit luminance, hot centre, beam and grid included, lx.
 * Faces by the midpoint rule over 200 x 200 patches: within 0.01 % of the closed form for an even face at 1 m.
 */
export function onAxisLx(light: StandingLight, distanceM: number): number {
  return once(`axis ${distanceM}`, light, () => integrateOnAxis(light, distanceM));
}

function integrateOnAxis(light: StandingLight, distanceM: number): number {
  if (light.kind === 'bare-lamp' || light.kind === 'table-lamp')
    return straightOnArea(light) / distanceM ** 2;
  if (light.kind === 'tube') return tubeOnAxisLx(light.lengthM, light.diameterM, distanceM);
  const face = faceOf(light, 0);
  const { halfWidth, halfHeight } = faceShape(light);
  const tables = alone(face);
  const steps = 200;
  const patch = (4 * halfWidth * halfHeight) / steps ** 2;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const x = 2 * halfWidth * ((i + 0.5) / steps - 0.5);
    for (let j = 0; j < steps; j++) {
      const y = 2 * halfHeight * ((j + 0.5) / steps - 0.5);
      const squared = x * x + y * y + distanceM * distanceM;
      const away = Math.sqrt(squared);
      const value = faceLuminance(tables, 0, x, y, -x / away, -y / away, distanceM / away);
      sum += (value * distanceM * distanceM * patch) / (squared * squared);
    }
  }
  return sum;
}

/** Strip of the tube's width facing the meter: exact for a thin tube. */
function tubeOnAxisLx(lengthM: number, diameterM: number, distanceM: number): number {
  const half = lengthM / 2;
  const reach = half / Math.hypot(half, distanceM);
  // Integral of cos^2 / r^2 along the line: (angle + sin cos) / d.
  const angle = Math.atan(half / distanceM);
  return (diameterM * (angle + reach * Math.cos(angle))) / distanceM;
}

/** Tables that hold one emitter. */
function alone(emitter: Emitter): SceneTables {
  const tables = new SceneTables();
  packEmitters(tables, [emitter]);
  return tables;
}
