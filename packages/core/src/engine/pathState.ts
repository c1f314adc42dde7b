import { addColoured } from './blend.js';
import { Branches } from './branches.js';
import { CloudWalk } from './cloudWalk.js';
import { fresnelMean } from './fresnel.js';
import { FrostWalk } from './frost.js';
import type { Kernel } from './kernel.js';
import {
  ALPHA_Y,
  COAT_ALPHA,
  COAT_INDEX,
  COAT_PASSED,
  DIELECTRIC,
  EMITTER_CHANNEL,
  FLAT,
  HAS_LOBE,
  LETS_IN,
  MAP_OTHER,
  MAP_STRIDE,
  MEDIUM_STRIDE,
  SPREAD,
  SURFACE_MEDIUM,
  TRANSLUCENT,
} from './layouts.js';
import { irradianceAt, LightmapSampler } from './lightmaps.js';
import { indexIn } from './media.js';
import { MirrorLights } from './mirrorLights.js';
import { Passage } from './passage.js';
import { PathGuide } from './pathGuide.js';
import { floor32, type i32, mul32, whole32 } from './portable.js';
import { RoughMirrors } from './roughMirrors.js';
import type { Sampler } from './sampler.js';
import { BASE_PART, coatAlbedo, evaluateScatter, PDF } from './scatter.js';
import { SurfaceHit } from './surfaceHit.js';
import type { SceneTables } from './tables.js';
import { copy3, dot3, fromFrame, most3, nearestAxis, scale3 } from './vectors.js';
import { WaxWalk } from './waxWalk.js';

/** From this bounce on paths end at random (Russian roulette), which keeps the mean. */
const ROULETTE_FROM = 3;
/** Paths that have met only mirrors and clear things do so from here, or when this much is left. */
const SHARP_ROULETTE_FROM = 12;
/** Of what mirrors and lets through, a part smaller than this is followed by chance. */
const LEAST_BRANCH = 0.01;
/** Even a path that loses nothing goes on with this chance only, so that it ends. */
const MOST_SURVIVAL = 0.95;
/** What is seen in a mirror lobe narrower than this GGX alpha is traced, not taken from lightmaps. */
const SHARP_ALPHA = 0.15;

/** Steps of a colour from black to white that count as another one. */
const COLOUR_STEPS = 12;

/** Flags of a way set aside: see the fields of the same names below. */
const KEPT = 1;
const SHARP = 2;
const SHEETS_ASKED = 4;
const MIRRORS_ASKED = 8;
const LIGHTS_TWICE = 16;
const TWO_WAYS = 32;

/** A path that has lost more than this is not worth two questions where one will do. */
const WORTH_TWO = 0.3;

/** Where a path stands, what it carries, and how light is put into the films: what all its steps share. */
export class PathState {
  films: Float64Array;
  /** 1 for each film whose lights are asked, 0 for one that is not wanted. */
  wanted: Float64Array;
  /**
   * Quick picture: paths end at the first matte surface, where this luminance from all round, for each film, stands
   * for all light that has bounced; biased, for the preview only.
   */
  ambient: Float64Array;
  quick: boolean = false;
  /**
   * Of quick pictures: what the last path met while it had met only what is clear or mirrors sharply, and its colour, as one number.
   * Pixels with the same one show the same things.
   */
  seen: i32 = 0;
  /** Whether paths end on lightmaps once they have scattered. */
  useLightmaps: boolean = false;
  /**
   * Instead of ending with the light of a lightmap, write down where the path met it: patches of both its sides
   * (-1 for none) and what their irradiance counts, red green blue each.
   */
  recording: boolean = false;
  metPatch: i32 = -1;
  metOther: i32 = -1;
  metFactor: Float64Array = new Float64Array(6);

  protected t: SceneTables;
  protected kernel: Kernel;
  protected sampler: Sampler;
  protected passage: Passage;
  protected wax: WaxWalk;
  protected cloud: CloudWalk;
  /** Of quick pictures: where the path went into the clear things it is in, and the way it came. */
  protected entry: SurfaceHit = new SurfaceHit();
  protected entryWay: Float64Array = new Float64Array(3);
  protected frost: FrostWalk = new FrostWalk();
  protected sheets: LightmapSampler;
  protected guide: PathGuide;
  protected mirrors: MirrorLights;
  protected rough: RoughMirrors;
  protected splits: boolean = false;

