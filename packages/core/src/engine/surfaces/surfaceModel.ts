import { PARTED, SLANT_KEPT } from '../fresnel.js';
import { STRAIGHT } from '../layouts.js';
import type { i32 } from '../portable.js';
import type { SceneTables } from '../tables.js';

// What a path does at a surface.
/** Samples the lights, then goes on in a direction sampled by the model. */
export const SCATTERS: i32 = 0;
/** Goes on in the mirror direction. */
export const REFLECTS: i32 = 1;
/** Goes by Snell and Fresnel into or out of what is clear. */
export const REFRACTS: i32 = 2;
/** Goes under a skin, and comes out again nearby. */
export const WALKS_INSIDE: i32 = 3;

// A scattering function as evaluated: value of red, green, blue, 1/sr; density with which the direction is sampled,
// 1/sr; of the values what has lost its polarisation.
export const VALUE: i32 = 0;
export const PDF: i32 = VALUE + 3;
export const BASE_PART: i32 = PDF + 1;
export const SCATTERING: i32 = BASE_PART + 3;

/** A mirror lobe narrower than this GGX alpha shows what is bundled as an image, and bundles light itself; a wider one spreads it. */
export const NARROW_ALPHA: number = 0.3;

/** GGX alpha of a surface without a mirror part. */
export const NO_MIRROR_PART: number = 1e9;

/**
 * How surfaces of one kind scatter light: value, density and sampling, kept together, and the traits by which the
 * rest of the engine knows them. Directions are unit and in the frame of the shading normal (z up): `o` towards the
 * viewer, above the surface; `i` to the light, below it only for what transmits. `surface` is the offset of a row of
 * `tables.surfaces`, `albedo` the colour of its base at the point.
 * As it stands here a surface sends nothing back: each model says what it does beyond that.
 */
export abstract class SurfaceModel {
  /** One of the constants above. */
  interaction: i32 = SCATTERS;
  /** Whether light is scattered to the far side too. */
  transmits: boolean = false;
  /** Whether what its base sends back can be taken from a lightmap. */
  takesIrradiance: boolean = false;
  /** Whether all it sends back is a wide mirror lobe, which finds lights by itself. */
  isRough: boolean = false;
  protected t: SceneTables;

  constructor(t: SceneTables) {
    this.t = t;
  }

  /** Whether some of what it mirrors is a clear image, by way of which lights are sampled. */
  isSpecular(_surface: i32): boolean {
    return false;
  }

  /** GGX alpha of its mirror part, the wider one of two; `NO_MIRROR_PART` for none. */
  roughness(_surface: i32): number {
    return NO_MIRROR_PART;
  }

  /** Whether it bundles light by a mirror lobe: a narrow one, not a clear image. */
  bundlesByLobe(_surface: i32): boolean {
    return false;
  }

  /**
   * Part that it mirrors of light at a cosine, red green blue, where that does not depend on what is behind it.
   * @returns false where it has no such part; `out` is then not written
   */
  reflectance(_out: Float64Array, _surface: i32, _cosine: number): boolean {
    return false;
  }

  /** How what it mirrors, at a cosine to its facets, is polarised; see `PARTED`. As it stands here it is left as it was. */
  polarise(out: Float64Array, _surface: i32, _cosine: number): void {
    out[PARTED] = 0;
    out[SLANT_KEPT] = 1;
  }

  /** Chance with which `sample` takes the mirror lobe rather than the base, from what each would send back. */
  mirrorShare(_surface: i32, _albedo: Float64Array, _cosOut: number): number {
    return 0;
  }

  /**
   * Scattering from `i` to `o`, and the density with which `sample` picks `i`; see `VALUE` and those below it.
   * @param mirrorShare chance with which `sample` takes the mirror lobe
   * @param baseGain how much likelier than by the cosine law the base sends its sample there, see `PathGuide`
   */
  abstract evaluate(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    mirrorShare: number,
    o: Float64Array,
    i: Float64Array,
    baseGain: number,
  ): void;

  /**
   * Samples a direction with the density that `evaluate` reports.
   * @param out 0-2 direction  @param choice picks the lobe, 0 to 1
   * @returns false when the sampled direction points into the surface
   */
  abstract sample(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    mirrorShare: number,
    o: Float64Array,
    choice: number,
    uv: Float64Array,
  ): boolean;

  /** Scattering of the base alone, as seen through any coat or sheen. @param out 0-2, 1/sr */
  evaluateBase(
    out: Float64Array,
    _surface: i32,
    _albedo: Float64Array,
    _o: Float64Array,
    _i: Float64Array,
  ): void {
    for (let c = 0; c < 3; c++) out[c] = 0;
  }

  /** Part of even light from all round that the base sends to a direction, over its colour. */
  baseAlbedo(_surface: i32, _cosOut: number): number {
    return 1;
  }

  /** Part of even light that the base, with any sheen, sends to a direction; what a coat mirrors is not counted. */
  sentByBase(out: Float64Array, surface: i32, albedo: Float64Array, cosOut: number): void {
    const kept = this.baseAlbedo(surface, cosOut);
    for (let c = 0; c < 3; c++) out[c] = albedo[c] * kept;
  }

  /** Of what is scattered evenly the part that is sent back rather than let through. */
  sentBack(_surface: i32, _albedo: Float64Array): number {
    return 1;
  }

  /** Whether light can pass it without being turned, anywhere. */
  letsStraight(surface: i32): boolean {
    const s = this.t.surfaces;
    return s[surface + STRAIGHT] + s[surface + STRAIGHT + 1] + s[surface + STRAIGHT + 2] > 0;
  }

  /** Part of light that passes straight on, red green blue, at a point of a primitive. */
  straight(out: Float64Array, surface: i32, _primitive: i32, _point: Float64Array): void {
    const s = this.t.surfaces;
    for (let c = 0; c < 3; c++) out[c] = s[surface + STRAIGHT + c];
  }

  /** What of light from inside leaves towards a direction, over that of an even exit. @param cosIn of the direction */
  exitShare(_surface: i32, _cosIn: number): number {
    return 1;
  }

  /** What is left of the colour of the base where so much passes straight on, over what it is elsewhere. */
  closed(_surface: i32, _straight: Float64Array): number {
    return 1;
  }
}
