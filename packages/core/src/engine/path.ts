import { LOST } from './cloudWalk.js';
import { fresnelMean } from './fresnel.js';
import {
  ALPHA_Y,
  CLOUD_FACE,
  COAT_INDEX,
  DIELECTRIC,
  MATTE,
  MEDIUM_STRIDE,
  METAL,
  MIRROR,
  NET,
  RAY_TO,
  SPREAD,
  STRAIGHT,
  SURFACE_STRIDE,
  WAX,
} from './layouts.js';
import { LightmapSampler } from './lightmaps.js';
import { absorbOver, cloudIn, indexIn, mediaBeyond } from './media.js';
import { letsThroughStraight } from './passage.js';
import { PathScatter } from './pathScatter.js';
import { highestBit, type i32, whole32 } from './portable.js';
import { netOpenness } from './print.js';
import { baseAlbedo, evaluateScatter, mirrorShareOf, PDF, sampleCoat, sampleScatter } from './scatter.js';
import {
  copy3,
  dot3,
  fill3,
  frameRound,
  fromFrame,
  mirrorDirection,
  refractDirection,
  scale3,
} from './vectors.js';

/**
 * From what scatters light at least this often, 1/m, light comes out as from a matte surface: on the way from its last
 * scattering through the wall it has lost its direction.
 */
const CLOUDY_PER_M = 100;

/**
 * Path tracer with light sampling and multiple importance sampling (power heuristic), nested dielectrics by
 * priority, clear or cloudy, thin sheets and lightmaps; it parts into mirrored and rest while it has met only clear things. It adds to
 * `films[3 channel + colour]` the luminance, for each film at unit luminance, that arrives at a point against a
 * direction. Separable by light. Without lightmaps and ambient it is unbiased.
 * Limits: no dispersion; polarisation as kept or lost, no phase; no light sampling through glass (light finds its
 * way by chance).
 * Sources: Kajiya 1986; Veach 1997 ch. 9; Schmidt and Budge 2002 (nested dielectrics); docs/physics/render.md
 */
export class PathTracer extends PathScatter {
  /** Takes note of lightmaps that have been put into the tables. */
  renewLightmaps(): void {
    this.sheets = new LightmapSampler(this.t);
  }

  /** @param scattered start on a matte surface: light that is hit at once is left out, it was counted by other means */
  trace(origin: Float64Array, direction: Float64Array, scattered: boolean): void {
    copy3(this.origin, origin);
    copy3(this.direction, direction);
    fill3(this.weight, 1);
    this.lastPdf = 0;
    this.sheetsAsked = false;
    this.inside = 0;
    this.fromCloud = false;
    this.bounce = scattered ? 1 : 0;
    this.kept = !scattered;
    this.sharp = !scattered;
    this.setOutWith = 1;
    this.guide.aim(-1);
    this.askOnce();
    this.seen = 0;
    const branches = this.branches;
    branches.start();
    this.follow(scattered);
    while (branches.waiting > 0) {
      this.takeWay();
      this.follow(false);
    }
  }

  private follow(skipFirstLight: boolean): void {
    const t = this.t;
    const kernel = this.kernel;
    const hit = this.hit;
    const point = hit.point;
    let skipLight = skipFirstLight;
    for (;;) {
      const primitive = this.nextHit();
      if (primitive < 0) {
        if (skipLight || primitive === LOST) return;
        for (let s = 0; s < t.surrounds.length; s++) this.addToFilm(t.surrounds[s], 1);
        return;
      }
      const distance = kernel.ray[RAY_TO];
      if (this.inside !== 0) absorbOver(this.weight, t, this.inside, distance);
      for (let a = 0; a < 3; a++) {
        point[a] = this.origin[a] + distance * this.direction[a];
      }
      hit.meet(t, primitive, this.direction);
      if (this.quick && this.sharp) this.noteSeen();
      const emitter: i32 = hit.fromFront ? t.emitterOf[primitive] : -1;
      if (emitter >= 0) {
        if (!skipLight) this.meetLight(emitter);
        return;
      }
      if (hit.kind !== DIELECTRIC) {
        hit.readColour(t);
        if (this.quick && this.sharp) this.noteColour();
      }
      if (t.seeThrough !== 0 && letsThroughStraight(t, hit.surface) && this.goesStraight()) continue;
      if (this.useLightmaps && !this.sharp && this.meetLitSheet()) return;
      skipLight = false;
      let goesOn = true;
      if (hit.kind === DIELECTRIC) {
        if (this.passesUnseen()) continue;
        goesOn = this.throughGlass();
      } else if (hit.kind === MIRROR) this.mirrorOn();
      else if (this.quick) goesOn = this.scatterQuickly();
      else if (hit.kind === WAX) goesOn = this.throughWax();
      else {
        goesOn = this.scatterOn();
        this.coatAlone = false;
      }
      if (!goesOn) return;
      copy3(this.origin, point);
      this.bounce = this.bounce + 1;
      if (!this.survives()) return;
    }
  }

