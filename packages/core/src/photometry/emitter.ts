import type { AimedLight, LightOf, OpaqueMaterial, StandingLight } from '@fendrix/contract';
import { aimFrame } from '../geometry/frame.js';
import { radians } from '../units/angle.js';
import { normalise } from '../units/vector.js';
import { drawGobo, type GoboRaster } from './gobo.js';

/** Shapes of emitters. */
export const FACE = 0;
export const ROUND = 1;
export const OCTAGON_FACE = 2;
export const LAMP = 3;
export const TUBE = 4;
export const SUN = 5;

/** Special beams, see `faceLuminance`. */
export const PLAIN_BEAM = 0;
export const OVERCAST = 1;
export const PROJECTED = 2;
export const TABLE = 3;

/** Kinds of grid. */
export const NO_CELLS = 0;
export const SQUARE_CELLS = 1;
export const ROUND_CELLS = 2;

/** Places in the data of faces (FACE, ROUND, OCTAGON_FACE) after the frame. */
export const HALF_WIDTH = 12;
export const HALF_HEIGHT = 13;
export const HOT = 14;
export const SCALE = 15;
export const CUTOFF_TAN = 16;
export const CELLS = 17;
export const LOBE = 18;
export const BEAM = 19;
/** Inner radius over the outer one of a ROUND face. */
export const INNER = 20;
/** PROJECTED: distance of the sharp image, tangent of half the field. */
export const FOCUS = 21;
export const FIELD_TAN = 22;

/** Back and sides of a softbox, and what a lamp's inside would be. */
export const BLACK_CLOTH: OpaqueMaterial = { kind: 'matte', reflectance: 0.04 };

/** Angular radius of the sun, rad. */
export const SUN_RADIUS_RAD = radians(0.266);

/** Luminous intensities on a grid of angles. */
export interface IntensityTable {
  verticalRad: Float64Array;
  horizontalRad: Float64Array;
  /** Row for each horizontal angle, relative to straight ahead. */
  value: Float64Array;
}

/**
 * A light as sampled. Its luminance is scaled so that the mean over the face, seen straight on, is 1 cd/m2;
 * the true luminance is a factor on the film.
 *
 * data of faces  0-2 centre, 3-5 right, 6-8 up, 9-11 forward, then the places named above
 * data of LAMP   0-2 centre, 3 radius
 * data of TUBE   0-2 centre, 3-5 unit axis, 6 half length, 7 radius
 * data of SUN    the face of its window; luminance 1 within the sun's disc, 23-25 unit direction of its light
 */
export interface Emitter {
  kind: number;
  /** Film that this light adds to. */
  channel: number;
  data: Float64Array;
  gobo: GoboRaster | null;
  table: IntensityTable | null;
}

const SIZE = 26;

/** Emitters of a light that stands on set; all but the second of an umbrella or window have a face of their own. */
export function emittersOf(light: StandingLight, channel: number, sunChannel: number): Emitter[] {
  switch (light.kind) {
    case 'bare-lamp':
    case 'table-lamp':
      return [emitter(LAMP, channel, [...light.positionM, light.radiusM])];
    case 'tube': {
      const { right } = aimFrame(light.positionM, light.aimM, light.rollDeg);
      return [emitter(TUBE, channel, [...light.positionM, ...right, light.lengthM / 2, light.diameterM / 2])];
    }
    case 'umbrella': {
      const front = faceOf(light, channel);
      if (light.backShare === 0) return [front];
      const back: Emitter = { ...front, data: Float64Array.from(front.data) };
      for (let a = 0; a < 3; a++) {
        back.data[3 + a] = -(front.data[3 + a] as number);
        back.data[9 + a] = -(front.data[9 + a] as number);
      }
      back.data[SCALE] = (front.data[SCALE] as number) * light.backShare;
      return [front, back];
    }
    case 'window': {
      const face = faceOf(light, channel);
      if (!light.sun) return [face];
      const sun = { ...face, kind: SUN, channel: sunChannel, data: Float64Array.from(face.data) };
      sun.data.set(normalise(light.sun.towards), 23);
      return [face, sun];
    }
    default:
      return [faceOf(light, channel)];
  }
}