  // State of one path: the next ray and its throughput.
  protected hit: SurfaceHit = new SurfaceHit();
  protected origin: Float64Array = new Float64Array(3);
  protected direction: Float64Array = new Float64Array(3);
  protected weight: Float64Array = new Float64Array(3);
  protected out: Float64Array = new Float64Array(3);
  protected into: Float64Array = new Float64Array(3);
  /** Where the direction was last chosen, and with what density per sr; 0 where light sampling had no part. */
  protected chosenAt: Float64Array = new Float64Array(3);
  protected lastPdf: number = 0;
  /** A bit for each medium the path is in, the highest fills the space. */
  protected inside: i32 = 0;
  protected bounce: i32 = 0;
  /** Whether the path was scattered last in something cloudy, with none but clear boundaries since. */
  protected fromCloud: boolean = false;
  /** Until the path has met what takes polarisation away; while all it met were mirrors and glass. */
  protected kept: boolean = true;
  protected sharp: boolean = true;
  /** The coat of the surface met scatters alone: its base has been, or will be, taken from a lightmap. */
  protected coatAlone: boolean = false;
  /** Whether the bright lightmaps were asked where the direction was last chosen. */
  protected sheetsAsked: boolean = false;
  /**
   * How often each light counts as asked there where what is met by chance is weighed against it (it may have been
   * asked more or less often, see `packLightSamples`), and how many ways lead on.
   */
  protected lightTimes: i32 = 1;
  protected ways: i32 = 1;
  /** Patch of a lightmap that was met, -1 for none. */
  protected patch: i32 = -1;
  /** Whether lights were asked there by way of flat mirrors, and the path has since gone by such a mirror. */
  protected mirrorsAsked: boolean = false;
  protected wentByMirror: boolean = false;
  protected branches: Branches = new Branches();
  protected branchDirection: Float64Array = new Float64Array(3);
  /** Largest throughput the way being followed set out with. */
  protected setOutWith: number = 1;
  // Scratch of the steps.
  protected light: Float64Array = new Float64Array(6);
  protected scatter: Float64Array = new Float64Array(7);
  protected irradiance: Float64Array;
  protected sheetAlbedo: Float64Array = new Float64Array(3);
  protected printed: Float64Array = new Float64Array(3);
  protected spread: Float64Array = new Float64Array(3);
  private towards: Float64Array = new Float64Array(3);
  protected sheetFactor: Float64Array = new Float64Array(3);
  protected halfWeight: Float64Array = new Float64Array(3);
  protected keptWeight: Float64Array = new Float64Array(3);

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
    this.cloud = new CloudWalk(t, kernel);
    this.sheets = new LightmapSampler(t);
    this.guide = new PathGuide(t);
    this.mirrors = new MirrorLights(t);
    this.rough = new RoughMirrors(t);
    for (let channel = 0; channel < t.channelCount; channel++) {
      this.wanted[channel] = 1;
      if (t.keptChannel[channel] !== channel) this.splits = true;
    }
  }

  protected distanceFromChoice(): number {
    let squared: number = 0;
    for (let a = 0; a < 3; a++) {
      const d = this.hit.point[a] - this.chosenAt[a];
      squared += d * d;
    }
    return Math.sqrt(squared);
  }

  /**
   * Adds the light of a lightmap at a point of it, times the weight of the path.
   * @param place of its surface, whose base sends `sheetAlbedo` back  @param factor of the irradiance, 1/sr
   */
  protected addSheetLight(lightmap: i32, place: i32, point: Float64Array, factor: number): void {
    const t = this.t;
    irradianceAt(this.irradiance, t, lightmap, point);
    this.addIrradiance(this.sheetAlbedo, factor);
    const other = whole32(t.lightmaps[lightmap * MAP_STRIDE + MAP_OTHER]);
    if (other < 0 || whole32(t.surfaces[place]) !== TRANSLUCENT) return;
    irradianceAt(this.irradiance, t, other, point);
    for (let c = 0; c < 3; c++) this.spread[c] = t.surfaces[place + SPREAD + c];
    this.addIrradiance(this.spread, factor);
  }

  protected addIrradiance(colour: Float64Array, factor: number): void {
    for (let c = 0; c < 3; c++) {
      this.sheetFactor[c] = factor * this.weight[c] * colour[c];
    }
    addColoured(this.films, this.irradiance, this.sheetFactor, this.t.channelCount);
  }

  /** Whether a path that has met only mirrors and clear things parts here. @param part the smaller one */
  protected mayPart(part: number): boolean {
    if (!this.sharp || this.branches.left === 0) return false;
    return this.bounce === 0 || (!this.quick && part * most3(this.weight) > LEAST_BRANCH);
  }

  /**
   * How much is asked where light is first scattered: twice on what goes on from there, as the way to the surface is
   * paid for; lights too where there is only one.
   */
  protected decideTimes(): void {
    const twice = this.sharp && this.branches.left > 0 && most3(this.weight) > WORTH_TWO;
    this.ways = twice ? 2 : 1;
    this.lightTimes = twice && this.t.emitterCount === 1 ? 2 : 1;
  }

  protected askOnce(): void {
    this.ways = 1;
    this.lightTimes = 1;
  }

  /** Sets aside one of the ways from where light is scattered. */
  protected keepWay(): void {
    let flags: i32 = TWO_WAYS;
    if (this.kept) flags |= KEPT;
    if (this.sharp) flags |= SHARP;
    if (this.sheetsAsked) flags |= SHEETS_ASKED;
    if (this.mirrorsAsked) flags |= MIRRORS_ASKED;
    if (this.lightTimes > 1) flags |= LIGHTS_TWICE;
    const point = this.hit.point;
    this.branches.push(
      point,
      this.direction,
      this.weight,
      1,
      this.inside,
      this.bounce + 1,
      this.lastPdf,
      flags,
    );
  }

  /** Takes up the way set aside last. */
  protected takeWay(): void {
    const branches = this.branches;
    const flags = branches.flagsOfLast();
    this.bounce = branches.bounceOfLast();
    this.lastPdf = branches.pdfOfLast();
    this.inside = branches.pop(this.origin, this.direction, this.weight);
    copy3(this.chosenAt, this.origin);
    this.setOutWith = most3(this.weight);
    this.kept = (flags & KEPT) !== 0;
    this.sharp = (flags & SHARP) !== 0;
    this.sheetsAsked = (flags & SHEETS_ASKED) !== 0;
    this.mirrorsAsked = (flags & MIRRORS_ASKED) !== 0;
    this.wentByMirror = false;
    this.fromCloud = false;
    this.lightTimes = (flags & LIGHTS_TWICE) !== 0 ? 2 : 1;
    this.ways = (flags & TWO_WAYS) !== 0 ? 2 : 1;
    if (this.sheetsAsked) this.sheets.look(this.origin);
  }

  /** Sets the mirrored part of a surface aside; its direction is written already. @param sharp whether it shows things */
  protected keepBranch(reflected: number, sharp: boolean): void {
    const hit = this.hit;
    const bounce = this.bounce + 1;
    this.branches.push(
      hit.point,
      this.branchDirection,
      this.weight,
      reflected,
      this.inside,
      bounce,
      0,
      sharp ? KEPT | SHARP : KEPT,
    );
  }

  /** Notes the surface met in `seen`; of what is made of flat pieces also which way they face. */
  protected noteSeen(): void {
    const hit = this.hit;
    const flat = this.t.kind[hit.primitive] === FLAT;
    this.note(8 * hit.surface + (flat ? nearestAxis(hit.flat) : 0));
  }

  /** Notes the colour of the surface met, in steps that print and patterns cross. */
  protected noteColour(): void {
    const albedo = this.hit.albedo;
    for (let c = 0; c < 3; c++) this.note(floor32(COLOUR_STEPS * albedo[c]));
  }

  private note(what: i32): void {
    this.seen = (mul32(this.seen ^ what, 0x7feb352d) + 1) | 0;
  }

  /** Scattering at the surface met, from `out` to `into`; of the coat alone where the base has been dealt with. */
  protected evaluate(share: number): void {
    const s = this.scatter;
    const gain = this.guide.gain(this.into);
    evaluateScatter(s, this.t, this.hit.place, this.hit.albedo, share, this.out, this.into, gain);
    if (this.rough.share > 0) this.mixDensities();
    if (!this.coatAlone) return;
    for (let c = 0; c < 3; c++) {
      s[c] = s[c] - s[BASE_PART + c];
      s[BASE_PART + c] = 0;
    }
  }

  /** Directions are scattered, or aimed at rough mirrors. */
  private mixDensities(): void {
    const share = this.rough.share;
    fromFrame(this.towards, this.into, this.hit.frame, this.hit.normal);
    const aimed = this.rough.density(this.towards);
    this.scatter[PDF] = (1 - share) * this.scatter[PDF] + share * aimed;
  }

  /** Whether the mirror lobe here is so narrow that it shows things sharply. */
  protected isSharp(): boolean {
    const s = this.t.surfaces;
    const o = this.hit.place;
    if (s[o + COAT_INDEX] !== 0) return s[o + COAT_ALPHA] < SHARP_ALPHA;
    const facets = s[o + HAS_LOBE] > 0 || this.hit.kind === DIELECTRIC;
    return facets && s[o + ALPHA_Y] < SHARP_ALPHA;
  }

  /** What of light from inside leaves wax, or something cloudy, towards a direction, over that of an even exit. */
  protected leaves(cosIn: number): number {
    const s = this.t.surfaces;
    const place = this.hit.place;
    if (this.hit.kind !== DIELECTRIC) return (1 - coatAlbedo(this.t, place, cosIn)) / s[place + COAT_PASSED];
    const media = this.t.media;
    const m = whole32(s[place + SURFACE_MEDIUM]) * MEDIUM_STRIDE;
    return (1 - fresnelMean(cosIn, media[m])) / media[m + LETS_IN];
  }

  protected isWanted(e: i32): boolean {
    return this.wanted[whole32(this.t.emitters[e + EMITTER_CHANNEL])] > 0;
  }

  /** Whether the direction in `light` lies on a side the surface scatters to; writes it to `into`. */
  protected canSee(): boolean {
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
  protected addScattered(channel: i32, value: number, joined: boolean): void {
    const films = this.films;
    const keptChannel = this.t.keptChannel[channel];
    const apart = joined && keptChannel !== channel && this.kept;
    for (let c = 0; c < 3; c++) {
      const factor = this.weight[c] * this.passage.passed[c] * value;
      const all = this.scatter[c];
      const base: number = apart ? this.scatter[BASE_PART + c] : all;
      const i = 3 * channel + c;
      films[i] = films[i] + factor * base;
      if (apart) films[3 * keptChannel + c] = films[3 * keptChannel + c] + factor * (all - base);
    }
  }

  /** Russian roulette by what is left of what the way set out with; clear ways go on longer. */
  protected survives(): boolean {
    // Within a medium luminance over the squared index is what is kept, and comes back on the way out.
    const index = indexIn(this.t, this.inside);
    const most = most3(this.weight) * index * index;
    if (!(most > 0)) return false;
    if (this.bounce < ROULETTE_FROM) return true;
    const left = most / this.setOutWith;
    if (this.sharp && this.bounce < SHARP_ROULETTE_FROM && left > LEAST_BRANCH) return true;
    const survival = Math.min(MOST_SURVIVAL, left);
    this.sampler.next();
    if (this.sampler.uv[0] >= survival) return false;
    scale3(this.weight, 1 / survival);
    return true;
  }

  protected addToFilm(channel: i32, share: number): void {
    const film = this.kept ? this.t.keptChannel[channel] : channel;
    for (let a = 0; a < 3; a++) {
      const i = 3 * film + a;
      this.films[i] = this.films[i] + share * this.weight[a];
    }
  }
}
