import { fresnelMean } from './fresnel.js';
import { COAT_ALPHA, COAT_INDEX, COATED, METAL, TRANSLUCENT } from './layouts.js';
import { ONE_LIGHT_FROM, PathLights } from './pathLights.js';
import type { i32 } from './portable.js';
import {
  BASE_PART,
  coatAlbedo,
  evaluateScatter,
  lobeFresnel,
  mirrorShareOf,
  PDF,
  sampleCoat,
  sampleScatter,
  sentBackShare,
} from './scatter.js';
import { copy3, cosineAbove, dot3, fromFrame, mirrorDirection, scale3 } from './vectors.js';

/** Largest number the sampler gives. */
const LARGEST = 0.9999999997671694;

/** How a path goes on from a surface that mirrors or scatters, and from under the skin of wax. */
export class PathScatter extends PathLights {
  protected mirrorOn(): void {
    this.fromCloud = false;
    const hit = this.hit;
    for (let c = 0; c < 3; c++) {
      this.weight[c] = this.weight[c] * lobeFresnel(this.t, hit.place, c, hit.cosOut);
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
    const reflected = fresnelMean(hit.cosOut, this.t.surfaces[hit.place + COAT_INDEX]);
    if (this.mayPart(reflected)) {
      mirrorDirection(this.branchDirection, this.direction, hit.normal, hit.flat);
      this.keepBranch(reflected, true);
      return false;
    }
    if (share < 1) this.sampler.next();
    const coat = share >= 1 || this.sampler.uv[0] < share;
    scale3(this.weight, coat ? reflected / share : 1 / (1 - share));
    if (!coat) return false;
    this.goByMirror(reflected);
    return true;
  }

  /** All that scatters: asks the lights, then goes on in a sampled direction. */
  protected scatterOn(): boolean {
    this.fromCloud = false;
    const t = this.t;
    const hit = this.hit;
    let share = mirrorShareOf(t, hit.place, hit.albedo, hit.cosOut);
    if (this.coatAlone) share = 1;
    if (hit.kind === COATED && t.surfaces[hit.place + COAT_ALPHA] === 0) {
      if (this.clearCoatMirrors(share)) return true;
      // The clear coat's choice is made: what is left scatters from the base alone.
      share = 0;
    }
    hit.lookOut(t, this.direction, this.out);
    copy3(this.chosenAt, hit.point);
    this.findPatch();
    this.decideTimes();
    this.guide.aim(this.patch);
    this.aimAtRoughMirrors();
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
    const hit = this.hit;
    const sampler = this.sampler;
    const weight = this.weight;
    const ways = this.ways;
    let split: number = 0;
    if (this.splits) {
      sampler.nextPart(way, ways);
      split = sampler.uv[0];
    }
    sampler.nextPart(way, ways);
    const towards = this.rough.share;
    const aimed = sampler.uv[0] < towards;
    // What is left of the number that made a choice is as even within its part.
    if (towards > 0) this.stretch(towards, !aimed);
    const base = aimed || sampler.uv[0] >= share;
    if (aimed) {
      this.rough.aim(this.light, sampler.uv);
      if (!this.canSee()) return false;
    } else if (!this.scatterInto(share, base)) return false;
    this.evaluate(share);
    const pdf = this.scatter[PDF];
    if (!(pdf > 0)) return false;
    this.lastPdf = pdf * ways;
    const cosIn = this.into[2];
    const gain = Math.abs(cosIn) / pdf;
    if (this.splits && this.kept) this.losePolarisation(split);
    for (let a = 0; a < 3; a++) weight[a] = weight[a] * this.scatter[a] * gain;
    fromFrame(this.direction, this.into, hit.frame, hit.normal);
    if (base || !this.isSharp()) this.sharp = false;
    return dot3(this.direction, hit.flat) > 0 === cosIn > 0;
  }

  /** Samples a direction by how the surface scatters. @param base whether by its base, not its coat */
  private scatterInto(share: number, base: boolean): boolean {
    const t = this.t;
    const hit = this.hit;
    const uv = this.sampler.uv;
    const choice = uv[0];
    const through = base && this.goesThrough(choice);
    if (hit.kind === TRANSLUCENT) this.stretch(sentBackShare(t, hit.place, hit.albedo), through);
    else if (share > 0) this.stretch(share, base);
    if (base && !through) this.guide.bend(uv);
    return sampleScatter(this.into, t, hit.place, hit.albedo, share, this.out, choice, uv);
  }

  /** From the first surfaces some paths are sent to silver cards and foil. */
  private aimAtRoughMirrors(): void {
    const rough = this.rough;
    const wide = this.hit.kind !== METAL && !this.coatAlone;
    if (rough.count > 0 && wide && this.bounce < ONE_LIGHT_FROM) rough.look(this.hit.point);
    else rough.turnOff();
  }

  /** Stretches the sampler's first number over its part: from 0 to a border, or from there to 1. */
  private stretch(border: number, above: boolean): void {
    const uv = this.sampler.uv;
    const u = uv[0];
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
    const all = s[0] + s[1] + s[2];
    const base = s[BASE_PART] + s[BASE_PART + 1] + s[BASE_PART + 2];
    // Where nothing is scattered, as by a base of reflectance 0, there are no parts to choose from.
    if (!(all > 0)) {
      this.kept = false;
      return;
    }
    const lost = split * all < base;
    for (let c = 0; c < 3; c++) {
      const part = lost ? s[BASE_PART + c] : s[c] - s[BASE_PART + c];
      s[c] = (part * all) / (lost ? base : all - base);
    }
    if (lost) this.kept = false;
  }

  /** Wax and food: the skin mirrors, the rest walks inside and comes out nearby. */
  protected throughWax(): boolean {
    this.fromCloud = false;
    this.guide.aim(-1);
    this.rough.turnOff();
    this.askOnce();
    const t = this.t;
    const hit = this.hit;
    const sampler = this.sampler;
    const place = hit.place;
    const clear = t.surfaces[place + COAT_ALPHA] === 0;
    const share = Math.max(0.1, Math.min(0.9, mirrorShareOf(t, place, hit.albedo, hit.cosOut)));
    if (clear) {
      if (this.clearCoatMirrors(share)) return true;
      scale3(this.weight, 1 - coatAlbedo(t, place, hit.cosOut));
    } else {
      hit.lookOut(t, this.direction, this.out);
      copy3(this.chosenAt, hit.point);
      this.askLights(1, true);
      sampler.next();
      if (sampler.uv[0] < share) {
        sampler.next();
        const mirrored = sampleCoat(this.into, t, place, this.out, sampler.uv) / share;
        if (!(mirrored > 0)) return false;
        evaluateScatter(this.scatter, t, place, hit.albedo, 1, this.out, this.into);
        this.lastPdf = this.scatter[PDF];
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
    return this.comeOut();
  }

  /** Out again, as from a matte surface under its skin. @returns false where the way leads nowhere */
  protected comeOut(): boolean {
    const hit = this.hit;
    const sampler = this.sampler;
    copy3(this.chosenAt, hit.point);
    this.askLightsAtExit();
    sampler.next();
    cosineAbove(this.into, sampler.uv);
    const cosIn = this.into[2];
    this.lastPdf = cosIn / Math.PI;
    this.sheetsAsked = false;
    this.mirrorsAsked = false;
    this.wentByMirror = false;
    scale3(this.weight, this.leaves(cosIn));
    fromFrame(this.direction, this.into, hit.frame, hit.normal);
    return dot3(this.direction, hit.flat) > 0;
  }
}
