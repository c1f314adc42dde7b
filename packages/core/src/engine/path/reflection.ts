import { fresnelMean, POLARISING } from '../fresnel.js';
import { COAT_INDEX } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import type { SurfaceHit } from '../surfaceHit.js';
import type { SceneTables } from '../tables.js';
import { mirrorDirection, scale3 } from '../vectors.js';
import type { Branches } from './branches.js';
import type { MirrorLights } from './mirrorLights.js';
import type { Way } from './way.js';

/** Ways that go on in the mirror direction: from mirrors, and from clear coats over something else. */
export class Reflection {
  private t: SceneTables;
  private sampler: Sampler;
  private branches: Branches;
  private mirrors: MirrorLights;
  private hit: SurfaceHit;
  private reflectance: Float64Array = new Float64Array(3);
  private polarising: Float64Array = new Float64Array(POLARISING);

  constructor(t: SceneTables, sampler: Sampler, branches: Branches, mirrors: MirrorLights, hit: SurfaceHit) {
    this.t = t;
    this.sampler = sampler;
    this.branches = branches;
    this.mirrors = mirrors;
    this.hit = hit;
  }

  /** From a mirror. */
  reflect(way: Way): void {
    const hit = this.hit;
    const reflectance = this.reflectance;
    way.fromCloud = false;
    hit.model.reflectance(reflectance, hit.row, hit.cosOut);
    for (let c = 0; c < 3; c++) way.throughput[c] = way.throughput[c] * reflectance[c];
    this.polarise(way);
    this.goByMirror(way, reflectance[1]);
  }

  /**
   * From the clear coat of a surface: mirrored apart while all is sharp, by chance later.
   * @param share chance of the coat  @returns whether the way goes on in the mirror direction
   */
  reflectInCoat(way: Way, share: number): boolean {
    const hit = this.hit;
    const reflected = fresnelMean(hit.cosOut, this.t.surfaces[hit.row + COAT_INDEX]);
    if (this.branches.mayPart(way, reflected)) {
      const kept = this.branches.addReflection(way, hit.point, reflected);
      this.polarise(kept);
      mirrorDirection(kept.direction, way.direction, hit.normal, hit.flat);
      return false;
    }
    if (share < 1) this.sampler.next();
    const coat = share >= 1 || this.sampler.uv[0] < share;
    scale3(way.throughput, coat ? reflected / share : 1 / (1 - share));
    if (!coat) return false;
    this.polarise(way);
    this.goByMirror(way, reflected);
    return true;
  }

  private polarise(way: Way): void {
    if (!way.analysed) return;
    const hit = this.hit;
    hit.model.polarise(this.polarising, hit.row, hit.cosOut);
    way.stokes.meet(way.direction, hit.normal, this.polarising, 1);
  }

  /** Light sampling had a part in the mirror direction only by way of a flat mirror. */
  private goByMirror(way: Way, reflected: number): void {
    const hit = this.hit;
    mirrorDirection(way.direction, way.direction, hit.normal, hit.flat);
    way.lastSharp = hit.primitive;
    const sampled = way.mirrorsSampled && way.pdf > 0;
    const mirror: i32 = sampled ? this.mirrors.find(hit.primitive, way.chosenAt) : -1;
    way.pdf = mirror < 0 ? 0 : way.pdf * reflected;
    if (mirror >= 0) this.mirrors.moveToImage(mirror, way.chosenAt);
    way.forgetSampled();
    way.wentByMirror = mirror >= 0;
  }
}
