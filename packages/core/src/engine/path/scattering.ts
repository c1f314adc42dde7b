import { POLARISING } from '../fresnel.js';
import type { SurfaceHit } from '../surfaceHit.js';
import { BASE_PART, PDF, SCATTERING } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import { dot3, fromFrame, scale3 } from '../vectors.js';
import { PathGuide } from './pathGuide.js';
import type { RoughMirrors } from './roughMirrors.js';
import type { Stokes } from './stokes.js';
import type { Way } from './way.js';

/** What is seen in a mirror lobe narrower than this GGX alpha is traced, not taken from lightmaps. */
const SHARP_ALPHA = 0.15;

/**
 * How light is scattered where a way has met a surface: by its model, by the path guide, and towards rough mirrors,
 * with the density of all of them together.
 */
export class Scattering {
  hit: SurfaceHit;
  /** Towards the viewer, and another direction, in the frame of the surface. */
  out: Float64Array = new Float64Array(3);
  into: Float64Array = new Float64Array(3);
  /** Answer of `evaluate`, see `VALUE`. */
  value: Float64Array = new Float64Array(SCATTERING);
  /** The coat of the surface scatters alone: its base has been, or will be, taken from a lightmap. */
  coatAlone: boolean = false;
  /** The base scatters alone: what its mirror lobe brings is counted apart. */
  baseAlone: boolean = false;
  guide: PathGuide;
  rough: RoughMirrors;
  private towards: Float64Array = new Float64Array(3);
  private half: Float64Array = new Float64Array(3);
  private polarising: Float64Array = new Float64Array(POLARISING);

  constructor(t: SceneTables, hit: SurfaceHit, rough: RoughMirrors) {
    this.hit = hit;
    this.guide = new PathGuide(t);
    this.rough = rough;
  }

  /** Makes ready for a surface met from a direction. */
  lookOut(direction: Float64Array): void {
    this.hit.lookOut(direction, this.out);
  }

  /** Whether a direction lies on a side the surface scatters to; writes it to `into`. */
  canSee(direction: Float64Array): boolean {
    const hit = this.hit;
    const cosIn = dot3(direction, hit.normal);
    const side = dot3(direction, hit.flat);
    if (!(cosIn > 0 && side > 0) && !(hit.model.transmits && cosIn < 0 && side < 0)) return false;
    this.into[0] = hit.along(direction, 0);
    this.into[1] = hit.along(direction, 3);
    this.into[2] = cosIn;
    return true;
  }

  /** Scattering from `into` to `out`; of the coat or the base alone where the other is dealt with. @param share of the mirror lobe */
  evaluate(share: number): void {
    const value = this.value;
    const hit = this.hit;
    const gain = this.guide.gain(this.into);
    hit.model.evaluate(value, hit.row, hit.albedo, share, this.out, this.into, gain);
    if (this.rough.share > 0) this.mixDensities();
    if (this.baseAlone) for (let c = 0; c < 3; c++) value[c] = value[BASE_PART + c];
    if (!this.coatAlone) return;
    for (let c = 0; c < 3; c++) {
      value[c] = value[c] - value[BASE_PART + c];
      value[BASE_PART + c] = 0;
    }
  }

  /** What its mirror lobe makes of polarisation between `out` and `into`. @param part of the light that it mirrors */
  mirrorPolarised(stokes: Stokes, direction: Float64Array, part: number): void {
    const hit = this.hit;
    const half = this.half;
    const out = this.out;
    const into = this.into;
    let squared: number = 0;
    for (let a = 0; a < 3; a++) {
      half[a] = out[a] + into[a];
      squared += half[a] * half[a];
    }
    scale3(half, 1 / Math.sqrt(squared));
    hit.model.polarise(this.polarising, hit.row, Math.min(1, dot3(out, half)));
    fromFrame(this.towards, half, hit.frame, hit.normal);
    stokes.meet(direction, this.towards, this.polarising, part);
  }

  /** On its way `into`: what the mirror lobe scatters there keeps polarisation, what the base does loses it. */
  polarise(way: Way): void {
    if (!way.analysed) return;
    this.mirrorPolarised(way.stokes, way.direction, this.mirrorPart());
  }

  /** Part of what is scattered that its mirror lobe scatters, as last evaluated. */
  mirrorPart(): number {
    const value = this.value;
    const all = value[0] + value[1] + value[2];
    const base = value[BASE_PART] + value[BASE_PART + 1] + value[BASE_PART + 2];
    return all > 0 ? Math.max(0, 1 - base / all) : 0;
  }

  /** Whether the mirror lobe here is so narrow that it shows things sharply. */
  isSharp(): boolean {
    return this.hit.model.roughness(this.hit.row) < SHARP_ALPHA;
  }

  /** Neither guided nor sent to rough mirrors. */
  scatterPlainly(): void {
    this.guide.aim(-1);
    this.rough.turnOff();
  }

  /** Directions are scattered, or aimed at rough mirrors. */
  private mixDensities(): void {
    const share = this.rough.share;
    fromFrame(this.towards, this.into, this.hit.frame, this.hit.normal);
    const aimed = this.rough.density(this.towards);
    this.value[PDF] = (1 - share) * this.value[PDF] + share * aimed;
  }
}