  /** The primitive met next, -1 for none, `LOST` where the path ends in something cloudy; how far it is, is in the ray. */
  private nextHit(): i32 {
    const kernel = this.kernel;
    if (cloudIn(this.t, this.inside) === 0) {
      kernel.setRay(this.origin, this.direction, Infinity);
      return kernel.closestHit();
    }
    const cloud = this.cloud;
    const met = cloud.walk(this.origin, this.direction, this.weight, this.inside, this.sampler, this.quick);
    if (!cloud.scattered) return met;
    if (this.quick) this.endInCloud();
    this.fromCloud = cloudIn(this.t, this.inside) >= CLOUDY_PER_M;
    this.kept = false;
    this.sharp = false;
    this.lastPdf = 0;
    this.sheetsAsked = false;
    this.mirrorsAsked = false;
    this.wentByMirror = false;
    this.askOnce();
    return met;
  }

  /** Of quick pictures: a cloudy medium is as a matte surface of what it sends back, where the path went into it. */
  private endInCloud(): void {
    const t = this.t;
    const hit = this.hit;
    const entry = this.entry;
    const index = indexIn(t, this.inside);
    scale3(this.weight, index * index);
    hit.surface = whole32(t.media[highestBit(this.inside) * MEDIUM_STRIDE + CLOUD_FACE]);
    hit.place = hit.surface * SURFACE_STRIDE;
    hit.kind = MATTE;
    hit.cosOut = entry.cosOut;
    copy3(hit.point, entry.point);
    copy3(hit.flat, entry.flat);
    copy3(hit.normal, entry.normal);
    copy3(this.direction, this.entryWay);
    hit.readColour(t);
    this.inside = 0;
    this.scatterQuickly();
  }

  /** Nets and thin frost: some light passes as if nothing were there. */
  private goesStraight(): boolean {
    const s = this.t.surfaces;
    const hit = this.hit;
    const weight = this.weight;
    const o = hit.place;
    const net = hit.kind === NET;
    const open: number = net ? netOpenness(this.t, hit.surface, hit.primitive, hit.point) : 0;
    const even = s[o + STRAIGHT];
    const closed: number = net && even < 1 ? (1 - open) / (1 - even) : 1;
    let through: number = 0;
    let rest: number = 0;
    for (let c = 0; c < 3; c++) {
      through += net ? open : s[o + STRAIGHT + c];
      if (net) hit.albedo[c] = hit.albedo[c] * closed;
      rest += hit.albedo[c] + s[o + SPREAD + c];
    }
    const chance = through / (through + rest);
    if (!(chance > 0)) return false;
    this.sampler.next();
    if (this.sampler.uv[0] >= chance) {
      scale3(weight, 1 / (1 - chance));
      return false;
    }
    for (let c = 0; c < 3; c++) {
      weight[c] = (weight[c] * (net ? open : s[o + STRAIGHT + c])) / chance;
    }
    copy3(this.origin, hit.point);
    this.mirrorsAsked = false;
    return true;
  }

  /** A boundary within a medium of higher priority: light goes on as if nothing were there. */
  private passesUnseen(): boolean {
    const beyond = mediaBeyond(this.t, this.hit, this.inside);
    if (highestBit(this.inside) !== highestBit(beyond)) return false;
    this.inside = beyond;
    copy3(this.origin, this.hit.point);
    return true;
  }

  private throughGlass(): boolean {
    const hit = this.hit;
    const beyond = mediaBeyond(this.t, this.hit, this.inside);
    const ratio = indexIn(this.t, beyond) / indexIn(this.t, this.inside);
    if (this.quick && this.inside === 0) this.noteEntry();
    if (this.fromCloud && beyond === 0) return this.leaveCloud(ratio);
    const alpha = this.t.surfaces[hit.place + ALPHA_Y];
    if (alpha > 0) return this.throughFrost(alpha, ratio, beyond);
    const reflected = fresnelMean(hit.cosOut, ratio);
    let mirrors = reflected >= 1;
    const parts = !mirrors && this.mayPart(Math.min(reflected, 1 - reflected));
    if (parts) {
      mirrorDirection(this.branchDirection, this.direction, hit.normal, hit.flat);
      this.keepBranch(reflected, true);
    } else if (!mirrors) {
      this.sampler.next();
      mirrors = this.sampler.uv[0] < reflected;
    }
    this.lastPdf = 0;
    if (mirrors) {
      mirrorDirection(this.direction, this.direction, hit.normal, hit.flat);
      return true;
    }
    refractDirection(this.direction, hit.normal, hit.flat, hit.cosOut, 1 / ratio);
    // Luminance over the squared index is kept across a boundary.
    const passed: number = parts ? 1 - reflected : 1;
    scale3(this.weight, passed / (ratio * ratio));
    this.inside = beyond;
    return true;
  }

