import { dielectricMirrored, dielectricPassed, fresnelMean, POLARISING } from '../fresnel.js';
import type { Kernel } from '../kernel.js';
import { RAY_TO } from '../layouts.js';
import { floor32, type i32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import type { SceneTables } from '../tables.js';
import { copy3, dot3, frameRound, fromFrame, mirrorDirection, refractDirection, scale3 } from '../vectors.js';
import type { Branches } from './branches.js';
import { CloudWalk } from './cloudWalk.js';
import { FrostWalk } from './frost.js';
import type { InsideStep } from './insideStep.js';
import type { Media } from './media.js';
import type { QuickStep } from './quickStep.js';
import type { Scattering } from './scattering.js';
import type { TraceMode } from './traceMode.js';
import type { Way } from './way.js';

/**
 * From what scatters light at least this often, 1/m, light comes out as from a matte surface: on the way from its last
 * scattering through the wall it has lost its direction.
 */
const CLOUDY_PER_M = 100;

/** Through what is clear or cloudy: along its inside, and over its boundaries, polished or frosted. */
export class BoundaryStep {
  private splits: boolean;
  private mode: TraceMode;
  private kernel: Kernel;
  private sampler: Sampler;
  private media: Media;
  private branches: Branches;
  private scattering: Scattering;
  private inside: InsideStep;
  private quick: QuickStep;
  private cloud: CloudWalk;
  private frost: FrostWalk = new FrostWalk();
  private polarising: Float64Array = new Float64Array(POLARISING);

  constructor(
    t: SceneTables,
    mode: TraceMode,
    kernel: Kernel,
    sampler: Sampler,
    media: Media,
    branches: Branches,
    scattering: Scattering,
    inside: InsideStep,
    quick: QuickStep,
  ) {
    this.splits = t.splits !== 0;
    this.mode = mode;
    this.kernel = kernel;
    this.sampler = sampler;
    this.media = media;
    this.branches = branches;
    this.scattering = scattering;
    this.inside = inside;
    this.quick = quick;
    this.cloud = new CloudWalk(kernel, media);
  }

  /**
   * Along the ray of a way to the next surface, scattered on the way where it is in something cloudy; what the last
   * stretch absorbs is taken off.
   * @returns the primitive met, -1 for none, `LOST` where the way ends in something cloudy; how far is in the ray
   */
  travel(way: Way): i32 {
    const kernel = this.kernel;
    const media = this.media;
    let met: i32 = -1;
    if (media.cloudPerM(way.inside) === 0) {
      kernel.setRay(way.origin, way.direction, Infinity);
      met = kernel.closestHit();
    } else met = this.travelInCloud(way);
    if (met >= 0 && way.inside !== 0) media.absorb(way.throughput, way.inside, kernel.ray[RAY_TO]);
    return met;
  }

  private travelInCloud(way: Way): i32 {
    const cloud = this.cloud;
    const met = cloud.walk(way, this.sampler, this.mode.quick);
    if (!cloud.scattered) return met;
    if (this.mode.quick) this.quick.endInCloud(way);
    way.fromCloud = this.media.cloudPerM(way.inside) >= CLOUDY_PER_M;
    way.causticsCounted = false;
    way.depolarise();
    way.sharp = false;
    way.specular = false;
    way.pdf = 0;
    way.forgetSampled();
    way.sampleOnce();
    return met;
  }

  /** A boundary within a medium of higher priority: light goes on as if nothing were there. */
  passesUnseen(way: Way): boolean {
    const beyond = this.media.beyond(this.scattering.hit, way.inside);
    if (!this.media.isSame(way.inside, beyond)) return false;
    way.inside = beyond;
    copy3(way.origin, this.scattering.hit.point);
    return true;
  }

  /** Over a boundary, or mirrored by it. @returns false where the way leads nowhere */
  cross(way: Way): boolean {
    const hit = this.scattering.hit;
    const beyond = this.media.beyond(hit, way.inside);
    const ratio = this.media.indexFor(beyond, way.colour) / this.media.indexFor(way.inside, way.colour);
    if (this.mode.quick && way.inside === 0) this.quick.noteEntry(way);
    way.lastSharp = hit.primitive;
    if (way.fromCloud && beyond === 0) return this.leaveCloud(way, ratio);
    const alpha = hit.model.roughness(hit.row);
    if (alpha > 0) return this.crossFrost(way, alpha, ratio, beyond);
    const reflected = fresnelMean(hit.cosOut, ratio);
    let mirrors = reflected >= 1;
    const parts = !mirrors && this.branches.mayPart(way, Math.min(reflected, 1 - reflected));
    if (parts) {
      const kept = this.branches.addReflection(way, hit.point, reflected);
      this.mirrorPolarised(kept, ratio);
      mirrorDirection(kept.direction, way.direction, hit.normal, hit.flat);
    } else if (!mirrors) {
      this.sampler.next();
      mirrors = this.sampler.uv[0] < reflected;
    }
    way.pdf = 0;
    if (mirrors) {
      this.mirrorPolarised(way, ratio);
      mirrorDirection(way.direction, way.direction, hit.normal, hit.flat);
      return true;
    }
    const passed: number = parts ? 1 - reflected : 1;
    if (this.splits && way.colour < 0 && !this.mode.quick && this.media.splits(way.inside, beyond)) {
      this.split(way, beyond, passed);
      return true;
    }
    this.refract(way, ratio, beyond, passed);
    return true;
  }

  /** Into the medium beyond. @param passed what of it goes that way */
  private refract(way: Way, ratio: number, beyond: i32, passed: number): void {
    const hit = this.scattering.hit;
    if (way.analysed) {
      dielectricPassed(this.polarising, hit.cosOut, ratio);
      way.stokes.meet(way.direction, hit.normal, this.polarising, 1);
    }
    refractDirection(way.direction, hit.normal, hit.flat, hit.cosOut, 1 / ratio);
    // Luminance over the squared index is kept across a boundary.
    scale3(way.throughput, passed / (ratio * ratio));
    way.inside = beyond;
  }

  /** The same for each colour by its own index: all three are followed while the way may part, one by chance later. */
  private split(way: Way, beyond: i32, passed: number): void {
    const media = this.media;
    if (this.branches.mayPartTwice(way)) {
      for (let colour: i32 = 1; colour < 3; colour++) {
        const kept = this.branches.add(way);
        kept.setOutFrom(this.scattering.hit.point, 1);
        kept.follow(colour, 1);
        this.refract(
          kept,
          media.indexFor(beyond, colour) / media.indexFor(way.inside, colour),
          beyond,
          passed,
        );
      }
      way.follow(0, 1);
    } else {
      this.sampler.next();
      way.follow(floor32(3 * this.sampler.uv[0]), 3);
    }
    this.refract(
      way,
      media.indexFor(beyond, way.colour) / media.indexFor(way.inside, way.colour),
      beyond,
      passed,
    );
  }

  private mirrorPolarised(way: Way, ratio: number): void {
    if (!way.analysed) return;
    const hit = this.scattering.hit;
    dielectricMirrored(this.polarising, hit.cosOut, ratio);
    way.stokes.meet(way.direction, hit.normal, this.polarising, 1);
  }

  /**
   * From something cloudy out into the air: mirrored back inside as it is met, or out as from a matte surface,
   * so that lights can be sampled. Light that has wandered has nearly forgotten where it came from: see
   * docs/physics/surfaces.md for what this leaves out.
   */
  private leaveCloud(way: Way, ratio: number): boolean {
    const hit = this.scattering.hit;
    this.sampler.next();
    if (this.sampler.uv[0] < fresnelMean(hit.cosOut, ratio)) {
      mirrorDirection(way.direction, way.direction, hit.normal, hit.flat);
      return true;
    }
    scale3(way.throughput, 1 / (ratio * ratio));
    way.inside = 0;
    for (let a = 0; a < 3; a++) {
      hit.normal[a] = -hit.normal[a];
      hit.flat[a] = -hit.flat[a];
    }
    frameRound(hit.frame, hit.normal);
    const goesOn = this.inside.comeOut(way);
    way.fromCloud = false;
    return goesOn;
  }

  /** A boundary of frosted glass: mirrors and refracts in its facets. */
  private crossFrost(way: Way, alpha: number, ratio: number, beyond: i32): boolean {
    const scattering = this.scattering;
    const hit = scattering.hit;
    const frost = this.frost;
    scattering.lookOut(way.direction);
    const side: i32 = frost.walk(scattering.out, alpha, ratio, this.sampler);
    if (side === 0) return false;
    way.specular = false;
    way.depolarise();
    fromFrame(way.direction, frost.into, hit.frame, hit.normal);
    const through = side < 0;
    if (dot3(way.direction, hit.flat) > 0 === through) return false;
    if (through) {
      scale3(way.throughput, 1 / (ratio * ratio));
      way.inside = beyond;
    }
    way.pdf = 0;
    if (!scattering.isSharp()) way.sharp = false;
    return true;
  }
}