/** Luminous face of a light that has one. */
export function faceOf(light: FacedLight, channel: number): Emitter {
  const frame = aimFrame(light.positionM, light.aimM, light.rollDeg);
  const shape = faceShape(light);
  const face = emitter(shape.kind, channel, [
    ...light.positionM,
    ...frame.right,
    ...frame.up,
    ...frame.forward,
    shape.halfWidth,
    shape.halfHeight,
  ]);
  const d = face.data;
  const hotCentre = 'hotCentre' in light ? light.hotCentre : 1;
  d[HOT] = hotCentre - 1;
  d[SCALE] = 1 / (1 + (hotCentre - 1) * (MEAN_PROFILE[shape.kind] as number));
  d[INNER] = shape.inner;
  if ('grid' in light && light.grid) {
    d[CUTOFF_TAN] = Math.tan(radians(light.grid.cutoffDeg / 2));
    d[CELLS] = light.kind === 'dish' ? ROUND_CELLS : SQUARE_CELLS;
  }
  if ('beamDeg' in light) d[LOBE] = lobeExponent(light.beamDeg) - 1;
  switch (light.kind) {
    case 'snoot':
      d[CUTOFF_TAN] = Math.tan(radians(light.cutoffDeg / 2));
      d[CELLS] = ROUND_CELLS;
      break;
    case 'projector':
      d[BEAM] = PROJECTED;
      d[FOCUS] = light.focusM;
      d[FIELD_TAN] = Math.tan(radians(light.fieldDeg / 2));
      face.gobo = drawGobo(light.gobo);
      break;
    case 'window':
      if (light.sky === 'overcast') {
        d[BEAM] = OVERCAST;
        d[SCALE] = 1 / overcastLuminance(-frame.forward[2]);
      }
      break;
    case 'ies':
      d[BEAM] = TABLE;
      face.table = intensityTable(light);
      break;
    default:
  }
  return face;
}

/** A light with one flat luminous face. */
export type FacedLight = Exclude<AimedLight, LightOf<'tube'>>;

/** Mean of the hot-centre profile over a face: (1 - u^2)(1 - v^2), or 1 - rho^2 down to 0 on round ones. */
export const MEAN_PROFILE: readonly number[] = [
  4 / 9, // FACE
  0.5, // ROUND
  Math.PI / 2 / (8 * Math.tan(Math.PI / 8)), // OCTAGON_FACE
];

export interface FaceShape {
  kind: number;
  halfWidth: number;
  halfHeight: number;
  /** Inner over outer radius. */
  inner: number;
  areaM2: number;
}

/** Outline of the luminous face. */
export function faceShape(light: FacedLight): FaceShape {
  const rectangle = (width: number, height: number): FaceShape => ({
    kind: FACE,
    halfWidth: width / 2,
    halfHeight: height / 2,
    inner: 0,
    areaM2: width * height,
  });
  const round = (diameter: number, hole = 0): FaceShape => ({
    kind: ROUND,
    halfWidth: diameter / 2,
    halfHeight: diameter / 2,
    inner: hole / diameter,
    areaM2: (Math.PI * (diameter ** 2 - hole ** 2)) / 4,
  });
  switch (light.kind) {
    case 'octa':
      return {
        ...round(light.diameterM),
        kind: OCTAGON_FACE,
        areaM2: 2 * Math.tan(Math.PI / 8) * light.diameterM ** 2,
      };
    case 'ring':
      return round(light.outerDiameterM, light.innerDiameterM);
    case 'dish':
      return round(light.diameterM, light.deflectorDiameterM);
    case 'umbrella':
    case 'snoot':
      return round(light.diameterM);
    case 'projector':
      return round(light.lensDiameterM);
    case 'ies':
      return rectangle(light.openingWidthM, light.openingLengthM);
    default:
      return rectangle(light.widthM, light.heightM);
  }
}

/** Ground seen through a window, over the horizon of an overcast sky: reflectance 0.2 under 7/9 of the zenith. */
const GROUND = (3 * 0.2 * 7) / 9;

/**
 * Luminance of an overcast sky over that of its horizon; below the horizon that of the ground.
 * @param sine of the elevation looked at
 * Source: CIE S 011 (standard overcast sky, Moon and Spencer)
 */
export function overcastLuminance(sine: number): number {
  return sine >= 0 ? 1 + 2 * sine : GROUND;
}

/** Exponent m of an intensity cos^m that has fallen to half at half the beam angle. */
export function lobeExponent(beamDeg: number): number {
  return Math.log(0.5) / Math.log(Math.cos(radians(beamDeg / 2)));
}

function emitter(kind: number, channel: number, numbers: readonly number[]): Emitter {
  const data = new Float64Array(SIZE);
  data.set(numbers);
  return { kind, channel, data, gobo: null, table: null };
}

function intensityTable({ distribution }: LightOf<'ies'>): IntensityTable {
  const rows = distribution.candela;
  const ahead = rows[0]?.[0] ?? 0;
  const unit = ahead > 0 ? ahead : Math.max(...rows.flat(), 1e-9);
  return {
    verticalRad: Float64Array.from(distribution.verticalDeg, radians),
    horizontalRad: Float64Array.from(distribution.horizontalDeg, radians),
    value: Float64Array.from(rows.flat(), (candela) => candela / unit),
  };
}
