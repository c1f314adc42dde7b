import { fresnelMean } from './fresnel.js';
import { absorbOver, indexIn, mediaBeyond } from './media.js';
import { letsThroughStraight } from './passage.js';
import { PathLights } from './pathLights.js';
import { highestBit, type i32 } from './portable.js';
import { netOpenness } from './print.js';
import {
  BASE_PART,
  baseAlbedo,
  coatAlbedo,
  evaluateScatter,
  lobeFresnel,
  mirrorShareOf,
  PDF,
  sampleCoat,
  sampleScatter,
  sentBackShare,
} from './scatter.js';
import { SheetSampler } from './sheets.js';
import {
  COAT_ALPHA,
  COAT_INDEX,
  COATED,
  DIELECTRIC,
  METAL,
  MIRROR,
  NET,
  SPREAD,
  STRAIGHT,
  TRANSLUCENT,
  WAX,
} from './tables.js';
import {
  copy3,
  cosineAbove,
  dot3,
  fill3,
  fromFrame,
  mirrorDirection,
  refractDirection,
  scale3,
} from './vectors.js';

/** Largest number the sampler gives. */
const LARGEST = 0.9999999997671694;

/**
 * Path tracer with light sampling and multiple importance sampling (power heuristic), nested dielectrics by
 * priority, thin sheets and lit sheets; it parts into mirrored and rest while it has met only clear things. It adds to
 * `films[3 channel + colour]` the luminance, for each film at unit luminance, that arrives at a point against a
 * direction. Separable by light. Without lit sheets and ambient it is unbiased.
 * Limits: no dispersion; polarisation as kept or lost, no phase; no light sampling through glass (light finds its
 * way by chance).
 * Sources: Kajiya 1986; Veach 1997 ch. 9; Schmidt and Budge 2002 (nested dielectrics); docs/physics/render.md
 */
export class PathTracer extends PathLights {
  /** Takes note of lit sheets that have been put into the tables. */
  renewSheets(): void {
    this.sheets = new SheetSampler(this.t);
  }

