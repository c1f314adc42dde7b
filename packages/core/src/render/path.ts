import type { Scene } from '../geometry/scene.js';
import {
  COATED,
  DIELECTRIC,
  letsThroughStraight,
  MIRROR,
  NET,
  type Surface,
  TRANSLUCENT,
  WAX,
} from '../geometry/surface.js';
import { coatAlbedo } from '../optics/coat.js';
import { fresnelMean } from '../optics/fresnel.js';
import { lobeFresnel } from '../optics/metal.js';
import { type Emitter, SUN } from '../photometry/emitter.js';
import { emittedLuminance, emitterPdf, sampleEmitter } from '../photometry/sampleEmitter.js';
import { type RayKernel, setRay } from '../trace/kernel.js';
import { copy3, dot3, fill3, mirrorDirection, refractDirection } from './directions.js';
import {
  createSheetSampler,
  irradianceAt,
  type LitSheets,
  type Panel,
  patchAt,
  type SheetSampler,
} from './litSheets.js';
import { createPassage } from './passage.js';
import {
  BOUNCE,
  BRANCH_INSIDE,
  COS_OUT,
  createPathState,
  INSIDE,
  KEPT,
  LAST_PDF,
  SHARP,
} from './pathState.js';
import type { Sampler } from './sampler.js';
import {
  BASE_PART,
  baseAlbedo,
  cosineAbove,
  evaluateBase,
  evaluateScatter,
  mirrorShareOf,
  PDF,
  sampleCoat,
  sampleScatter,
} from './shade.js';
import { alongAxis, lookOut, meetSurface, netOpenness, surfaceColour, turnFromFrame } from './surfaceHit.js';
import { createWaxWalk } from './waxWalk.js';

/** From this bounce on one light, picked at random, is asked instead of all of them. */
const ONE_LIGHT_FROM = 2;
/** From this bounce on paths end at random (Russian roulette), which keeps the mean. */
const ROULETTE_FROM = 3;
/** Even a path that loses nothing goes on with this chance only, so that it ends. */
const MOST_SURVIVAL = 0.95;
/** What is seen in a mirror lobe narrower than this GGX alpha is traced, not taken from lit sheets. */
const SHARP_ALPHA = 0.15;

/** How a path is to be followed. */
export interface TraceMode {
  /** Leave out light that is hit at once: it was counted by other means. The path then starts on a matte surface. */
  skipFirstLight: boolean;
  /**
   * Quick picture: paths end at the first matte surface, where this luminance from all round, for each film, stands
   * for all light that has bounced; biased, for the preview only. null: the whole path.
   */
  ambient: Float64Array | null;
  /** Sheets whose light is known: paths end there once they have scattered. null: the whole path. */
  lit: LitSheets | null;
  /** Instead of ending with the light of a lit sheet, write down where the path met it. */
  record: SheetRecord | null;
}

/** Where a path met a lit sheet: patches of both its sides, -1 for none, and what their irradiance counts. */
export interface SheetRecord {
  patch: number;
  otherPatch: number;
  /** 0-2 factor of the irradiance of `patch`, 3-5 of `otherPatch`. */
  factor: Float64Array;
}

export interface PathTracer {
  /**
   * Adds to `films[3 channel + colour]` the luminance, for each film at unit luminance, that arrives at `origin`
   * against `direction`. Separable by light. Without lit sheets and ambient it is unbiased.
   */
  trace(
    films: Float64Array,
    sampler: Sampler,
    origin: ArrayLike<number>,
    direction: ArrayLike<number>,
    mode: TraceMode,
  ): void;
}

/**
 * Path tracer with light sampling and multiple importance sampling (balance heuristic), nested dielectrics by
 * priority, thin sheets, lit sheets, and a split into mirror and rest at the first surface.
 * Limits: no dispersion; polarisation as kept or lost, no phase; no light sampling through glass (light finds its
 * way by chance).
 * Sources: Kajiya 1986; Veach 1997 ch. 9; Schmidt and Budge 2002 (nested dielectrics); docs/physics/render.md
 */
