import { emittedLuminance, emitterPdf, sampleEmitter } from './emitters.js';
import {
  COATED,
  EMITTER_CHANNEL,
  EMITTER_KIND,
  EMITTER_STRIDE,
  LIGHT_DENSITY,
  LIGHT_DISTANCE,
  LIGHT_LUMINANCE,
  MAP_FIRST,
  MAP_OTHER,
  MAP_PRIMITIVE,
  MAP_SIDE,
  MAP_STRIDE,
  METAL,
  SPREAD,
  SUN,
  SURFACE_STRIDE,
} from './layouts.js';
import { patchAt } from './lightmaps.js';
import { PathState } from './pathState.js';
import { divide32, floor32, type i32, real, whole32 } from './portable.js';
import { surfaceColour } from './print.js';
import { evaluateBase, mirrorShareOf, PDF, sentByBase } from './scatter.js';
import { copy3, dot3, scale3 } from './vectors.js';

/** From this bounce on one light, picked at random, is asked instead of all of them. */
export const ONE_LIGHT_FROM = 2;

/** How a path finds light: lights and lightmaps that are asked, and those that are met by chance. */
export class PathLights extends PathState {
  /** A light was hit: its share by multiple importance sampling. */
  protected meetLight(emitter: i32): void {
    const t = this.t;
    const e = emitter * EMITTER_STRIDE;
    let share = emittedLuminance(t, e, this.hit.point, this.direction);
    const channel = whole32(t.emitters[e + EMITTER_CHANNEL]);
    if (this.lastPdf > 0) {
      if (share > 0) {
        const few = this.wentByMirror || this.bounce <= ONE_LIGHT_FROM;
        const asked: number = few ? 1 : real(t.emitterCount);
        const rival = emitterPdf(t, e, this.chosenAt, this.direction, this.distanceFromChoice()) / asked;
        share *= powerShare(this.lastPdf, this.wentByMirror ? rival : rival * this.lightTimes);
      }
      this.addToFilm(channel, share);
      return;
    }
    this.addToFilm(channel, share);
    // The sun behind a window is met by mirrors and glass alone: all else finds it by light sampling.
    if (emitter + 1 >= t.emitterCount) return;
    const sun = e + EMITTER_STRIDE;
    if (whole32(t.emitters[sun + EMITTER_KIND]) !== SUN) return;
    const sunlit = emittedLuminance(t, sun, this.hit.point, this.direction);
    this.addToFilm(whole32(t.emitters[sun + EMITTER_CHANNEL]), sunlit);
  }

  /**
   * Ends a scattered path on a lightmap, or writes it down. Under a coat the grid knows of the base alone: by chance
   * the path goes on in the coat instead.
   * @returns false where there is no lightmap, or the path goes on
   */
  protected meetLitSheet(): boolean {
    const t = this.t;
    const hit = this.hit;
    const lightmap = t.lightmapAt[2 * hit.primitive + (hit.fromFront ? 0 : 1)];
    if (lightmap < 0) return false;
    if (hit.kind === COATED) {
      const share = mirrorShareOf(t, hit.place, hit.albedo, hit.cosOut);
      this.sampler.next();
      this.coatAlone = this.sampler.uv[0] < share;
      scale3(this.weight, 1 / (this.coatAlone ? share : 1 - share));
      if (this.coatAlone) return false;
    }
    sentByBase(this.sheetAlbedo, t, hit.place, hit.albedo, hit.cosOut);
    if (this.recording) {
      const other = whole32(t.lightmaps[lightmap * MAP_STRIDE + MAP_OTHER]);
      const first = whole32(t.lightmaps[lightmap * MAP_STRIDE + MAP_FIRST]);
      this.metPatch = first + patchAt(t, lightmap, hit.point);
      this.metOther = -1;
      if (other >= 0) {
        const otherFirst = whole32(t.lightmaps[other * MAP_STRIDE + MAP_FIRST]);
        this.metOther = otherFirst + patchAt(t, other, hit.point);
      }
      for (let c = 0; c < 3; c++) {
        const w = this.weight[c] / Math.PI;
        this.metFactor[c] = w * this.sheetAlbedo[c];
        this.metFactor[3 + c] = w * t.surfaces[hit.place + SPREAD + c];
      }
      return true;
    }
    let share: number = 1;
    if (this.sheetsAsked && this.lastPdf > 0) {
      const rival =
        this.ways * this.sheets.pdf(lightmap, hit.point, this.direction, this.distanceFromChoice());
      share = this.lastPdf / (this.lastPdf + rival);
    }
    this.addSheetLight(lightmap, hit.place, hit.point, share / Math.PI);
    return true;
  }

