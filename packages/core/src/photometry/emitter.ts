import type { AimedLight, Gobo, LightOf, OpaqueMaterial, StandingLight, Vector } from '@fendrix/contract';
import { overcastLuminance } from '../engine/faceLuminance.js';
import {
  BEAM,
  BEAM_LOBE,
  CELLS,
  CUTOFF_TAN,
  EMITTER_CENTRE,
  EMITTER_CHANNEL,
  EMITTER_KIND,
  EMITTER_STRIDE,
  FACE,
  FACE_FORWARD,
  FACE_RIGHT,
  FIELD_TAN,
  FOCUS,
  HOT_CENTRE,
  INNER,
  LAMP,
  LUMINANCE_SCALE,
  OCTAGON_FACE,
  OVERCAST,
  PROJECTED,
  ROUND,
  ROUND_CELLS,
  SQUARE_CELLS,
  SUN,
  SUN_TOWARDS,
  TABLE,
  TUBE,
} from '../engine/layouts.js';
import { radians } from '../units/angle.js';
import { aimFrame } from '../units/frame.js';
import { normalise } from '../units/vector.js';

/** Back and sides of a softbox, and what a lamp's inside would be. */
export const BLACK_CLOTH: OpaqueMaterial = { kind: 'matte', reflectance: 0.04 };

/** Luminous intensities on a grid of angles. */
export interface IntensityTable {
  verticalRad: Float64Array;
  horizontalRad: Float64Array;
  /** Row for each horizontal angle, relative to straight ahead. */
  value: Float64Array;
}

/** A light as the engine samples it, see `EMITTER_STRIDE`; its drawings and tables are put beside it by `packEmitters`. */
export interface Emitter {
  /** Film that this light adds to. */
  channel: number;
  data: Float64Array;
  gobo: Gobo | null;
  table: IntensityTable | null;
  /** Direction in which a film before it polarises, unit; none without one. */
  filmAxis?: Vector;
}

/** The back of an umbrella stands this far behind its mouth, m. */
export const UMBRELLA_BACK_M = 1e-3;

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
        back.data[FACE_RIGHT + a] = -(front.data[FACE_RIGHT + a] as number);
        back.data[FACE_FORWARD + a] = -(front.data[FACE_FORWARD + a] as number);
        back.data[EMITTER_CENTRE + a] =
          (front.data[EMITTER_CENTRE + a] as number) +
          UMBRELLA_BACK_M * (back.data[FACE_FORWARD + a] as number);
      }
      back.data[LUMINANCE_SCALE] = (front.data[LUMINANCE_SCALE] as number) * light.backShare;
      return [front, back];
    }
    case 'window': {
      const face = faceOf(light, channel);
      if (!light.sun) return [face];
      const sun = { ...face, channel: sunChannel, data: Float64Array.from(face.data) };
      sun.data[EMITTER_KIND] = SUN;
      sun.data[EMITTER_CHANNEL] = sunChannel;
      sun.data.set(normalise(light.sun.towards), SUN_TOWARDS);
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
  d[HOT_CENTRE] = hotCentre - 1;
  d[LUMINANCE_SCALE] = 1 / (1 + (hotCentre - 1) * (MEAN_PROFILE[shape.kind] as number));
  d[INNER] = shape.inner;
  if ('grid' in light && light.grid) {
    d[CUTOFF_TAN] = Math.tan(radians(light.grid.cutoffDeg / 2));
    d[CELLS] = light.kind === 'dish' ? ROUND_CELLS : SQUARE_CELLS;
  }
  if ('beamDeg' in light) d[BEAM_LOBE] = lobeExponent(light.beamDeg) - 1;
  switch (light.kind) {
    case 'snoot':
      d[CUTOFF_TAN] = Math.tan(radians(light.cutoffDeg / 2));
      d[CELLS] = ROUND_CELLS;
      break;
    case 'projector':
      d[BEAM] = PROJECTED;
      d[FOCUS] = light.focusM;
      d[FIELD_TAN] = Math.tan(radians(light.fieldDeg / 2));
      face.gobo = light.gobo;
      break;
    case 'window':
      if (light.sky === 'overcast') {
        d[BEAM] = OVERCAST;
        d[LUMINANCE_SCALE] = 1 / overcastLuminance(-frame.forward[2]);
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

/** Exponent m of an intensity cos^m that has fallen to half at half the beam angle. */
export function lobeExponent(beamDeg: number): number {
  return Math.log(0.5) / Math.log(Math.cos(radians(beamDeg / 2)));
}

function emitter(kind: number, channel: number, numbers: readonly number[]): Emitter {
  const data = new Float64Array(EMITTER_STRIDE);
  data[EMITTER_KIND] = kind;
  data[EMITTER_CHANNEL] = channel;
  data.set(numbers, EMITTER_CENTRE);
  return { channel, data, gobo: null, table: null };
}

function intensityTable({ distribution }: LightOf<'ies'>): IntensityTable {
  const rows = distribution.candela;
  const ahead = distribution.verticalDeg[0] === 0 ? (rows[0]?.[0] ?? 0) : 0;
  const unit = ahead > 0 ? ahead : Math.max(...rows.flat(), 1e-9);
  return {
    verticalRad: Float64Array.from(distribution.verticalDeg, radians),
    horizontalRad: Float64Array.from(distribution.horizontalDeg, radians),
    value: Float64Array.from(rows.flat(), (candela) => candela / unit),
  };
}
