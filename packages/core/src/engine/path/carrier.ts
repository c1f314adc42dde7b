import { fresnelMean } from '../fresnel.js';
import type { Kernel } from '../kernel.js';
import {
  CARRIED,
  CARRIED_BY,
  CARRIED_LEFT,
  CARRIED_POINT,
  CARRIED_SURFACE,
  CARRIED_WAY,
  COAT_INDEX,
  RAY_TO,
} from '../layouts.js';
import { type i32, real } from '../portable.js';
import { REFLECTS, REFRACTS, WALKS_INSIDE } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import { copy3 } from '../vectors.js';
import type { BoundaryStep } from './boundaryStep.js';
import { facingOf, keepsCaustics } from './caustics.js';
import type { LobeStep } from './lobeStep.js';
import type { Reflection } from './reflection.js';
import type { Scattering } from './scattering.js';
import type { StraightStep } from './straightStep.js';
import { Way } from './way.js';

/** Surfaces that light may meet on its way; what is left after more is next to nothing. */
const MOST_SURFACES: i32 = 32;

/**
 * Carries light from a lamp over clear boundaries, mirrors, clear coats, narrow mirror lobes and nets to the first surface that
 * scatters it: the other end of the ways that `PathTracer` follows, by the same steps, so that what one counts the other leaves
 * out. Light is bundled if the first that it meets bundles.
 */
export class Carrier {
  /** Where it came to rest, see `CARRIED_POINT` and those below it. */
  carried: Float64Array = new Float64Array(CARRIED);
  private t: SceneTables;
  private kernel: Kernel;
  private way: Way = new Way();
  private scattering: Scattering;
  private boundary: BoundaryStep;
  private reflection: Reflection;
  private straight: StraightStep;
  private lobe: LobeStep;

  constructor(
    t: SceneTables,
    kernel: Kernel,
    scattering: Scattering,
    boundary: BoundaryStep,
    reflection: Reflection,
    straight: StraightStep,
    lobe: LobeStep,
  ) {
    this.t = t;
    this.kernel = kernel;
    this.scattering = scattering;
    this.boundary = boundary;
    this.reflection = reflection;
    this.straight = straight;
    this.lobe = lobe;
  }

  /** @returns whether it came to rest where bundled light is kept */
  carry(origin: Float64Array, direction: Float64Array): boolean {
    const t = this.t;
    const way = this.way;
    const hit = this.scattering.hit;
    way.begin(origin, direction, false);
    // It does not part: one way is followed, by chance.
    way.sharp = false;
    way.causticsCounted = true;
    let first: i32 = -1;
    for (let i: i32 = 0; i < MOST_SURFACES; i++) {
      const primitive = this.boundary.travel(way);
      // What was scattered in something cloudy is not bundled.
      if (primitive < 0 || !way.causticsCounted) return false;
      const distance = this.kernel.ray[RAY_TO];
      for (let a = 0; a < 3; a++) hit.point[a] = way.origin[a] + distance * way.direction[a];
      hit.meet(primitive, way.direction);
      if (hit.fromFront && t.emitterOf[primitive] >= 0) return false;
      const interaction = hit.model.interaction;
      if (interaction !== REFRACTS) hit.readColour();
      if (t.seeThrough !== 0 && hit.model.letsStraight(hit.row) && this.straight.pass(way)) continue;
      if (interaction === REFRACTS && this.boundary.passesUnseen(way)) continue;
      // What does not bundle ends it, unless it has been bundled before.
      if (first < 0 && t.bundles[primitive] === 0) return false;
      if (interaction === REFRACTS) {
        if (!this.boundary.cross(way)) return false;
      } else if (interaction === REFLECTS) this.reflection.reflect(way);
      else if (this.lobe.bundles()) {
        // What lies under the lobe is left to chance.
        if (!this.lobe.choose(way) || !this.lobe.follow(way)) return false;
      } else if (!this.mirrorsInCoat())
        return first >= 0 && keepsCaustics(hit, way.inside) && this.rest(first);
      if (first < 0) first = t.thing[primitive];
      copy3(way.origin, hit.point);
    }
    return false;
  }

  /** Whether light is mirrored by the clear coat of the surface met, by chance; what is left then goes to its base. */
  private mirrorsInCoat(): boolean {
    const hit = this.scattering.hit;
    if (hit.model.interaction === WALKS_INSIDE || !hit.model.isSpecular(hit.row)) return false;
    return this.reflection.reflectInCoat(
      this.way,
      fresnelMean(hit.cosOut, this.t.surfaces[hit.row + COAT_INDEX]),
    );
  }

  private rest(first: i32): boolean {
    const carried = this.carried;
    const way = this.way;
    for (let a = 0; a < 3; a++) {
      carried[CARRIED_POINT + a] = this.scattering.hit.point[a];
      carried[CARRIED_WAY + a] = way.direction[a];
      carried[CARRIED_LEFT + a] = way.throughput[a];
    }
    const flat = this.scattering.hit.flat;
    carried[CARRIED_BY] = real(first);
    carried[CARRIED_SURFACE] = real(
      this.t.thing[this.scattering.hit.primitive] * 6 + facingOf(flat[0], flat[1], flat[2]),
    );
    return true;
  }
}
