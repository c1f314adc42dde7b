import { addColoured } from './blend.js';
import { Branches } from './branches.js';
import { emittedLuminance, emitterPdf, sampleEmitter } from './emitters.js';
import { fresnelMean } from './fresnel.js';
import type { Kernel } from './kernel.js';
import { absorbOver, indexIn, mediaBeyond } from './media.js';
import { MirrorLights } from './mirrorLights.js';
import { letsThroughStraight, Passage } from './passage.js';
import { floor32, highestBit, type i32, real, whole32 } from './portable.js';
import { netOpenness, surfaceColour } from './print.js';
import type { Sampler } from './sampler.js';
import {
  BASE_PART,
  baseAlbedo,
  coatAlbedo,
  evaluateBase,
  evaluateScatter,
  lobeFresnel,
  mirrorShareOf,
  PDF,
  sampleCoat,
  sampleScatter,
  sentByBase,
} from './scatter.js';
import { irradianceAt, patchAt, SheetSampler } from './sheets.js';
import { SurfaceHit } from './surfaceHit.js';
import {
  ALPHA_Y,
  CHANNEL,
  COAT_ALPHA,
  COAT_INDEX,
  COAT_PASSED,
  COATED,
  DIELECTRIC,
  EMITTER,
  LOBE,
  METAL,
  MIRROR,
  NET,
  PANEL,
  PANEL_FIRST,
  PANEL_OTHER,
  PANEL_SIDE,
  type SceneTables,
  SPREAD,
  STRAIGHT,
  SUN,
  SURFACE,
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
import { WaxWalk } from './waxWalk.js';

/** From this bounce on one light, picked at random, is asked instead of all of them. */
const ONE_LIGHT_FROM = 2;
/** A mirror is asked with this many times the chance of what it mirrors. */
const MIRROR_ASKED = 1;
/** From this bounce on paths end at random (Russian roulette), which keeps the mean. */
const ROULETTE_FROM = 3;
/** Paths that have met only mirrors and clear things do so from here, or when this much is left. */
const SHARP_ROULETTE_FROM = 12;
/** Of what mirrors and lets through, a part smaller than this is followed by chance. */
const LEAST_BRANCH = 0.01;
/** Even a path that loses nothing goes on with this chance only, so that it ends. */
const MOST_SURVIVAL = 0.95;
/** What is seen in a mirror lobe narrower than this GGX alpha is traced, not taken from lit sheets. */
const SHARP_ALPHA = 0.15;

/**
 * Path tracer with light sampling and multiple importance sampling (power heuristic), nested dielectrics by
 * priority, thin sheets, lit sheets, and a split into mirror and rest at the first surface. It adds to
 * `films[3 channel + colour]` the luminance, for each film at unit luminance, that arrives at a point against a
 * direction. Separable by light. Without lit sheets and ambient it is unbiased.
 * Limits: no dispersion; polarisation as kept or lost, no phase; no light sampling through glass (light finds its
 * way by chance).
 * Sources: Kajiya 1986; Veach 1997 ch. 9; Schmidt and Budge 2002 (nested dielectrics); docs/physics/render.md
 */
export class PathTracer {
  films: Float64Array;
  /** 1 for each film whose lights are asked, 0 for one that is not wanted. */
  wanted: Float64Array;
  /**
   * Quick picture: paths end at the first matte surface, where this luminance from all round, for each film, stands
   * for all light that has bounced; biased, for the preview only.
   */
  ambient: Float64Array;
  quick: boolean = false;
  /** Whether paths end on lit sheets once they have scattered. */
  useSheets: boolean = false;
  /**
   * Instead of ending with the light of a lit sheet, write down where the path met it: patches of both its sides
   * (-1 for none) and what their irradiance counts, red green blue each.
   */
  recording: boolean = false;
  metPatch: i32 = -1;
  metOther: i32 = -1;
  metFactor: Float64Array = new Float64Array(6);

  private t: SceneTables;
  private kernel: Kernel;
  private sampler: Sampler;
  private passage: Passage;
  private wax: WaxWalk;
  private sheets: SheetSampler;
  private mirrors: MirrorLights;
  private splits: boolean = false;

  // State of one path: the next ray and its throughput.
  private hit: SurfaceHit = new SurfaceHit();
  private origin: Float64Array = new Float64Array(3);
  private direction: Float64Array = new Float64Array(3);
  private weight: Float64Array = new Float64Array(3);
  private out: Float64Array = new Float64Array(3);
  private into: Float64Array = new Float64Array(3);
  /** Where the direction was last chosen, and with what density per sr; 0 where light sampling had no part. */
  private chosenAt: Float64Array = new Float64Array(3);
  private lastPdf: number = 0;
  /** A bit for each medium the path is in, the highest fills the space. */
  private inside: i32 = 0;
  private bounce: i32 = 0;
  /** Until the path has met what takes polarisation away; while all it met were mirrors and glass. */
  private kept: boolean = true;
  private sharp: boolean = true;
  /** The coat of the surface met scatters alone: its base has been, or will be, taken from a lit sheet. */
  private coatAlone: boolean = false;
  /** Whether the bright panels were asked where the direction was last chosen. */
  private sheetsAsked: boolean = false;
  /** Whether lights were asked there by way of flat mirrors, and the path has since gone by such a mirror. */
  private mirrorsAsked: boolean = false;
  private wentByMirror: boolean = false;
  private branches: Branches = new Branches();
  private branchDirection: Float64Array = new Float64Array(3);
  /** Largest throughput the way being followed set out with. */
  private setOutWith: number = 1;
  // Scratch of the steps.
  private light: Float64Array = new Float64Array(6);
  private scatter: Float64Array = new Float64Array(7);
  private irradiance: Float64Array;
  private sheetAlbedo: Float64Array = new Float64Array(3);
  private printed: Float64Array = new Float64Array(3);
  private spread: Float64Array = new Float64Array(3);
  private sheetFactor: Float64Array = new Float64Array(3);
  private keptWeight: Float64Array = new Float64Array(3);

  constructor(t: SceneTables, kernel: Kernel, sampler: Sampler) {
    const size = 3 * t.channelCount;
    this.t = t;
    this.kernel = kernel;
    this.sampler = sampler;
    this.films = new Float64Array(size);
    this.wanted = new Float64Array(t.channelCount);
    this.ambient = new Float64Array(t.channelCount);
    this.irradiance = new Float64Array(size);
    this.passage = new Passage(t, kernel);
    this.wax = new WaxWalk(t, kernel);
    this.sheets = new SheetSampler(t);
    this.mirrors = new MirrorLights(t);
    for (let channel = 0; channel < t.channelCount; channel++) {
      this.wanted[channel] = 1;
      if ((t.keptChannel[channel] as i32) !== channel) this.splits = true;
    }
  }

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
    const branches = this.branches;
    branches.start();
    this.follow(scattered);
    while (branches.waiting > 0) {
      this.bounce = branches.bounceOfLast();
      this.inside = branches.pop(this.origin, this.direction, this.weight);
      this.setOutWith = this.mostWeight();
      this.lastPdf = 0;
      this.sheetsAsked = false;
      this.kept = true;
      this.sharp = true;
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

  /** A light was hit: its share by multiple importance sampling. */
  private meetLight(emitter: i32): void {
    const t = this.t;
    const e = emitter * EMITTER;
    let share = emittedLuminance(t, e, this.hit.point, this.direction);
    const channel = whole32(t.emitters[e + CHANNEL] as number);
    if (this.lastPdf > 0) {
      if (share > 0) {
        const few = this.wentByMirror || this.bounce <= ONE_LIGHT_FROM;
        const asked: number = few ? 1 : real(t.emitterCount);
        const rival = emitterPdf(t, e, this.chosenAt, this.direction, this.distanceFromChoice()) / asked;
        share *= powerShare(this.lastPdf, rival);
      }
      this.addToFilm(channel, share);
      return;
    }
    this.addToFilm(channel, share);
    // The sun behind a window is met by mirrors and glass alone: all else finds it by light sampling.
    if (emitter + 1 >= t.emitterCount) return;
    const sun = e + EMITTER;
    if (whole32(t.emitters[sun] as number) !== SUN) return;
    const sunlit = emittedLuminance(t, sun, this.hit.point, this.direction);
    this.addToFilm(whole32(t.emitters[sun + CHANNEL] as number), sunlit);
  }

  private distanceFromChoice(): number {
    let squared: number = 0;
    for (let a = 0; a < 3; a++) {
      const d = (this.hit.point[a] as number) - (this.chosenAt[a] as number);
      squared += d * d;
    }
    return Math.sqrt(squared);
  }

  /**
   * Ends a scattered path on a lit sheet, or writes it down. Under a coat the grid knows of the base alone: by chance
   * the path goes on in the coat instead.
   * @returns false where there is no lit sheet, or the path goes on
   */
  private meetLitSheet(): boolean {
    const t = this.t;
    const hit = this.hit;
    const panel = t.panelAt[2 * hit.primitive + (hit.fromFront ? 0 : 1)] as i32;
    if (panel < 0) return false;
    if (hit.kind === COATED) {
      const share = mirrorShareOf(t, hit.place, hit.albedo, hit.cosOut);
      this.sampler.next();
      this.coatAlone = (this.sampler.uv[0] as number) < share;
      scale3(this.weight, 1 / (this.coatAlone ? share : 1 - share));
      if (this.coatAlone) return false;
    }
    sentByBase(this.sheetAlbedo, t, hit.place, hit.albedo, hit.cosOut);
    if (this.recording) {
      const other = whole32(t.panels[panel * PANEL + PANEL_OTHER] as number);
      const first = whole32(t.panels[panel * PANEL + PANEL_FIRST] as number);
      this.metPatch = first + patchAt(t, panel, hit.point);
      this.metOther = -1;
      if (other >= 0) {
        const otherFirst = whole32(t.panels[other * PANEL + PANEL_FIRST] as number);
        this.metOther = otherFirst + patchAt(t, other, hit.point);
      }
      for (let c = 0; c < 3; c++) {
        const w = (this.weight[c] as number) / Math.PI;
        this.metFactor[c] = w * (this.sheetAlbedo[c] as number);
        this.metFactor[3 + c] = w * (t.surfaces[hit.place + SPREAD + c] as number);
      }
      return true;
    }
    let share: number = 1;
    if (this.sheetsAsked && this.lastPdf > 0) {
      const rival = this.sheets.pdf(panel, hit.point, this.direction, this.distanceFromChoice());
      share = this.lastPdf / (this.lastPdf + rival);
    }
    this.addSheetLight(panel, hit.place, hit.point, share / Math.PI);
    return true;
  }

  /**
   * Adds the light of a lit sheet at a point of it, times the weight of the path.
   * @param place of its surface, whose base sends `sheetAlbedo` back  @param factor of the irradiance, 1/sr
   */
  private addSheetLight(panel: i32, place: i32, point: Float64Array, factor: number): void {
    const t = this.t;
    irradianceAt(this.irradiance, t, panel, point);
    this.addIrradiance(this.sheetAlbedo, factor);
    const other = whole32(t.panels[panel * PANEL + PANEL_OTHER] as number);
    if (other < 0 || whole32(t.surfaces[place] as number) !== TRANSLUCENT) return;
    irradianceAt(this.irradiance, t, other, point);
    for (let c = 0; c < 3; c++) this.spread[c] = t.surfaces[place + SPREAD + c] as number;
    this.addIrradiance(this.spread, factor);
  }

  private addIrradiance(colour: Float64Array, factor: number): void {
    for (let c = 0; c < 3; c++) {
      this.sheetFactor[c] = factor * (this.weight[c] as number) * (colour[c] as number);
    }
    addColoured(this.films, this.irradiance, this.sheetFactor, this.t.channelCount);
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

  /** Whether a path that has met only mirrors and clear things parts here. @param part the smaller one */
  private mayPart(part: number): boolean {
    if (!this.sharp || this.branches.left === 0) return false;
    return this.bounce === 0 || (!this.quick && part * this.mostWeight() > LEAST_BRANCH);
  }

  /** Sets the mirrored part of a surface aside; its direction is written already. */
  private keepBranch(reflected: number): void {
    const hit = this.hit;
    const bounce = this.bounce + 1;
    this.branches.push(hit.point, this.branchDirection, this.weight, reflected, this.inside, bounce);
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
    const sampler = this.sampler;
    const weight = this.weight;
    let share = mirrorShareOf(t, hit.place, hit.albedo, hit.cosOut);
    if (this.coatAlone) share = 1;
    if (hit.kind === COATED && (t.surfaces[hit.place + COAT_ALPHA] as number) === 0) {
      if (this.clearCoatMirrors(share)) return true;
      // The clear coat's choice is made: what is left scatters from the base alone.
      share = 0;
    }
    hit.lookOut(t, this.direction, this.out);
    copy3(this.chosenAt, hit.point);
    this.askLights(share, true);
    this.askSheets(share);
    this.askMirrors(share);

    let choice: number = 1;
    let split: number = 0;
    if (share > 0 || hit.kind === TRANSLUCENT || this.splits) {
      sampler.next();
      choice = sampler.uv[0] as number;
      split = sampler.uv[1] as number;
    }
    sampler.next();
    if (!sampleScatter(this.into, t, hit.place, hit.albedo, share, this.out, choice, sampler.uv))
      return false;
    this.evaluate(share);
    const pdf = this.scatter[PDF] as number;
    if (!(pdf > 0)) return false;
    this.lastPdf = pdf;
    const cosIn = this.into[2] as number;
    const gain = Math.abs(cosIn) / pdf;
    if (this.splits && this.kept) this.losePolarisation(split);
    for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) * (this.scatter[a] as number) * gain;
    fromFrame(this.direction, this.into, hit.frame, hit.normal);
    if (choice >= share || !this.isSharp()) this.sharp = false;
    return dot3(this.direction, hit.flat) > 0 === cosIn > 0;
  }

  /** Scattering at the surface met, from `out` to `into`; of the coat alone where the base has been dealt with. */
  private evaluate(share: number): void {
    const s = this.scatter;
    evaluateScatter(s, this.t, this.hit.place, this.hit.albedo, share, this.out, this.into);
    if (!this.coatAlone) return;
    for (let c = 0; c < 3; c++) {
      s[c] = (s[c] as number) - (s[BASE_PART + c] as number);
      s[BASE_PART + c] = 0;
    }
  }

  /** Whether the mirror lobe here is so narrow that it shows things sharply. */
  private isSharp(): boolean {
    const s = this.t.surfaces;
    const o = this.hit.place;
    if ((s[o + COAT_INDEX] as number) !== 0) return (s[o + COAT_ALPHA] as number) < SHARP_ALPHA;
    return (s[o + LOBE] as number) > 0 && (s[o + ALPHA_Y] as number) < SHARP_ALPHA;
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

  /** What of light from inside leaves wax towards a direction, over that of an even exit. */
  private leaves(cosIn: number): number {
    const passed = this.t.surfaces[this.hit.place + COAT_PASSED] as number;
    return (1 - coatAlbedo(this.t, this.hit.place, cosIn)) / passed;
  }

  /** First of the lights asked here; the last is this or, for the first surfaces, the end of the list. */
  private firstLight(): i32 {
    const count = this.t.emitterCount;
    if (this.bounce < ONE_LIGHT_FROM || count < 2) return 0;
    this.sampler.next();
    const first = floor32((this.sampler.uv[0] as number) * real(count));
    return first < count ? first : count - 1;
  }

  private lightsFrom(first: i32): i32 {
    const count = this.t.emitterCount;
    return this.bounce < ONE_LIGHT_FROM || count < 2 ? count : first + 1;
  }

  private isWanted(e: i32): boolean {
    return (this.wanted[whole32(this.t.emitters[e + CHANNEL] as number)] as number) > 0;
  }

  /** Over how many lights one question is shared. */
  private shared(): number {
    return this.bounce < ONE_LIGHT_FROM ? 1 : real(this.t.emitterCount);
  }

  /** Asks the lights where light leaves wax. */
  private askLightsAtExit(): void {
    const t = this.t;
    const hit = this.hit;
    const films = this.films;
    const asked = this.shared();
    const first = this.firstLight();
    const last = this.lightsFrom(first);
    for (let index = first; index < last; index++) {
      const e = index * EMITTER;
      this.sampler.next();
      if (!this.isWanted(e)) continue;
      if (!sampleEmitter(this.light, t, e, hit.point, this.sampler.uv)) continue;
      const luminance = this.light[5] as number;
      const cosIn = dot3(this.light, hit.normal);
      if (!(luminance > 0 && cosIn > 0 && dot3(this.light, hit.flat) > 0)) continue;
      if (!this.passage.between(hit.point, this.light, this.light[3] as number)) continue;
      const density = (this.light[4] as number) / asked;
      const even = cosIn / Math.PI;
      const value = (luminance * even * this.leaves(cosIn) * powerShare(density, even)) / density;
      const channel = whole32(t.emitters[e + CHANNEL] as number);
      for (let c = 0; c < 3; c++) {
        const i = 3 * channel + c;
        films[i] =
          (films[i] as number) + (this.weight[c] as number) * (this.passage.passed[c] as number) * value;
      }
    }
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

  /** @param joined with scattering by the power heuristic; otherwise the base alone, by light sampling alone */
  private askLights(share: number, joined: boolean): void {
    const t = this.t;
    const hit = this.hit;
    const light = this.light;
    const asked = this.shared();
    const first = this.firstLight();
    const last = this.lightsFrom(first);
    for (let index = first; index < last; index++) {
      const e = index * EMITTER;
      this.sampler.next();
      if (!this.isWanted(e)) continue;
      if (!sampleEmitter(light, t, e, hit.point, this.sampler.uv)) continue;
      if (!((light[5] as number) > 0 && this.canSee())) continue;
      if (joined) this.evaluate(share);
      else evaluateBase(this.scatter, t, hit.place, hit.albedo, this.out, this.into);
      if (!this.passage.between(hit.point, light, light[3] as number)) continue;
      const rival: number = joined ? (this.scatter[PDF] as number) : 0;
      const density = (light[4] as number) / asked;
      const value =
        ((light[5] as number) * Math.abs(this.into[2] as number) * powerShare(density, rival)) / density;
      this.addScattered(whole32(t.emitters[e + CHANNEL] as number), value, joined);
    }
  }

  /** Asks the lights by way of the flat mirrors, from the first surfaces. */
  private askMirrors(share: number): void {
    const t = this.t;
    const hit = this.hit;
    const light = this.light;
    const mirrors = this.mirrors;
    const passed = this.passage.passed;
    this.wentByMirror = false;
    this.mirrorsAsked = mirrors.count > 0 && this.bounce < ONE_LIGHT_FROM;
    if (!this.mirrorsAsked) return;
    for (let m = 0; m < mirrors.count; m++) {
      const primitive = mirrors.primitiveOf(m);
      if (primitive === hit.primitive || !mirrors.look(m, hit.point)) continue;
      for (let index = 0; index < t.emitterCount; index++) {
        const e = index * EMITTER;
        this.sampler.next();
        if (!this.isWanted(e)) continue;
        if (!sampleEmitter(light, t, e, mirrors.image, this.sampler.uv)) continue;
        if (!((light[5] as number) > 0 && mirrors.turn(light) && this.canSee())) continue;
        const chance = Math.min(1, MIRROR_ASKED * (mirrors.mirrored[1] as number));
        if (chance < 1) {
          this.sampler.next();
          if ((this.sampler.uv[0] as number) >= chance) continue;
        }
        this.kernel.setRay(hit.point, light, Infinity);
        if (this.kernel.closestHit() !== primitive) continue;
        if (!this.passage.between(mirrors.crossing, mirrors.beyond, mirrors.after)) continue;
        for (let c = 0; c < 3; c++) passed[c] = (passed[c] as number) * (mirrors.mirrored[c] as number);
        this.evaluate(share);
        const density = light[4] as number;
        const rival = (this.scatter[PDF] as number) * (mirrors.mirrored[1] as number);
        const value =
          ((light[5] as number) * Math.abs(this.into[2] as number) * powerShare(density, rival)) / density;
        this.addScattered(whole32(t.emitters[e + CHANNEL] as number), value / chance, true);
      }
    }
  }

  /** Whether the direction in `light` lies on a side the surface scatters to; writes it to `into`. */
  private canSee(): boolean {
    const hit = this.hit;
    const cosIn = dot3(this.light, hit.normal);
    const side = dot3(this.light, hit.flat);
    if (!(cosIn > 0 && side > 0) && !(hit.kind === TRANSLUCENT && cosIn < 0 && side < 0)) return false;
    this.into[0] = hit.along(this.light, 0);
    this.into[1] = hit.along(this.light, 3);
    this.into[2] = cosIn;
    return true;
  }

  /** Adds what is scattered of a light, apart by polarisation where the light has a film on. */
  private addScattered(channel: i32, value: number, joined: boolean): void {
    const films = this.films;
    const keptChannel = this.t.keptChannel[channel] as i32;
    const apart = joined && keptChannel !== channel && this.kept;
    for (let c = 0; c < 3; c++) {
      const factor = (this.weight[c] as number) * (this.passage.passed[c] as number) * value;
      const all = this.scatter[c] as number;
      const base: number = apart ? (this.scatter[BASE_PART + c] as number) : all;
      const i = 3 * channel + c;
      films[i] = (films[i] as number) + factor * base;
      if (apart) films[3 * keptChannel + c] = (films[3 * keptChannel + c] as number) + factor * (all - base);
    }
  }

  /** Samples a bright place of the lit sheets, joined with scattering by the power heuristic. */
  private askSheets(share: number): void {
    this.sheetsAsked = false;
    const t = this.t;
    const hit = this.hit;
    const light = this.light;
    const sheets = this.sheets;
    if (!this.useSheets || this.recording || t.brightPanel.length === 0 || this.isSharp()) return;
    if (!sheets.look(hit.point)) return;
    this.sheetsAsked = true;
    this.sampler.next();
    const choice = this.sampler.uv[0] as number;
    this.sampler.next();
    const panel = sheets.sample(light, choice, this.sampler.uv);
    if (panel < 0 || !this.canSee()) return;
    if (!this.passage.between(hit.point, light, light[3] as number)) return;
    this.evaluate(share);
    const density = light[4] as number;
    const cosIn = Math.abs(this.into[2] as number);
    const value = cosIn / (density + (this.scatter[PDF] as number));
    const primitive = whole32(t.panels[panel * PANEL] as number);
    const side = (t.panels[panel * PANEL + PANEL_SIDE] as number) > 0 ? t.back : t.front;
    const surface = side[primitive] as i32;
    surfaceColour(this.printed, t, surface, primitive, sheets.target);
    copy3(this.keptWeight, this.weight);
    for (let c = 0; c < 3; c++) {
      const passed = (this.scatter[c] as number) * (this.passage.passed[c] as number);
      this.weight[c] = (this.weight[c] as number) * passed * value;
    }
    const place = surface * SURFACE;
    sentByBase(this.sheetAlbedo, t, place, this.printed, sheets.cosine);
    this.addSheetLight(panel, place, sheets.target, 1 / Math.PI);
    copy3(this.weight, this.keptWeight);
  }

  /** Russian roulette by what is left of what the way set out with; clear ways go on longer. */
  private survives(): boolean {
    const most = this.mostWeight();
    if (!(most > 0)) return false;
    if (this.bounce < ROULETTE_FROM) return true;
    const left = most / this.setOutWith;
    if (this.sharp && this.bounce < SHARP_ROULETTE_FROM && left > LEAST_BRANCH) return true;
    const survival = Math.min(MOST_SURVIVAL, left);
    this.sampler.next();
    if ((this.sampler.uv[0] as number) >= survival) return false;
    scale3(this.weight, 1 / survival);
    return true;
  }

  private mostWeight(): number {
    const w = this.weight;
    return Math.max(w[0] as number, Math.max(w[1] as number, w[2] as number));
  }

  private addToFilm(channel: i32, share: number): void {
    const film = this.kept ? (this.t.keptChannel[channel] as i32) : channel;
    for (let a = 0; a < 3; a++) {
      const i = 3 * film + a;
      this.films[i] = (this.films[i] as number) + share * (this.weight[a] as number);
    }
  }
}

/**
 * Share of one way of sampling where another could have found the same, by the power heuristic with exponent 2: it
 * trusts the denser way more than the balance heuristic does, which pays where a large light fills much of the view.
 * Source: Veach 1997 sec. 9.2.4
 */
function powerShare(own: number, rival: number): number {
  const r = rival / own;
  return 1 / (1 + r * r);
}