  /** First of the lights asked here; the last is this or, for the first surfaces, the end of the list. */
  protected firstLight(): i32 {
    const count = this.t.emitterCount;
    if (this.bounce < ONE_LIGHT_FROM || count < 2) return 0;
    this.sampler.next();
    const first = floor32(this.sampler.uv[0] * real(count));
    return first < count ? first : count - 1;
  }

  protected lightsFrom(first: i32): i32 {
    const count = this.t.emitterCount;
    return this.bounce < ONE_LIGHT_FROM || count < 2 ? count : first + 1;
  }

  /** Over how many lights one question is shared. */
  protected shared(): number {
    return this.bounce < ONE_LIGHT_FROM ? 1 : real(this.t.emitterCount);
  }

  /** Asks the lights where light leaves wax. */
  protected askLightsAtExit(): void {
    const t = this.t;
    const hit = this.hit;
    const films = this.films;
    const asked = this.shared();
    const first = this.firstLight();
    const last = this.lightsFrom(first);
    for (let index = first; index < last; index++) {
      const e = index * EMITTER_STRIDE;
      this.sampler.next();
      if (!this.isWanted(e)) continue;
      if (!sampleEmitter(this.light, t, e, hit.point, this.sampler.uv)) continue;
      const luminance = this.light[LIGHT_LUMINANCE];
      const cosIn = dot3(this.light, hit.normal);
      if (!(luminance > 0 && cosIn > 0 && dot3(this.light, hit.flat) > 0)) continue;
      if (!this.passage.between(hit.point, this.light, this.light[LIGHT_DISTANCE])) continue;
      const density = this.light[LIGHT_DENSITY] / asked;
      const even = cosIn / Math.PI;
      const value = (luminance * even * this.leaves(cosIn) * powerShare(density, even)) / density;
      const channel = whole32(t.emitters[e + EMITTER_CHANNEL]);
      for (let c = 0; c < 3; c++) {
        const i = 3 * channel + c;
        films[i] = films[i] + this.weight[c] * this.passage.passed[c] * value;
      }
    }
  }

  /** @param joined with scattering by the power heuristic; otherwise the base alone, by light sampling alone */
  protected askLights(share: number, joined: boolean): void {
    const t = this.t;
    const hit = this.hit;
    const light = this.light;
    const asked = this.shared();
    const first = this.firstLight();
    const last = this.lightsFrom(first);
    for (let index = first; index < last; index++) {
      const e = index * EMITTER_STRIDE;
      const times = this.questionsTo(index, this.lightTimes);
      for (let part = 0; part < times; part++) {
        if (part > 0) this.sampler.back(1);
        this.sampler.nextPart(part, times);
        if (!this.isWanted(e)) continue;
        if (!sampleEmitter(light, t, e, hit.point, this.sampler.uv)) continue;
        if (!(light[LIGHT_LUMINANCE] > 0 && this.canSee())) continue;
        if (joined) this.evaluate(share);
        else evaluateBase(this.scatter, t, hit.place, hit.albedo, this.out, this.into);
        if (!this.passage.between(hit.point, light, light[LIGHT_DISTANCE])) continue;
        const rival: number = joined ? this.scatter[PDF] * this.ways : 0;
        const density = light[LIGHT_DENSITY] / asked;
        // Weighed as in `meetLight`, which does not know how often it was asked.
        const likely = powerShare(density * this.lightTimes, rival);
        const value = (light[LIGHT_LUMINANCE] * Math.abs(this.into[2]) * likely) / (density * times);
        this.addScattered(whole32(t.emitters[e + EMITTER_CHANNEL]), value, joined);
      }
    }
  }

