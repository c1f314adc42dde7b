import { normalsAt } from '../geometry/normal.js';
import type { Scene } from '../geometry/scene.js';
import { COATED, DIELECTRIC, MIRROR, type Surface } from '../geometry/surface.js';
import { fresnelMean } from '../optics/fresnel.js';
import { emittedLuminance, emitterPdf, sampleEmitter } from '../photometry/sampleEmitter.js';
import { RAY_START_M, type RayKernel, setRay } from '../trace/kernel.js';
import { copy3, dot3, fill3, frameRound, mirrorDirection, refractDirection } from './directions.js';
import { BOUNCE, BRANCH_INSIDE, COS_OUT, createPathState, INSIDE, LAST_PDF } from './pathState.js';
import type { Sampler } from './sampler.js';
import { baseAlbedo, coatShare, evaluateBase, evaluateScatter, sampleCoat, sampleScatter } from './shade.js';

/** From this bounce on one light, picked at random, is asked instead of all of them. */
const ONE_LIGHT_FROM = 2;
/** From this bounce on paths end at random (Russian roulette), which keeps the mean. */
const ROULETTE_FROM = 3;
/** Even a path that loses nothing goes on with this chance only, so that it ends. */
const MOST_SURVIVAL = 0.95;

export interface PathTracer {
  /**
   * Adds to `films[3 light + channel]` the luminance, for each light at unit luminance, that arrives at `origin`
   * against `direction`. Unbiased; separable by light.
   * @param skipFirstLight leave out light that is hit at once (it was counted by other means)
   * @param ambient quick picture: paths end at the first matte surface, where this luminance from all round, for
   *   each light, stands for all light that has bounced; biased, for the preview only. null: the whole path
   */
  trace(
    films: Float64Array,
    sampler: Sampler,
    origin: ArrayLike<number>,
    direction: ArrayLike<number>,
    skipFirstLight: boolean,
    ambient: Float64Array | null,
  ): void;
}

/**
 * Path tracer with light sampling and multiple importance sampling (balance heuristic), nested dielectrics by
 * priority, and a split into mirror and rest at the first surface.
 * Limits: no dispersion, no polarisation, no light sampling through glass (light finds its way by chance).
 * Sources: Kajiya 1986; Veach 1997 ch. 9; Schmidt and Budge 2002 (nested dielectrics); docs/physics/render.md
 */