  /** @param scattered start on a matte surface: light that is hit at once is left out, it was counted by other means */
  trace(origin: Float64Array, direction: Float64Array, scattered: boolean): void {
    copy3(this.origin, origin);
    copy3(this.direction, direction);
    fill3(this.weight, 1);
    this.lastPdf = 0;
    this.sheetsAsked = false;
    this.inside = 0;
    this.bounce = scattered ? 1 : 0;
    this.kept = !scattered;
    this.sharp = !scattered;
    this.setOutWith = 1;
    this.guide.aim(-1);
    this.askOnce();
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
      kernel.setRay(this.origin, this.direction, Infinity);
      const primitive: i32 = kernel.closestHit();
      if (primitive < 0) {
        if (skipLight) return;
        for (let s = 0; s < t.surrounds.length; s++) this.addToFilm(t.surrounds[s] as i32, 1);
        return;
      }
      const distance = kernel.ray[7] as number;
      if (this.inside !== 0) absorbOver(this.weight, t, this.inside, distance);
      for (let a = 0; a < 3; a++) {
        point[a] = (this.origin[a] as number) + distance * (this.direction[a] as number);
      }
      hit.meet(t, primitive, this.direction);
      const emitter: i32 = hit.fromFront ? (t.emitterOf[primitive] as i32) : -1;
      if (emitter >= 0) {
        if (!skipLight) this.meetLight(emitter);
        return;
      }
      if (hit.kind !== DIELECTRIC) hit.readColour(t);
      if (t.seeThrough !== 0 && letsThroughStraight(t, hit.surface) && this.goesStraight()) continue;
      if (this.useSheets && !this.sharp && this.meetLitSheet()) return;
      skipLight = false;
      let goesOn = true;
      if (hit.kind === DIELECTRIC) {
        if (this.passesUnseen()) continue;
        this.throughGlass();
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

  /** Nets and thin frost: some light passes as if nothing were there. */
  private goesStraight(): boolean {
    const s = this.t.surfaces;
    const hit = this.hit;
    const weight = this.weight;
    const o = hit.place;
    const net = hit.kind === NET;
    const open: number = net ? netOpenness(this.t, hit.surface, hit.primitive, hit.point) : 0;
    const even = s[o + STRAIGHT] as number;
    const closed: number = net && even < 1 ? (1 - open) / (1 - even) : 1;
    let through: number = 0;
    let rest: number = 0;
    for (let c = 0; c < 3; c++) {
      through += net ? open : (s[o + STRAIGHT + c] as number);
      if (net) hit.albedo[c] = (hit.albedo[c] as number) * closed;
      rest += (hit.albedo[c] as number) + (s[o + SPREAD + c] as number);
    }
    const chance = through / (through + rest);
    if (!(chance > 0)) return false;
    this.sampler.next();
    if ((this.sampler.uv[0] as number) >= chance) {
      scale3(weight, 1 / (1 - chance));
      return false;
    }
    for (let c = 0; c < 3; c++) {
      weight[c] = ((weight[c] as number) * (net ? open : (s[o + STRAIGHT + c] as number))) / chance;
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

  private throughGlass(): void {
    const hit = this.hit;
    const beyond = mediaBeyond(this.t, this.hit, this.inside);
    const ratio = indexIn(this.t, beyond) / indexIn(this.t, this.inside);
    const reflected = fresnelMean(hit.cosOut, ratio);
    let mirrors = reflected >= 1;
    const parts = !mirrors && this.mayPart(Math.min(reflected, 1 - reflected));
    if (parts) {
      mirrorDirection(this.branchDirection, this.direction, hit.normal, hit.flat);
      this.keepBranch(reflected);
    } else if (!mirrors) {
      this.sampler.next();
      mirrors = (this.sampler.uv[0] as number) < reflected;
    }
    this.lastPdf = 0;
    if (mirrors) {
      mirrorDirection(this.direction, this.direction, hit.normal, hit.flat);
      return;
    }
    refractDirection(this.direction, hit.normal, hit.flat, hit.cosOut, 1 / ratio);
    // Luminance over the squared index is kept across a boundary.
    const passed: number = parts ? 1 - reflected : 1;
    scale3(this.weight, passed / (ratio * ratio));
    this.inside = beyond;
  }

  private mirrorOn(): void {
    const hit = this.hit;
    for (let c = 0; c < 3; c++) {
      this.weight[c] = (this.weight[c] as number) * lobeFresnel(this.t, hit.place, c, hit.cosOut);
    }
    this.goByMirror(lobeFresnel(this.t, hit.place, 1, hit.cosOut));
  }

  /** Goes on in the mirror direction; light sampling had a part in it only by way of a flat mirror. */
  private goByMirror(reflected: number): void {
    const hit = this.hit;
    mirrorDirection(this.direction, this.direction, hit.normal, hit.flat);
    const asked = this.mirrorsAsked && this.lastPdf > 0;
    const mirror: i32 = asked ? this.mirrors.find(hit.primitive, this.chosenAt) : -1;
    this.lastPdf = mirror < 0 ? 0 : this.lastPdf * reflected;
    if (mirror >= 0) this.mirrors.moveToImage(mirror, this.chosenAt);
    this.wentByMirror = mirror >= 0;
    this.mirrorsAsked = false;
    this.sheetsAsked = false;
  }

  /**
   * The clear coat of a surface: mirrored apart while all is sharp, by chance later.
   * @returns whether the path goes on in the mirror direction
   */
  private clearCoatMirrors(share: number): boolean {
    const hit = this.hit;
    const reflected = fresnelMean(hit.cosOut, this.t.surfaces[hit.place + COAT_INDEX] as number);
    if (this.mayPart(reflected)) {
      mirrorDirection(this.branchDirection, this.direction, hit.normal, hit.flat);
      this.keepBranch(reflected);
      return false;
    }
    if (share < 1) this.sampler.next();
    const coat = share >= 1 || (this.sampler.uv[0] as number) < share;
    scale3(this.weight, coat ? reflected / share : 1 / (1 - share));
    if (!coat) return false;
    this.goByMirror(reflected);
    return true;
  }

  /** All that scatters: asks the lights, then goes on in a sampled direction. */
  private scatterOn(): boolean {
    const t = this.t;
    const hit = this.hit;
    let share = mirrorShareOf(t, hit.place, hit.albedo, hit.cosOut);
    if (this.coatAlone) share = 1;
    if (hit.kind === COATED && (t.surfaces[hit.place + COAT_ALPHA] as number) === 0) {
      if (this.clearCoatMirrors(share)) return true;
      // The clear coat's choice is made: what is left scatters from the base alone.
      share = 0;
    }
    hit.lookOut(t, this.direction, this.out);
    copy3(this.chosenAt, hit.point);
    this.decideTimes();
    this.aimGuide();
    this.askLights(share, true);
    this.askSheets(share);
    this.askMirrors(share);

    const ways = this.ways;
    if (ways === 1) return this.goOn(share, 0);
    scale3(this.weight, 0.5);
    copy3(this.halfWeight, this.weight);
    const kept = this.kept;
    const sharp = this.sharp;
    if (this.goOn(share, 0)) this.keepWay();
    copy3(this.weight, this.halfWeight);
    this.kept = kept;
    this.sharp = sharp;
    this.sampler.back(this.splits ? 2 : 1);
    return this.goOn(share, 1);
  }

  /** Samples one of the ways on from a surface that scatters. @returns false where it leads nowhere */
  private goOn(share: number, way: i32): boolean {
    const t = this.t;
    const hit = this.hit;
    const sampler = this.sampler;
    const weight = this.weight;
    const ways = this.ways;
    let split: number = 0;
    if (this.splits) {
      sampler.nextPart(way, ways);
      split = sampler.uv[0] as number;
    }
    sampler.nextPart(way, ways);
    const choice = sampler.uv[0] as number;
    const base = choice >= share;
    const through = base && this.goesThrough(choice);
    // What is left of the number that made the choices is as even within its part.
    if (hit.kind === TRANSLUCENT) this.stretch(sentBackShare(t, hit.place, hit.albedo), through);
    else if (share > 0) this.stretch(share, base);
    if (base && !through) this.guide.bend(sampler.uv);
    if (!sampleScatter(this.into, t, hit.place, hit.albedo, share, this.out, choice, sampler.uv))
      return false;
    this.evaluate(share);
    const pdf = this.scatter[PDF] as number;
    if (!(pdf > 0)) return false;
    this.lastPdf = pdf * ways;
    const cosIn = this.into[2] as number;
    const gain = Math.abs(cosIn) / pdf;
    if (this.splits && this.kept) this.losePolarisation(split);
    for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) * (this.scatter[a] as number) * gain;
    fromFrame(this.direction, this.into, hit.frame, hit.normal);
    if (choice >= share || !this.isSharp()) this.sharp = false;
    return dot3(this.direction, hit.flat) > 0 === cosIn > 0;
  }

  /** Stretches the sampler's first number over its part: from 0 to a border, or from there to 1. */
  private stretch(border: number, above: boolean): void {
    const uv = this.sampler.uv;
    const u = uv[0] as number;
    uv[0] = above ? Math.min(LARGEST, (u - border) / (1 - border)) : Math.min(LARGEST, u / border);
  }

  /** Whether the direction sampled lies beyond a thin sheet. */
  private goesThrough(choice: number): boolean {
    const hit = this.hit;
    return hit.kind === TRANSLUCENT && choice >= sentBackShare(this.t, hit.place, hit.albedo);
  }

  /** Whether the direction sampled carries what has kept its polarisation, by chance in the right proportion. */
  private losePolarisation(split: number): void {
    const s = this.scatter;
    const all = (s[0] as number) + (s[1] as number) + (s[2] as number);
    const base = (s[BASE_PART] as number) + (s[BASE_PART + 1] as number) + (s[BASE_PART + 2] as number);
    const lost = split * all < base;
    for (let c = 0; c < 3; c++) {
      const part = lost ? (s[BASE_PART + c] as number) : (s[c] as number) - (s[BASE_PART + c] as number);
      s[c] = (part * all) / (lost ? base : all - base);
    }
    if (lost) this.kept = false;
  }

  /** Wax and food: the skin mirrors, the rest walks inside and comes out nearby. */
  private throughWax(): boolean {
    this.guide.aim(-1);
    this.askOnce();
    const t = this.t;
    const hit = this.hit;
    const sampler = this.sampler;
    const place = hit.place;
    const clear = (t.surfaces[place + COAT_ALPHA] as number) === 0;
    const share = Math.max(0.1, Math.min(0.9, mirrorShareOf(t, place, hit.albedo, hit.cosOut)));
    if (clear) {
      if (this.clearCoatMirrors(share)) return true;
      scale3(this.weight, 1 - coatAlbedo(t, place, hit.cosOut));
    } else {
      hit.lookOut(t, this.direction, this.out);
      copy3(this.chosenAt, hit.point);
      this.askLights(1, true);
      sampler.next();
      if ((sampler.uv[0] as number) < share) {
        sampler.next();
        const mirrored = sampleCoat(this.into, t, place, this.out, sampler.uv) / share;
        if (!(mirrored > 0)) return false;
        evaluateScatter(this.scatter, t, place, hit.albedo, 1, this.out, this.into);
        this.lastPdf = this.scatter[PDF] as number;
        this.sheetsAsked = false;
        this.mirrorsAsked = false;
        this.wentByMirror = false;
        scale3(this.weight, mirrored);
        fromFrame(this.direction, this.into, hit.frame, hit.normal);
        if (!this.isSharp()) this.sharp = false;
        return dot3(this.direction, hit.flat) > 0;
      }
      scale3(this.weight, (1 - coatAlbedo(t, place, hit.cosOut)) / (1 - share));
    }
    this.kept = false;
    this.sharp = false;
    if (!this.wax.walk(hit, this.weight, sampler)) return false;
    // Out again, as from a matte surface under its skin.
    copy3(this.chosenAt, hit.point);
    this.askLightsAtExit();
    sampler.next();
    cosineAbove(this.into, sampler.uv);
    const cosIn = this.into[2] as number;
    this.lastPdf = cosIn / Math.PI;
    this.sheetsAsked = false;
    this.mirrorsAsked = false;
    this.wentByMirror = false;
    scale3(this.weight, this.leaves(cosIn));
    fromFrame(this.direction, this.into, hit.frame, hit.normal);
    return dot3(this.direction, hit.flat) > 0;
  }

  /** All surfaces of a quick picture: the base ends the path, the mirror lobe goes on. */
  private scatterQuickly(): boolean {
    const t = this.t;
    const hit = this.hit;
    const sampler = this.sampler;
    const place = hit.place;
    hit.lookOut(t, this.direction, this.out);
    copy3(this.chosenAt, hit.point);
    if ((t.surfaces[place + COAT_INDEX] as number) !== 0) {
      sampler.next();
      const mirrored = sampleCoat(this.into, t, place, this.out, sampler.uv);
      fromFrame(this.branchDirection, this.into, hit.frame, hit.normal);
      const outwards = dot3(this.branchDirection, hit.flat) > 0;
      if (this.mayPart(1)) {
        if (outwards) this.keepBranch(mirrored);
      } else {
        const share = mirrorShareOf(t, place, hit.albedo, hit.cosOut);
        sampler.next();
        const takesCoat = (sampler.uv[0] as number) < share;
        scale3(this.weight, takesCoat ? mirrored / share : 1 / (1 - share));
        if (takesCoat) {
          copy3(this.direction, this.branchDirection);
          this.lastPdf = 0;
          return outwards;
        }
      }
    } else if (hit.kind === METAL) {
      sampler.next();
      if (!sampleScatter(this.into, t, place, hit.albedo, 1, this.out, 0, sampler.uv)) return false;
      evaluateScatter(this.scatter, t, place, hit.albedo, 1, this.out, this.into);
      const gain = (this.into[2] as number) / (this.scatter[PDF] as number);
      for (let c = 0; c < 3; c++) {
        this.weight[c] = (this.weight[c] as number) * (this.scatter[c] as number) * gain;
      }
      fromFrame(this.direction, this.into, hit.frame, hit.normal);
      this.lastPdf = 0;
      return dot3(this.direction, hit.flat) > 0;
    }
    this.askLights(0, false);
    const kept = baseAlbedo(t, place, hit.cosOut);
    for (let channel = 0; channel < t.channelCount; channel++) {
      for (let c = 0; c < 3; c++) {
        const colour = (hit.albedo[c] as number) * kept + (t.surfaces[place + SPREAD + c] as number);
        const i = 3 * channel + c;
        const added = (this.weight[c] as number) * colour * (this.ambient[channel] as number);
        this.films[i] = (this.films[i] as number) + added;
      }
    }
    return false;
  }
}
