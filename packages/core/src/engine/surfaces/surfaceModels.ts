import {
  CLOTH,
  COATED,
  DIELECTRIC,
  MATTE,
  METAL,
  MIRROR,
  NET,
  RETROREFLECTIVE,
  SURFACE_KIND,
  SURFACE_KINDS,
  SURFACE_STRIDE,
  TRANSLUCENT,
  WAX,
} from '../layouts.js';
import { type i32, whole32 } from '../portable.js';
import type { SceneTables } from '../tables.js';
import { Clear } from './clear.js';
import { Cloth } from './cloth.js';
import { Coated } from './coated.js';
import { Matte } from './matte.js';
import { Metal } from './metal.js';
import { Mirror } from './mirror.js';
import { Net } from './net.js';
import { Retroreflective } from './retroreflective.js';
import type { SurfaceModel } from './surfaceModel.js';
import { Translucent } from './translucent.js';
import { Wax } from './wax.js';

/** The model of each kind of surface. */
export class SurfaceModels {
  private t: SceneTables;
  private models: Array<SurfaceModel>;

  constructor(t: SceneTables) {
    this.t = t;
    this.models = new Array<SurfaceModel>(SURFACE_KINDS);
    this.models[MATTE] = new Matte(t);
    this.models[COATED] = new Coated(t);
    this.models[DIELECTRIC] = new Clear(t);
    this.models[MIRROR] = new Mirror(t);
    this.models[CLOTH] = new Cloth(t);
    this.models[METAL] = new Metal(t);
    this.models[TRANSLUCENT] = new Translucent(t);
    this.models[NET] = new Net(t);
    this.models[WAX] = new Wax(t);
    this.models[RETROREFLECTIVE] = new Retroreflective(t);
  }

  ofKind(kind: i32): SurfaceModel {
    return this.models[kind];
  }

  /** @param index of a surface of the tables */
  ofSurface(index: i32): SurfaceModel {
    return this.models[whole32(this.t.surfaces[index * SURFACE_STRIDE + SURFACE_KIND])];
  }
}