  /**
   * From something cloudy out into the air: mirrored back inside as it is met, or out as from a matte surface,
   * so that lights can be asked. Light that has wandered has nearly forgotten where it came from: see
   * docs/physics/surfaces.md for what this leaves out.
   */
  private leaveCloud(ratio: number): boolean {
    const hit = this.hit;
    this.sampler.next();
    if (this.sampler.uv[0] < fresnelMean(hit.cosOut, ratio)) {
      mirrorDirection(this.direction, this.direction, hit.normal, hit.flat);
      return true;
    }
    scale3(this.weight, 1 / (ratio * ratio));
    this.inside = 0;
    for (let a = 0; a < 3; a++) {
      hit.normal[a] = -hit.normal[a];
      hit.flat[a] = -hit.flat[a];
    }
    frameRound(hit.frame, hit.normal);
    const goesOn = this.comeOut();
    this.fromCloud = false;
    return goesOn;
  }

  private noteEntry(): void {
    const hit = this.hit;
    const entry = this.entry;
    entry.cosOut = hit.cosOut;
    copy3(entry.point, hit.point);
    copy3(entry.flat, hit.flat);
    copy3(entry.normal, hit.normal);
    copy3(this.entryWay, this.direction);
  }

  /** A boundary of frosted glass: mirrors and refracts in its facets. @returns false where the way leads nowhere */
  private throughFrost(alpha: number, ratio: number, beyond: i32): boolean {
    const hit = this.hit;
    const frost = this.frost;
    hit.lookOut(this.t, this.direction, this.out);
    const side: i32 = frost.walk(this.out, alpha, ratio, this.sampler);
    if (side === 0) return false;
    fromFrame(this.direction, frost.into, hit.frame, hit.normal);
    const through = side < 0;
    if (dot3(this.direction, hit.flat) > 0 === through) return false;
    if (through) {
      scale3(this.weight, 1 / (ratio * ratio));
      this.inside = beyond;
    }
    this.lastPdf = 0;
    if (!this.isSharp()) this.sharp = false;
    return true;
  }

  /** All surfaces of a quick picture: the base ends the path, the mirror lobe goes on. */
  private scatterQuickly(): boolean {
    const t = this.t;
    const hit = this.hit;
    const sampler = this.sampler;
    const place = hit.place;
    hit.lookOut(t, this.direction, this.out);
    copy3(this.chosenAt, hit.point);
    if (t.surfaces[place + COAT_INDEX] !== 0) {
      sampler.next();
      const mirrored = sampleCoat(this.into, t, place, this.out, sampler.uv);
      fromFrame(this.branchDirection, this.into, hit.frame, hit.normal);
      const outwards = dot3(this.branchDirection, hit.flat) > 0;
      if (this.mayPart(1)) {
        if (outwards) this.keepBranch(mirrored, this.isSharp());
      } else {
        const share = mirrorShareOf(t, place, hit.albedo, hit.cosOut);
        sampler.next();
        const takesCoat = sampler.uv[0] < share;
        scale3(this.weight, takesCoat ? mirrored / share : 1 / (1 - share));
        if (takesCoat) {
          if (!this.isSharp()) this.sharp = false;
          copy3(this.direction, this.branchDirection);
          this.lastPdf = 0;
          return outwards;
        }
      }
    } else if (hit.kind === METAL) {
      sampler.next();
      if (!sampleScatter(this.into, t, place, hit.albedo, 1, this.out, 0, sampler.uv)) return false;
      evaluateScatter(this.scatter, t, place, hit.albedo, 1, this.out, this.into);
      const gain = this.into[2] / this.scatter[PDF];
      for (let c = 0; c < 3; c++) {
        this.weight[c] = this.weight[c] * this.scatter[c] * gain;
      }
      fromFrame(this.direction, this.into, hit.frame, hit.normal);
      this.lastPdf = 0;
      if (!this.isSharp()) this.sharp = false;
      return dot3(this.direction, hit.flat) > 0;
    }
    this.askLights(0, false);
    const kept = baseAlbedo(t, place, hit.cosOut);
    for (let channel = 0; channel < t.channelCount; channel++) {
      for (let c = 0; c < 3; c++) {
        const colour = hit.albedo[c] * kept + t.surfaces[place + SPREAD + c];
        const i = 3 * channel + c;
        const added = this.weight[c] * colour * this.ambient[channel];
        this.films[i] = this.films[i] + added;
      }
    }
    return false;
  }
}
