import {
  ALPHA_X,
  ALPHA_Y,
  BRUSH_UP,
  CONE,
  CONE_AXIS,
  FLAT,
  FLAT_CORNER,
  FLAT_EDGE_U,
  FLAT_EDGE_V,
  FLAT_MOST_RHO2,
  MATTE,
  NO_RELIEF,
  NORMALS,
  PRIMITIVE_STRIDE,
  RELIEF,
  RELIEF_DEPTH,
  RELIEF_SIZE,
  SHADING_NORMAL,
  SURFACE_STRIDE,
} from './layouts.js';
import { normalsAt } from './normals.js';
import { type i32, whole32 } from './portable.js';
import { surfaceColour } from './print.js';
import { applyRelief } from './relief.js';
import type { SurfaceModel } from './surfaces/surfaceModel.js';
import type { SurfaceModels } from './surfaces/surfaceModels.js';
import type { SceneTables } from './tables.js';
import { copy3, dot3, frameRound } from './vectors.js';

const normals = new Float64Array(NORMALS);

/** The surface a ray has met. */
export class SurfaceHit {
  /** Where, its own normal and its shading normal, both towards the path; colour of its base, once it was read. */
  point: Float64Array = new Float64Array(3);
  flat: Float64Array = new Float64Array(3);
  normal: Float64Array = new Float64Array(3);
  albedo: Float64Array = new Float64Array(3);
  /** Two axes across the shading normal, the first along any brush marks. */
  frame: Float64Array = new Float64Array(6);
  primitive: i32 = -1;
  fromFront: boolean = true;
  /** Index of the surface, offset of its row in `tables.surfaces`, and how it scatters. */
  surface: i32 = 0;
  row: i32 = 0;
  model: SurfaceModel;
  /** Cosine towards the viewer. */
  cosOut: number = 1;
  private tables: SceneTables;
  private models: SurfaceModels;

  constructor(tables: SceneTables, models: SurfaceModels) {
    this.tables = tables;
    this.models = models;
    this.model = models.ofKind(MATTE);
  }

  /**
   * Fills itself in, but for the colour, for the surface that a ray has met at `point`. A shading normal that faces
   * away from the path is not used.
   */
  meet(primitive: i32, direction: Float64Array): void {
    const tables = this.tables;
    const facing = this.meetSide(primitive, direction);
    const sign: number = this.fromFront ? 1 : -1;
    this.primitive = primitive;
    const sides = this.fromFront ? tables.front : tables.back;
    this.become(sides[primitive]);
    const s = tables.surfaces;
    for (let a = 0; a < 3; a++) {
      this.flat[a] = sign * normals[a];
      this.normal[a] = sign * normals[SHADING_NORMAL + a];
    }
    const relief = whole32(s[this.row + RELIEF]);
    if (relief !== NO_RELIEF) {
      const depth = s[this.row + RELIEF_DEPTH];
      applyRelief(this.normal, relief, depth, s[this.row + RELIEF_SIZE], this.point);
    }
    let cosine = -dot3(this.normal, direction);
    if (!(cosine > 1e-6)) {
      copy3(this.normal, this.flat);
      cosine = Math.abs(facing);
    }
    this.cosOut = Math.min(1, Math.max(1e-6, cosine));
  }

  /** Takes another surface for the one that was met. */
  become(surface: i32): void {
    this.surface = surface;
    this.row = surface * SURFACE_STRIDE;
    this.model = this.models.ofSurface(surface);
  }

  /**
   * Fills in only on which side it was met.
   * @returns cosine of its own normal to the direction
   */
  meetSide(primitive: i32, direction: Float64Array): number {
    normalsAt(normals, this.tables, primitive, this.point);
    const facing = normals[0] * direction[0] + normals[1] * direction[1] + normals[2] * direction[2];
    this.fromFront = facing < 0;
    return facing;
  }

  /** Fills in the colour of the base. */
  readColour(): void {
    surfaceColour(this.albedo, this.tables, this.surface, this.primitive, this.point);
  }

  /** Axes across the shading normal; along the brush marks of a brushed metal. Also the viewer in that frame. */
  lookOut(direction: Float64Array, out: Float64Array): void {
    const s = this.tables.surfaces;
    if (this.model.isRough && s[this.row + ALPHA_X] !== s[this.row + ALPHA_Y]) {
      const up = s[this.row + BRUSH_UP] > 0;
      brushFrame(this.frame, this.tables, this.primitive, this.point, this.normal, up);
    } else frameRound(this.frame, this.normal);
    out[0] = -this.along(direction, 0);
    out[1] = -this.along(direction, 3);
    out[2] = this.cosOut;
  }

  /** Component of a direction along an axis of the frame: 0 or 3. */
  along(v: Float64Array, axis: i32): number {
    const f = this.frame;
    return v[0] * f[axis] + v[1] * f[axis + 1] + v[2] * f[axis + 2];
  }
}

/** Of discs and rings the square of how far they go from their middle is less than this; of all else it has no limit. */
const FARTHEST_RHO2 = 1e30;

function brushFrame(
  frame: Float64Array,
  tables: SceneTables,
  primitive: i32,
  point: Float64Array,
  normal: Float64Array,
  up: boolean,
): void {
  const d = tables.data;
  const o = primitive * PRIMITIVE_STRIDE;
  const kind = tables.kind[primitive];
  let ax: number = 0;
  let ay: number = 0;
  let az: number = 1;
  if (kind === FLAT && d[o + FLAT_MOST_RHO2] < FARTHEST_RHO2) {
    // Round the middle of a disc; up it from the middle to the rim.
    const u: i32 = o + FLAT_EDGE_U;
    const v: i32 = o + FLAT_EDGE_V;
    ax = point[0] - d[o + FLAT_CORNER] - 0.5 * (d[u] + d[v]);
    ay = point[1] - d[o + FLAT_CORNER + 1] - 0.5 * (d[u + 1] + d[v + 1]);
    az = point[2] - d[o + FLAT_CORNER + 2] - 0.5 * (d[u + 2] + d[v + 2]);
  } else if (kind === CONE || kind === FLAT) {
    // Round the axis of a turned body; across a flat one, square to its second edge.
    const at = kind === CONE ? o + CONE_AXIS : o + FLAT_EDGE_V;
    ax = d[at];
    ay = d[at + 1];
    az = d[at + 2];
  }
  const nx = normal[0];
  const ny = normal[1];
  const nz = normal[2];
  let tx = ay * nz - az * ny;
  let ty = az * nx - ax * nz;
  let tz = ax * ny - ay * nx;
  const size = Math.sqrt(tx * tx + ty * ty + tz * tz);
  if (!(size > 1e-9)) {
    frameRound(frame, normal);
    return;
  }
  tx /= size;
  ty /= size;
  tz /= size;
  const first = up ? 3 : 0;
  const second = 3 - first;
  frame[first] = tx;
  frame[first + 1] = ty;
  frame[first + 2] = tz;
  frame[second] = ny * tz - nz * ty;
  frame[second + 1] = nz * tx - nx * tz;
  frame[second + 2] = nx * ty - ny * tx;
}