export function createPathTracer(scene: Scene, kernel: RayKernel): PathTracer {
  const { table, media, emitters, surrounds, keptChannel } = scene;
  const emitterCount = emitters.length;
  const splits = keptChannel.some((kept, channel) => kept !== channel);
  const state = createPathState();
  const {
    origin,
    direction,
    weight,
    point,
    flat,
    normal,
    albedo,
    frame,
    out,
    into,
    chosenAt,
    numbers,
    whole,
  } = state;
  const { branchOrigin, branchDirection, branchWeight } = state;
  const passage = createPassage(scene, kernel);
  const walkWax = createWaxWalk(scene, kernel, state);
  // Scratch of the steps.
  const light = new Float64Array(6);
  const scatter = new Float64Array(7);
  const passed = new Float64Array(3);
  const irradiance = new Float64Array(3 * Math.max(1, scene.channelCount));
  const sheetAlbedo = new Float64Array(3);
  let films: Float64Array = irradiance;
  let sampler: Sampler;
  let mode: TraceMode;
  let sheets: SheetSampler | null = null;
  let sheetsOf: LitSheets | null = null;
  /** Whether the bright panels were asked where the direction was last chosen. */
  let sheetsAsked = false;

  function trace(
    toFilms: Float64Array,
    withSampler: Sampler,
    startOrigin: ArrayLike<number>,
    startDirection: ArrayLike<number>,
    inMode: TraceMode,
  ): void {
    films = toFilms;
    sampler = withSampler;
    mode = inMode;
    if (mode.lit !== sheetsOf) {
      sheetsOf = mode.lit;
      sheets = mode.lit && mode.lit.bright.panel.length > 0 ? createSheetSampler(mode.lit, table) : null;
    }
    copy3(origin, startOrigin);
    copy3(direction, startDirection);
    fill3(weight, 1);
    numbers[LAST_PDF] = 0;
    sheetsAsked = false;
    whole[INSIDE] = 0;
    whole[BOUNCE] = mode.skipFirstLight ? 1 : 0;
    whole[KEPT] = mode.skipFirstLight ? 0 : 1;
    whole[SHARP] = mode.skipFirstLight ? 0 : 1;
    fill3(branchWeight, 0);
    follow(!mode.skipFirstLight, mode.skipFirstLight);
    if (branchWeight[0] === 0 && branchWeight[1] === 0 && branchWeight[2] === 0) return;
    copy3(origin, branchOrigin);
    copy3(direction, branchDirection);
    copy3(weight, branchWeight);
    numbers[LAST_PDF] = 0;
    sheetsAsked = false;
    whole[INSIDE] = whole[BRANCH_INSIDE] as number;
    whole[BOUNCE] = 1;
    whole[KEPT] = 1;
    whole[SHARP] = 1;
    follow(false, false);
  }

  function follow(mayBranch: boolean, skipFirstLight: boolean): void {
    let skipLight = skipFirstLight;
    let branchesLeft = mayBranch;
    for (;;) {
      setRay(kernel.ray, origin, direction);
      const primitive = kernel.closestHit();
      if (primitive < 0) {
        if (skipLight) return;
        for (let s = 0; s < surrounds.length; s++) addToFilm(surrounds[s] as number, 1);
        return;
      }
      const distance = kernel.ray[7] as number;
      if (whole[INSIDE] !== 0) absorb(distance);
      for (let a = 0; a < 3; a++) point[a] = (origin[a] as number) + distance * (direction[a] as number);
      const fromFront = meetSurface(state, scene, primitive);
      const emitter = fromFront ? emitters[table.emitter[primitive] as number] : undefined;
      if (emitter !== undefined) {
        if (!skipLight) meetLight(emitter, primitive);
        return;
      }
      const { surface } = state.hit;
      if (surface === null) return;
      if (letsThroughStraight(surface) && goesStraight(surface, primitive)) continue;
      if (mode.lit !== null && whole[SHARP] === 0 && meetLitSheet(mode.lit, surface, primitive, fromFront)) {
        return;
      }
      skipLight = false;
      const branches = branchesLeft && whole[BOUNCE] === 0;
      branchesLeft = false;
      let goesOn = true;
      if (surface.kind === DIELECTRIC) {
        if (passesUnseen(surface, fromFront)) {
          branchesLeft = branches;
          continue;
        }
        throughGlass(surface, fromFront, branches);
      } else if (surface.kind === MIRROR) {
        mirrorOn(surface);
      } else if (mode.ambient === null) {
        goesOn = surface.kind === WAX ? throughWax(surface, branches) : scatterOn(surface, branches);
      } else goesOn = scatterQuickly(surface, branches, mode.ambient);
      if (!goesOn) return;
      copy3(origin, point);
      whole[BOUNCE] = (whole[BOUNCE] as number) + 1;
      if (!survives()) return;
    }
  }

  /** A light was hit: its share by multiple importance sampling. */
  function meetLight(emitter: Emitter, primitive: number): void {
    const lastPdf = numbers[LAST_PDF] as number;
    let share = emittedLuminance(emitter, point, direction);
    if (lastPdf > 0) {
      if (share > 0) share *= lastPdf / (lastPdf + pdfOf(emitter) / lightsAsked());
      addToFilm(emitter.channel, share);
      return;
    }
    addToFilm(emitter.channel, share);
    // The sun behind a window is met by mirrors and glass alone: all else finds it by light sampling.
    const sun = emitters[(table.emitter[primitive] as number) + 1];
    if (sun !== undefined && sun.kind === SUN)
      addToFilm(sun.channel, emittedLuminance(sun, point, direction));
  }

  function pdfOf(emitter: Emitter): number {
    return emitterPdf(emitter, chosenAt, direction, distanceFromChoice());
  }

  function distanceFromChoice(): number {
    let squared = 0;
    for (let a = 0; a < 3; a++) squared += ((point[a] as number) - (chosenAt[a] as number)) ** 2;
    return Math.sqrt(squared);
  }

  /** How many lights share one question, at the surface before this one. */
  const lightsAsked = (): number => ((whole[BOUNCE] as number) > ONE_LIGHT_FROM ? emitterCount : 1);

  /** Ends a scattered path on a lit sheet, or writes it down. @returns false where there is no lit sheet */
  function meetLitSheet(lit: LitSheets, surface: Surface, primitive: number, fromFront: boolean): boolean {
    const panelIndex = lit.panelAt[2 * primitive + (fromFront ? 0 : 1)] as number;
    if (panelIndex < 0) return false;
    const panel = lit.panels[panelIndex] as Panel;
    const kept = baseAlbedo(surface, numbers[COS_OUT] as number) / Math.PI;
    const { record } = mode;
    if (record !== null) {
      record.patch = patchAt(lit, table, panelIndex, point);
      record.otherPatch = panel.other < 0 ? -1 : patchAt(lit, table, panel.other, point);
      for (let c = 0; c < 3; c++) {
        record.factor[c] = (weight[c] as number) * (albedo[c] as number) * kept;
        record.factor[3 + c] = ((weight[c] as number) * (surface.spread[c] as number)) / Math.PI;
      }
      return true;
    }
    let share = 1;
    const lastPdf = numbers[LAST_PDF] as number;
    if (sheetsAsked && sheets !== null && lastPdf > 0) {
      share = lastPdf / (lastPdf + sheets.pdf(panelIndex, point, direction, distanceFromChoice()));
    }
    addSheetLight(lit, surface, panelIndex, albedo, share * kept, share / Math.PI);
    return true;
  }

  /** Adds the light of a lit sheet at a point of it, times the weight of the path. */
  function addSheetLight(
    lit: LitSheets,
    surface: Surface,
    panelIndex: number,
    colour: Float64Array,
    back: number,
    through: number,
  ): void {
    const at = sheets !== null && sheetPoint ? sheets.target : point;
    irradianceAt(irradiance, lit, table, panelIndex, at);
    addIrradiance(colour, back);
    const other = (lit.panels[panelIndex] as Panel).other;
    if (other < 0 || surface.kind !== TRANSLUCENT) return;
    irradianceAt(irradiance, lit, table, other, at);
    for (let c = 0; c < 3; c++) sheetSpread[c] = surface.spread[c] as number;
    addIrradiance(sheetSpread, through);
  }

  const sheetSpread = new Float64Array(3);
  /** Whether light is added at the point sampled on a sheet rather than at the point the path has met. */
  let sheetPoint = false;

  function addIrradiance(colour: Float64Array, factor: number): void {
    const size = scene.channelCount;
    for (let channel = 0; channel < size; channel++) {
      for (let c = 0; c < 3; c++) {
        const i = 3 * channel + c;
        const added = factor * (weight[c] as number) * (colour[c] as number) * (irradiance[i] as number);
        films[i] = (films[i] as number) + added;
      }
    }
  }

  /** Nets and thin frost: some light passes as if nothing were there. */
  function goesStraight(surface: Surface, primitive: number): boolean {
    const net = surface.kind === NET;
    const open = net ? netOpenness(scene, surface, primitive, point) : 0;
    const closed = net && surface.straight[0] < 1 ? (1 - open) / (1 - surface.straight[0]) : 1;
    let through = 0;
    let rest = 0;
    for (let c = 0; c < 3; c++) {
      through += net ? open : (surface.straight[c] as number);
      if (net) albedo[c] = (albedo[c] as number) * closed;
      rest += (albedo[c] as number) + (surface.spread[c] as number);
    }
    const chance = through / (through + rest);
    if (!(chance > 0)) return false;
    sampler.next();
    if ((sampler.uv[0] as number) >= chance) {
      for (let c = 0; c < 3; c++) weight[c] = (weight[c] as number) / (1 - chance);
      return false;
    }
    for (let c = 0; c < 3; c++) {
      weight[c] = ((weight[c] as number) * (net ? open : (surface.straight[c] as number))) / chance;
    }
    copy3(origin, point);
    return true;
  }

  /** Beer-Lambert over the last stretch. */
  function absorb(distance: number): void {
    const medium = media[31 - Math.clz32(whole[INSIDE] as number)];
    if (medium === undefined) return;
    for (let a = 0; a < 3; a++) {
      weight[a] = (weight[a] as number) * Math.exp(-(medium.absorptionPerM[a] as number) * distance);
    }
  }

  /** A boundary within a medium of higher priority: light goes on as if nothing were there. */
  function passesUnseen(surface: Surface, fromFront: boolean): boolean {
    const inside = whole[INSIDE] as number;
    const beyond = acrossBoundary(inside, surface.medium, fromFront);
    if (fillingMedium(inside) !== fillingMedium(beyond)) return false;
    whole[INSIDE] = beyond;
    copy3(origin, point);
    return true;
  }

  function throughGlass(surface: Surface, fromFront: boolean, branches: boolean): void {
    const inside = whole[INSIDE] as number;
    const beyond = acrossBoundary(inside, surface.medium, fromFront);
    const ratio = indexOf(fillingMedium(beyond)) / indexOf(fillingMedium(inside));
    const cosOut = numbers[COS_OUT] as number;
    const reflected = fresnelMean(cosOut, ratio);
    let mirrors = reflected >= 1;
    if (branches && !mirrors) {
      mirrorDirection(branchDirection, direction, normal, flat);
      keepBranch(reflected);
    } else if (!mirrors) {
      sampler.next();
      mirrors = (sampler.uv[0] as number) < reflected;
    }
    numbers[LAST_PDF] = 0;
    if (mirrors) {
      mirrorDirection(direction, direction, normal, flat);
      return;
    }
    refractDirection(direction, normal, flat, cosOut, 1 / ratio);
    // Luminance over the squared index is kept across a boundary.
    const squeeze = (branches ? 1 - reflected : 1) / (ratio * ratio);
    for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) * squeeze;
    whole[INSIDE] = beyond;
  }

  const indexOf = (medium: number): number => media[medium]?.index ?? 1;

  function mirrorOn(surface: Surface): void {
    const cosOut = numbers[COS_OUT] as number;
    for (let c = 0; c < 3; c++) {
      weight[c] = (weight[c] as number) * (surface.lobe ? lobeFresnel(surface.lobe, c, cosOut) : 1);
    }
    mirrorDirection(direction, direction, normal, flat);
    numbers[LAST_PDF] = 0;
  }

  /** Sets the mirrored part of the first surface aside; its direction is written already. */
  function keepBranch(reflected: number): void {
    copy3(branchOrigin, point);
    for (let a = 0; a < 3; a++) branchWeight[a] = (weight[a] as number) * reflected;
    whole[BRANCH_INSIDE] = whole[INSIDE] as number;
  }

  /**
   * The clear coat of a surface: mirrored apart at the first surface, by chance later.
   * @returns whether the path goes on in the mirror direction
   */
  function clearCoatMirrors(surface: Surface, share: number, branches: boolean): boolean {
    const reflected = fresnelMean(numbers[COS_OUT] as number, surface.coat?.index ?? 1);
    if (branches) {
      mirrorDirection(branchDirection, direction, normal, flat);
      keepBranch(reflected);
      return false;
    }
    sampler.next();
    const coat = (sampler.uv[0] as number) < share;
    const keep = coat ? reflected / share : 1 / (1 - share);
    for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) * keep;
    if (!coat) return false;
    mirrorDirection(direction, direction, normal, flat);
    numbers[LAST_PDF] = 0;
    return true;
  }

  /** All that scatters: asks the lights, then goes on in a sampled direction. */
  function scatterOn(surface: Surface, branches: boolean): boolean {
    let share = mirrorShareOf(surface, albedo, numbers[COS_OUT] as number);
    if (surface.kind === COATED && surface.coat !== null && surface.coat.alpha === 0) {
      if (clearCoatMirrors(surface, share, branches)) return true;
      // The clear coat's choice is made: what is left scatters from the base alone.
      share = 0;
    }
    lookOut(state, scene);
    copy3(chosenAt, point);
    askLights(surface, share, true);
    askSheets(surface, share);

    sampler.next();
    const choice = sampler.uv[0] as number;
    const split = sampler.uv[1] as number;
    sampler.next();
    if (!sampleScatter(into, surface, albedo, share, out, choice, sampler.uv)) return false;
    evaluateScatter(scatter, surface, albedo, share, out, into);
    const pdf = scatter[PDF] as number;
    if (!(pdf > 0)) return false;
    numbers[LAST_PDF] = pdf;
    const cosIn = into[2] as number;
    const gain = Math.abs(cosIn) / pdf;
    losePolarisation(split);
    for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) * (scatter[a] as number) * gain;
    turnFromFrame(direction, state);
    if (!isSharp(surface) || choice >= share) whole[SHARP] = 0;
    return dot3(direction, flat) > 0 === cosIn > 0;
  }

  const isSharp = (surface: Surface): boolean =>
    (surface.coat?.alpha ?? surface.lobe?.alphaY ?? 1) < SHARP_ALPHA;

  /** Whether the direction sampled carries what has kept its polarisation, by chance in the right proportion. */
  function losePolarisation(split: number): void {
    if (!splits || whole[KEPT] === 0) return;
    const all = (scatter[0] as number) + (scatter[1] as number) + (scatter[2] as number);
    const base =
      (scatter[BASE_PART] as number) +
      (scatter[BASE_PART + 1] as number) +
      (scatter[BASE_PART + 2] as number);
    const lost = split * all < base;
    for (let c = 0; c < 3; c++) {
      const part = lost
        ? (scatter[BASE_PART + c] as number)
        : (scatter[c] as number) - (scatter[BASE_PART + c] as number);
      scatter[c] = (part * all) / (lost ? base : all - base);
    }
    if (lost) whole[KEPT] = 0;
  }

  /** Wax and food: the skin mirrors, the rest walks inside and comes out nearby. */
  function throughWax(surface: Surface, branches: boolean): boolean {
    const cosOut = numbers[COS_OUT] as number;
    const { coat } = surface;
    if (coat === null) return false;
    const share = Math.max(0.1, Math.min(0.9, mirrorShareOf(surface, albedo, cosOut)));
    if (coat.alpha === 0) {
      if (clearCoatMirrors(surface, share, branches)) return true;
    } else {
      lookOut(state, scene);
      copy3(chosenAt, point);
      askLights(surface, 1, true);
      sampler.next();
      if ((sampler.uv[0] as number) < share) {
        sampler.next();
        const mirrored = sampleCoat(into, coat, out, sampler.uv) / share;
        if (!(mirrored > 0)) return false;
        evaluateScatter(scatter, surface, albedo, 1, out, into);
        numbers[LAST_PDF] = scatter[PDF] as number;
        sheetsAsked = false;
        for (let c = 0; c < 3; c++) weight[c] = (weight[c] as number) * mirrored;
        turnFromFrame(direction, state);
        if (!isSharp(surface)) whole[SHARP] = 0;
        return dot3(direction, flat) > 0;
      }
      for (let c = 0; c < 3; c++) weight[c] = (weight[c] as number) / (1 - share);
    }
    const enters = coat.alpha === 0 ? 1 : 1 - coatAlbedo(coat, cosOut);
    for (let c = 0; c < 3; c++) weight[c] = (weight[c] as number) * enters;
    whole[KEPT] = 0;
    whole[SHARP] = 0;
    if (!walkWax(surface, sampler)) return false;
    // Out again at `point`, as from a matte surface under its skin.
    copy3(chosenAt, point);
    state.hit.fromFront = true;
    askExit(surface);
    sampler.next();
    cosineAbove(into, sampler.uv);
    const passes = (1 - coatAlbedo(coat, into[2] as number)) / coat.passedMean;
    numbers[LAST_PDF] = (into[2] as number) / Math.PI;
    sheetsAsked = false;
    for (let c = 0; c < 3; c++) weight[c] = (weight[c] as number) * passes;
    turnFromFrame(direction, state);
    return dot3(direction, flat) > 0;
  }

  /** Asks the lights where light leaves wax. */
  function askExit(surface: Surface): void {
    forLights((emitter, asked) => {
      const cosIn = dot3(light, normal);
      if (!(cosIn > 0 && dot3(light, flat) > 0)) return;
      const passes =
        surface.coat === null ? 1 : (1 - coatAlbedo(surface.coat, cosIn)) / surface.coat.passedMean;
      if (!passage.between(passed, point, light, light[3] as number)) return;
      const value =
        ((light[5] as number) * cosIn * passes) / Math.PI / ((light[4] as number) / asked + cosIn / Math.PI);
      for (let c = 0; c < 3; c++) {
        const i = 3 * emitter.channel + c;
        films[i] = (films[i] as number) + (weight[c] as number) * (passed[c] as number) * value;
      }
    });
  }

  /** Samples each light, or from the third surface on one of them, into `light`. */
  function forLights(each: (emitter: Emitter, asked: number) => void): void {
    const all = (whole[BOUNCE] as number) < ONE_LIGHT_FROM;
    let first = 0;
    let last = emitterCount;
    if (!all && emitterCount > 1) {
      sampler.next();
      first = Math.min(emitterCount - 1, Math.floor((sampler.uv[0] as number) * emitterCount));
      last = first + 1;
    }
    for (let e = first; e < last; e++) {
      const emitter = emitters[e];
      if (emitter === undefined) continue;
      sampler.next();
      if (!sampleEmitter(light, emitter, point, sampler.uv) || !((light[5] as number) > 0)) continue;
      each(emitter, all ? 1 : emitterCount);
    }
  }

  /** All surfaces of a quick picture: the base ends the path, the mirror lobe goes on. */
  function scatterQuickly(surface: Surface, branches: boolean, ambient: Float64Array): boolean {
    const cosOut = numbers[COS_OUT] as number;
    lookOut(state, scene);
    copy3(chosenAt, point);
    const { coat } = surface;
    if (coat !== null) {
      sampler.next();
      const mirrored = sampleCoat(into, coat, out, sampler.uv);
      turnFromFrame(branchDirection, state);
      const outwards = dot3(branchDirection, flat) > 0;
      if (branches) {
        if (outwards) keepBranch(mirrored);
      } else {
        const share = mirrorShareOf(surface, albedo, cosOut);
        sampler.next();
        const takesCoat = (sampler.uv[0] as number) < share;
        const keep = takesCoat ? mirrored / share : 1 / (1 - share);
        for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) * keep;
        if (takesCoat) {
          copy3(direction, branchDirection);
          numbers[LAST_PDF] = 0;
          return outwards;
        }
      }
    } else if (surface.lobe !== null) {
      const share = mirrorShareOf(surface, albedo, cosOut);
      sampler.next();
      if (!sampleScatter(into, surface, albedo, share, out, 0, sampler.uv)) return false;
      evaluateScatter(scatter, surface, albedo, 1, out, into);
      const gain = (into[2] as number) / (scatter[PDF] as number);
      for (let c = 0; c < 3; c++) weight[c] = (weight[c] as number) * (scatter[c] as number) * gain;
      turnFromFrame(direction, state);
      numbers[LAST_PDF] = 0;
      return dot3(direction, flat) > 0;
    }
    askLights(surface, 0, false);
    const kept = baseAlbedo(surface, cosOut);
    for (let channel = 0; channel < ambient.length; channel++) {
      for (let c = 0; c < 3; c++) {
        const colour = (albedo[c] as number) * kept + (surface.spread[c] as number);
        const i = 3 * channel + c;
        films[i] = (films[i] as number) + (weight[c] as number) * colour * (ambient[channel] as number);
      }
    }
    return false;
  }

  /** @param joined with scattering by the balance heuristic; otherwise the base alone, by light sampling alone */
  function askLights(surface: Surface, share: number, joined: boolean): void {
    forLights((emitter, asked) => {
      const cosIn = dot3(light, normal);
      const side = dot3(light, flat);
      if (!(cosIn > 0 && side > 0) && !(surface.kind === TRANSLUCENT && cosIn < 0 && side < 0)) return;
      into[0] = alongAxis(light, frame, 0);
      into[1] = alongAxis(light, frame, 3);
      into[2] = cosIn;
      if (joined) evaluateScatter(scatter, surface, albedo, share, out, into);
      else evaluateBase(scatter, surface, albedo, out, into);
      if (!passage.between(passed, point, light, light[3] as number)) return;
      const rival = joined ? (scatter[PDF] as number) : 0;
      const value = ((light[5] as number) * Math.abs(cosIn)) / ((light[4] as number) / asked + rival);
      addScattered(emitter.channel, value, joined);
    });
  }

  /** Adds what is scattered of a light, apart by polarisation where the light has a film on. */
  function addScattered(channel: number, value: number, joined: boolean): void {
    const kept = keptChannel[channel] as number;
    const apart = joined && kept !== channel && whole[KEPT] === 1;
    for (let c = 0; c < 3; c++) {
      const factor = (weight[c] as number) * (passed[c] as number) * value;
      const all = scatter[c] as number;
      const base = apart ? (scatter[BASE_PART + c] as number) : all;
      const i = 3 * channel + c;
      films[i] = (films[i] as number) + factor * base;
      if (apart) films[3 * kept + c] = (films[3 * kept + c] as number) + factor * (all - base);
    }
  }

  /** Samples a bright place of the lit sheets, joined with scattering by the balance heuristic. */
  function askSheets(surface: Surface, share: number): void {
    sheetsAsked = false;
    const { lit } = mode;
    if (sheets === null || lit === null || mode.record !== null || isSharp(surface)) return;
    if (!sheets.look(point)) return;
    sheetsAsked = true;
    sampler.next();
    const choice = sampler.uv[0] as number;
    sampler.next();
    const panelIndex = sheets.sample(light, choice, sampler.uv);
    if (panelIndex < 0) return;
    const cosIn = dot3(light, normal);
    const side = dot3(light, flat);
    if (!(cosIn > 0 && side > 0) && !(surface.kind === TRANSLUCENT && cosIn < 0 && side < 0)) return;
    if (!passage.between(passed, point, light, light[3] as number)) return;
    into[0] = alongAxis(light, frame, 0);
    into[1] = alongAxis(light, frame, 3);
    into[2] = cosIn;
    evaluateScatter(scatter, surface, albedo, share, out, into);
    const value = Math.abs(cosIn) / ((light[4] as number) + (scatter[PDF] as number));
    const panel = lit.panels[panelIndex] as Panel;
    const side0 = panel.side === 0 ? table.front : table.back;
    const sheet = scene.surfaces[side0[panel.primitive] as number];
    if (sheet === undefined) return;
    surfaceColour(sheetAlbedo, scene, sheet, panel.primitive, sheets.target);
    copy3(keptWeight, weight);
    for (let c = 0; c < 3; c++) {
      weight[c] = (weight[c] as number) * (scatter[c] as number) * (passed[c] as number) * value;
    }
    sheetPoint = true;
    const kept = baseAlbedo(sheet, sheets.cosine()) / Math.PI;
    addSheetLight(lit, sheet, panelIndex, sheetAlbedo, kept, 1 / Math.PI);
    sheetPoint = false;
    copy3(weight, keptWeight);
  }

  const keptWeight = new Float64Array(3);

  /** Russian roulette by what is left of the path. */
  function survives(): boolean {
    const most = Math.max(weight[0] as number, weight[1] as number, weight[2] as number);
    if (!(most > 0)) return false;
    if ((whole[BOUNCE] as number) < ROULETTE_FROM) return true;
    const survival = Math.min(MOST_SURVIVAL, most);
    sampler.next();
    if ((sampler.uv[0] as number) >= survival) return false;
    for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) / survival;
    return true;
  }

  function addToFilm(channel: number, share: number): void {
    const film = whole[KEPT] === 1 ? (keptChannel[channel] as number) : channel;
    for (let a = 0; a < 3; a++) {
      films[3 * film + a] = (films[3 * film + a] as number) + share * (weight[a] as number);
    }
  }

  return { trace };
}

/** Media inside of after crossing a boundary. */
function acrossBoundary(inside: number, medium: number, entering: boolean): number {
  return entering ? inside | (1 << medium) : inside & ~(1 << medium);
}

/** The medium that fills the space, -1 for air. */
function fillingMedium(inside: number): number {
  return inside === 0 ? -1 : 31 - Math.clz32(inside);
}