  /** Asks the lights by way of the flat mirrors, from the first surfaces. */
  protected askMirrors(share: number): void {
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
        const e = index * EMITTER_STRIDE;
        this.sampler.next();
        if (!this.isWanted(e)) continue;
        if (!sampleEmitter(light, t, e, mirrors.image, this.sampler.uv)) continue;
        if (!(light[LIGHT_LUMINANCE] > 0 && mirrors.turn(light) && this.canSee())) continue;
        // Asked as often as it mirrors: a weak mirror is worth few rays.
        const chance = Math.min(1, mirrors.mirrored[1]);
        this.sampler.next();
        if (this.sampler.uv[0] >= chance) continue;
        this.kernel.setRay(hit.point, light, Infinity);
        if (this.kernel.closestHit() !== primitive) continue;
        if (!this.passage.between(mirrors.crossing, mirrors.beyond, mirrors.after)) continue;
        for (let c = 0; c < 3; c++) passed[c] = passed[c] * mirrors.mirrored[c];
        this.evaluate(share);
        const density = light[LIGHT_DENSITY];
        const rival = this.scatter[PDF] * this.ways * mirrors.mirrored[1];
        const value =
          (light[LIGHT_LUMINANCE] * Math.abs(this.into[2]) * powerShare(density, rival)) / density;
        this.addScattered(whole32(t.emitters[e + EMITTER_CHANNEL]), value / chance, true);
      }
    }
  }

  /** Finds the patch met, of a lightmap whose light is known. */
  protected findPatch(): void {
    const t = this.t;
    const hit = this.hit;
    const known = this.useLightmaps && !this.recording && t.pathGuide.length > 0;
    const lightmap: i32 = known ? t.lightmapAt[2 * hit.primitive + (hit.fromFront ? 0 : 1)] : -1;
    this.patch = -1;
    if (lightmap >= 0)
      this.patch = whole32(t.lightmaps[lightmap * MAP_STRIDE + MAP_FIRST]) + patchAt(t, lightmap, hit.point);
  }

  /**
   * How often a lamp, or at the end of the list the bright sheets, are asked here. Polished metal finds them by its
   * mirror lobe.
   */
  private questionsTo(which: i32, usual: i32): i32 {
    const questions = this.t.lightSamples;
    if (this.ways === 1 || !this.useLightmaps || this.hit.kind === METAL || questions.length === 0)
      return usual;
    const each = this.t.emitterCount + 1;
    const row: i32 = this.patch < 0 ? divide32(questions.length, each) - 1 : this.patch;
    return questions[row * each + which];
  }

  /** Samples bright places of the lightmaps, joined with scattering by the balance heuristic. */
  protected askSheets(share: number): void {
    this.sheetsAsked = false;
    if (!this.useLightmaps || this.recording || this.t.brightLightmap.length === 0 || this.isSharp()) return;
    if (!this.sheets.look(this.hit.point)) return;
    this.sheetsAsked = true;
    const times = this.questionsTo(this.t.emitterCount, this.ways);
    for (let part = 0; part < times; part++) {
      if (part > 0) this.sampler.back(1);
      this.sampler.nextPart(part, times);
      this.askSheet(share, times);
    }
  }

  private askSheet(share: number, times: i32): void {
    const t = this.t;
    const hit = this.hit;
    const light = this.light;
    const sheets = this.sheets;
    const lightmap = sheets.sample(light, this.sampler.uv);
    if (lightmap < 0 || !this.canSee()) return;
    if (!this.passage.between(hit.point, light, light[LIGHT_DISTANCE])) return;
    this.evaluate(share);
    const density = light[LIGHT_DENSITY];
    const cosIn = Math.abs(this.into[2]);
    const value = cosIn / (times * (density + this.scatter[PDF]));
    const primitive = whole32(t.lightmaps[lightmap * MAP_STRIDE + MAP_PRIMITIVE]);
    const side = t.lightmaps[lightmap * MAP_STRIDE + MAP_SIDE] > 0 ? t.back : t.front;
    const surface = side[primitive];
    surfaceColour(this.printed, t, surface, primitive, sheets.target);
    copy3(this.keptWeight, this.weight);
    for (let c = 0; c < 3; c++) {
      const passed = this.scatter[c] * this.passage.passed[c];
      this.weight[c] = this.weight[c] * passed * value;
    }
    const place = surface * SURFACE_STRIDE;
    sentByBase(this.sheetAlbedo, t, place, this.printed, sheets.cosine);
    this.addSheetLight(lightmap, place, sheets.target, 1 / Math.PI);
    copy3(this.weight, this.keptWeight);
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