export function createPathTracer(scene: Scene, kernel: RayKernel): PathTracer {
  const { table, surfaces, media, emitters, surrounds } = scene;
  const emitterCount = emitters.length;
  const state = createPathState();
  const { origin, direction, weight, point, flat, normal, numbers, whole } = state;
  const { branchOrigin, branchDirection, branchWeight } = state;
  // Scratch of the steps.
  const normals = new Float64Array(6);
  const frame = new Float64Array(6);
  const out = new Float64Array(3);
  const into = new Float64Array(3);
  const light = new Float64Array(6);
  const scatter = new Float64Array(4);

  function trace(
    films: Float64Array,
    sampler: Sampler,
    startOrigin: ArrayLike<number>,
    startDirection: ArrayLike<number>,
    skipFirstLight: boolean,
    ambient: Float64Array | null,
  ): void {
    copy3(origin, startOrigin);
    copy3(direction, startDirection);
    fill3(weight, 1);
    numbers[LAST_PDF] = 0;
    whole[INSIDE] = 0;
    whole[BOUNCE] = 0;
    fill3(branchWeight, 0);
    follow(films, sampler, !skipFirstLight, skipFirstLight, ambient);
    if (branchWeight[0] === 0 && branchWeight[1] === 0 && branchWeight[2] === 0) return;
    copy3(origin, branchOrigin);
    copy3(direction, branchDirection);
    copy3(weight, branchWeight);
    numbers[LAST_PDF] = 0;
    whole[INSIDE] = whole[BRANCH_INSIDE] as number;
    whole[BOUNCE] = 1;
    follow(films, sampler, false, false, ambient);
  }

  function follow(
    films: Float64Array,
    sampler: Sampler,
    mayBranch: boolean,
    skipFirstLight: boolean,
    ambient: Float64Array | null,
  ): void {
    let skipLight = skipFirstLight;
    for (;;) {
      setRay(kernel.ray, origin, direction);
      const primitive = kernel.closestHit();
      if (primitive < 0) {
        if (skipLight) return;
        for (let s = 0; s < surrounds.length; s++) addToFilm(films, surrounds[s] as number, 1, weight);
        return;
      }
      const distance = kernel.ray[7] as number;
      if (whole[INSIDE] !== 0) absorb(distance);
      for (let a = 0; a < 3; a++) point[a] = (origin[a] as number) + distance * (direction[a] as number);
      const fromFront = faceNormals(primitive);
      const emitter = fromFront ? emitters[table.emitter[primitive] as number] : undefined;
      if (emitter !== undefined) {
        if (skipLight) return;
        let share = emittedLuminance(emitter, point, direction);
        const lastPdf = numbers[LAST_PDF] as number;
        if (lastPdf > 0) {
          const asked = (whole[BOUNCE] as number) > ONE_LIGHT_FROM ? emitterCount : 1;
          share *= lastPdf / (lastPdf + emitterPdf(emitter, origin, direction) / asked);
        }
        addToFilm(films, emitter.light, share, weight);
        return;
      }
      skipLight = false;
      const surface = surfaces[(fromFront ? table.front : table.back)[primitive] as number];
      if (surface === undefined) return;
      const branches = mayBranch && whole[BOUNCE] === 0;
      let goesOn = true;
      if (surface.kind === DIELECTRIC) {
        if (passesUnseen(surface, fromFront)) continue;
        throughGlass(surface, fromFront, branches, sampler);
      } else if (surface.kind === MIRROR) {
        weight[0] = (weight[0] as number) * surface.r;
        weight[1] = (weight[1] as number) * surface.g;
        weight[2] = (weight[2] as number) * surface.b;
        mirrorDirection(direction, direction, normal, flat);
        numbers[LAST_PDF] = 0;
      } else {
        goesOn =
          ambient === null
            ? scatterOn(films, surface, branches, sampler)
            : scatterQuickly(films, surface, branches, sampler, ambient);
      }
      if (!goesOn) return;
      copy3(origin, point);
      whole[BOUNCE] = (whole[BOUNCE] as number) + 1;
      if (!survives(sampler)) return;
    }
  }

  /** Beer-Lambert over the last stretch. */
  function absorb(distance: number): void {
    const medium = media[31 - Math.clz32(whole[INSIDE] as number)];
    if (medium === undefined) return;
    for (let a = 0; a < 3; a++) {
      weight[a] = (weight[a] as number) * Math.exp(-(medium.absorptionPerM[a] as number) * distance);
    }
  }

  /** Both normals, turned towards the path. A shading normal that faces away from it is not used. */
  function faceNormals(primitive: number): boolean {
    normalsAt(normals, table, primitive, point);
    const facing =
      (normals[0] as number) * (direction[0] as number) +
      (normals[1] as number) * (direction[1] as number) +
      (normals[2] as number) * (direction[2] as number);
    const fromFront = facing < 0;
    const sign = fromFront ? 1 : -1;
    for (let a = 0; a < 3; a++) {
      flat[a] = sign * (normals[a] as number);
      normal[a] = sign * (normals[3 + a] as number);
    }
    let cosine = -dot3(normal, direction);
    if (!(cosine > 1e-6)) {
      copy3(normal, flat);
      cosine = Math.max(1e-6, Math.abs(facing));
    }
    numbers[COS_OUT] = Math.min(1, cosine);
    return fromFront;
  }

  /** Steps over a boundary that lies within a medium that counts more: it is not there. */
  function passesUnseen(surface: Surface, fromFront: boolean): boolean {
    const inside = whole[INSIDE] as number;
    const beyond = acrossBoundary(inside, surface.medium, fromFront);
    if (fillingMedium(inside) !== fillingMedium(beyond)) return false;
    whole[INSIDE] = beyond;
    copy3(origin, point);
    return true;
  }

  function throughGlass(surface: Surface, fromFront: boolean, branches: boolean, sampler: Sampler): void {
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

  /** Sets the mirrored part of the first surface aside; its direction is written already. */
  function keepBranch(reflected: number): void {
    copy3(branchOrigin, point);
    for (let a = 0; a < 3; a++) branchWeight[a] = (weight[a] as number) * reflected;
    whole[BRANCH_INSIDE] = whole[INSIDE] as number;
  }

  /** Matte and coated surfaces: asks the lights, then goes on in a sampled direction. */
  function scatterOn(films: Float64Array, surface: Surface, branches: boolean, sampler: Sampler): boolean {
    const cosOut = numbers[COS_OUT] as number;
    let share = surface.kind === COATED ? coatShare(surface, cosOut) : 0;
    if (surface.coat !== null && surface.coat.alpha === 0) {
      const reflected = fresnelMean(cosOut, surface.coat.index);
      if (branches) {
        mirrorDirection(branchDirection, direction, normal, flat);
        keepBranch(reflected);
      } else {
        sampler.next();
        const coat = (sampler.uv[0] as number) < share;
        const keep = coat ? reflected / share : 1 / (1 - share);
        for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) * keep;
        if (coat) {
          mirrorDirection(direction, direction, normal, flat);
          numbers[LAST_PDF] = 0;
          return true;
        }
      }
      // The clear coat's choice is made: what is left scatters from the base alone.
      share = 0;
    }
    lookOut(cosOut);
    askLights(films, surface, share, sampler, true);

    let choice = 1;
    if (share > 0) {
      sampler.next();
      choice = sampler.uv[0] as number;
    }
    sampler.next();
    if (!sampleScatter(into, surface, share, out, choice, sampler.uv)) return false;
    evaluateScatter(scatter, surface, share, out, into);
    const pdf = scatter[3] as number;
    numbers[LAST_PDF] = pdf;
    const gain = (into[2] as number) / pdf;
    for (let a = 0; a < 3; a++) {
      weight[a] = (weight[a] as number) * (scatter[a] as number) * gain;
    }
    turnFromFrame(direction);
    return dot3(direction, flat) > 0;
  }

  /** Direction towards the viewer in the frame of the shading normal. */
  function lookOut(cosOut: number): void {
    frameRound(frame, normal);
    out[0] = -alongFrame(direction, 0);
    out[1] = -alongFrame(direction, 3);
    out[2] = cosOut;
  }

  /** Matte and coated surfaces of a quick picture: the base ends the path, the coat mirrors on. */
  function scatterQuickly(
    films: Float64Array,
    surface: Surface,
    branches: boolean,
    sampler: Sampler,
    ambient: Float64Array,
  ): boolean {
    const cosOut = numbers[COS_OUT] as number;
    lookOut(cosOut);
    if (surface.coat !== null) {
      sampler.next();
      const mirrored = sampleCoat(into, surface.coat, out, sampler.uv);
      turnFromFrame(branchDirection);
      const outwards = dot3(branchDirection, flat) > 0;
      if (branches) {
        if (outwards) keepBranch(mirrored);
      } else {
        const share = coatShare(surface, cosOut);
        sampler.next();
        const coat = (sampler.uv[0] as number) < share;
        const keep = coat ? mirrored / share : 1 / (1 - share);
        for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) * keep;
        if (coat) {
          copy3(direction, branchDirection);
          numbers[LAST_PDF] = 0;
          return outwards;
        }
      }
    }
    askLights(films, surface, 0, sampler, false);
    const kept = baseAlbedo(surface, cosOut);
    for (let l = 0; l < ambient.length; l++) {
      const bounced = kept * (ambient[l] as number);
      films[3 * l] = (films[3 * l] as number) + (weight[0] as number) * surface.r * bounced;
      films[3 * l + 1] = (films[3 * l + 1] as number) + (weight[1] as number) * surface.g * bounced;
      films[3 * l + 2] = (films[3 * l + 2] as number) + (weight[2] as number) * surface.b * bounced;
    }
    return false;
  }

  function turnFromFrame(result: Float64Array): void {
    for (let a = 0; a < 3; a++) {
      result[a] =
        (into[0] as number) * (frame[a] as number) +
        (into[1] as number) * (frame[3 + a] as number) +
        (into[2] as number) * (normal[a] as number);
    }
  }

  /** @param joined with scattering by the balance heuristic; otherwise the base alone, by light sampling alone */
  function askLights(
    films: Float64Array,
    surface: Surface,
    share: number,
    sampler: Sampler,
    joined: boolean,
  ): void {
    const all = (whole[BOUNCE] as number) < ONE_LIGHT_FROM;
    let first = 0;
    let last = emitterCount;
    if (!all && emitterCount > 1) {
      sampler.next();
      first = Math.min(emitterCount - 1, Math.floor((sampler.uv[0] as number) * emitterCount));
      last = first + 1;
    }
    const asked = all ? 1 : emitterCount;
    for (let e = first; e < last; e++) {
      const emitter = emitters[e];
      if (emitter === undefined) continue;
      sampler.next();
      if (!sampleEmitter(light, emitter, point, sampler.uv)) continue;
      const cosIn = dot3(light, normal);
      const luminance = light[5] as number;
      if (!(cosIn > 0 && luminance > 0 && dot3(light, flat) > 0)) continue;
      into[0] = alongFrame(light, 0);
      into[1] = alongFrame(light, 3);
      into[2] = cosIn;
      if (joined) evaluateScatter(scatter, surface, share, out, into);
      else evaluateBase(scatter, surface, out, into);
      setRay(kernel.ray, point, light, (light[3] as number) - 2 * RAY_START_M);
      if (kernel.anyHit()) continue;
      const rival = joined ? (scatter[3] as number) : 0;
      const value = (luminance * cosIn) / ((light[4] as number) / asked + rival);
      const at = 3 * emitter.light;
      for (let a = 0; a < 3; a++) {
        films[at + a] = (films[at + a] as number) + (weight[a] as number) * (scatter[a] as number) * value;
      }
    }
  }

  const alongFrame = (v: Float64Array, axis: number): number =>
    (v[0] as number) * (frame[axis] as number) +
    (v[1] as number) * (frame[axis + 1] as number) +
    (v[2] as number) * (frame[axis + 2] as number);

  /** Russian roulette by what is left of the path. */
  function survives(sampler: Sampler): boolean {
    const most = Math.max(weight[0] as number, weight[1] as number, weight[2] as number);
    if (!(most > 0)) return false;
    if ((whole[BOUNCE] as number) < ROULETTE_FROM) return true;
    const survival = Math.min(MOST_SURVIVAL, most);
    sampler.next();
    if ((sampler.uv[0] as number) >= survival) return false;
    for (let a = 0; a < 3; a++) weight[a] = (weight[a] as number) / survival;
    return true;
  }

  return { trace };
}

function addToFilm(films: Float64Array, light: number, share: number, weight: Float64Array): void {
  for (let a = 0; a < 3; a++) {
    films[3 * light + a] = (films[3 * light + a] as number) + share * (weight[a] as number);
  }
}

/** Media inside of after crossing a boundary. */
function acrossBoundary(inside: number, medium: number, entering: boolean): number {
  return entering ? inside | (1 << medium) : inside & ~(1 << medium);
}

/** The medium that fills the space, -1 for air. */
function fillingMedium(inside: number): number {
  return inside === 0 ? -1 : 31 - Math.clz32(inside);
}
