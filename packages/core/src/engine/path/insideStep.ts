import type { Kernel } from '../kernel.js';
import { COAT_ALPHA } from '../layouts.js';
import type { Sampler } from '../sampler.js';
import { coatAlbedo, sampleCoat } from '../surfaces/coat.js';
import { PDF } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import { copy3, cosineAbove, dot3, fromFrame, scale3 } from '../vectors.js';
import type { LightSampling } from './lightSampling.js';
import type { Reflection } from './reflection.js';
import type { Scattering } from './scattering.js';
import { WaxWalk } from './waxWalk.js';
import type { Way } from './way.js';

/** Under the skin of wax and food, and out again as from a matte surface. */
export class InsideStep {
  private t: SceneTables;
  private sampler: Sampler;
  private scattering: Scattering;
  private lights: LightSampling;
  private reflection: Reflection;
  private wax: WaxWalk;

  constructor(
    t: SceneTables,
    kernel: Kernel,
    sampler: Sampler,
    scattering: Scattering,
    lights: LightSampling,
    reflection: Reflection,
  ) {
    this.t = t;
    this.sampler = sampler;
    this.scattering = scattering;
    this.lights = lights;
    this.reflection = reflection;
    this.wax = new WaxWalk(t, kernel);
  }

  /** The skin mirrors, the rest walks inside and comes out nearby. @returns false where the way leads nowhere */
  walk(way: Way): boolean {
    way.fromCloud = false;
    way.causticsCounted = false;
    way.sampleOnce();
    const t = this.t;
    const scattering = this.scattering;
    const hit = scattering.hit;
    const sampler = this.sampler;
    scattering.scatterPlainly();
    const mirrorShare = hit.model.mirrorShare(hit.row, hit.albedo, hit.cosOut);
    const share = Math.max(0.1, Math.min(0.9, mirrorShare));
    if (t.surfaces[hit.row + COAT_ALPHA] === 0) {
      if (this.reflection.reflectInCoat(way, share)) return true;
      way.specular = false;
      scale3(way.throughput, 1 - coatAlbedo(t, hit.row, hit.cosOut));
    } else {
      way.specular = false;
      scattering.lookOut(way.direction);
      copy3(way.chosenAt, hit.point);
      this.lights.sampleLights(way, 1, true);
      sampler.next();
      if (sampler.uv[0] < share) return this.goByCoat(way, share);
      scale3(way.throughput, (1 - coatAlbedo(t, hit.row, hit.cosOut)) / (1 - share));
    }
    way.depolarise();
    way.sharp = false;
    if (!this.wax.walk(hit, way.throughput, sampler)) return false;
    return this.comeOut(way);
  }

  /** Out of something, as from a matte surface under its skin. @returns false where the way leads nowhere */
  comeOut(way: Way): boolean {
    const scattering = this.scattering;
    const hit = scattering.hit;
    way.causticsCounted = false;
    copy3(way.chosenAt, hit.point);
    this.lights.sampleLightsAtExit(way);
    this.sampler.next();
    cosineAbove(scattering.into, this.sampler.uv);
    const cosIn = scattering.into[2];
    way.pdf = cosIn / Math.PI;
    way.forgetSampled();
    scale3(way.throughput, hit.model.exitShare(hit.row, cosIn));
    fromFrame(way.direction, scattering.into, hit.frame, hit.normal);
    return dot3(way.direction, hit.flat) > 0;
  }

  private goByCoat(way: Way, share: number): boolean {
    const scattering = this.scattering;
    const hit = scattering.hit;
    this.sampler.next();
    const weight = sampleCoat(scattering.into, this.t, hit.row, scattering.out, this.sampler.uv) / share;
    if (!(weight > 0)) return false;
    scattering.evaluate(1);
    scattering.polarise(way);
    way.pdf = scattering.value[PDF];
    way.forgetSampled();
    scale3(way.throughput, weight);
    fromFrame(way.direction, scattering.into, hit.frame, hit.normal);
    if (!scattering.isSharp()) way.sharp = false;
    return dot3(way.direction, hit.flat) > 0;
  }
}
