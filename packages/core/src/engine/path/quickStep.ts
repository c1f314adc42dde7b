import { CLOUD_FACE, COAT_INDEX, FLAT, MEDIUM_STRIDE, SPREAD } from '../layouts.js';
import { floor32, highestBit, type i32, mul32, whole32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import { sampleCoat } from '../surfaces/coat.js';
import { PDF } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import { copy3, dot3, fromFrame, nearestAxis, scale3 } from '../vectors.js';
import type { Branches } from './branches.js';
import type { Films } from './films.js';
import type { LightSampling } from './lightSampling.js';
import type { Media } from './media.js';
import type { Scattering } from './scattering.js';
import type { Way } from './way.js';

/** Steps of a colour from black to white that count as another one. */
const COLOUR_STEPS = 12;

/**
 * Surfaces of quick pictures: the base ends the path, with an ambient luminance for all light that has bounced; the
 * mirror lobe goes on.
 */
export class QuickStep {
  /** Luminance from all round for each film. */
  ambient: Float64Array;
  /**
   * What the last path met while it had met only what is clear or mirrors sharply, and its colour, as one number.
   * Pixels with the same one show the same things.
   */
  seen: i32 = 0;
  private t: SceneTables;
  private sampler: Sampler;
  private media: Media;
  private films: Films;
  private branches: Branches;
  private scattering: Scattering;
  private lights: LightSampling;
  // Where the path went into the clear things it is in, and the way it came.
  private entryPoint: Float64Array = new Float64Array(3);
  private entryFlat: Float64Array = new Float64Array(3);
  private entryNormal: Float64Array = new Float64Array(3);
  private entryCosOut: number = 1;
  private entryDirection: Float64Array = new Float64Array(3);
  private mirrored: Float64Array = new Float64Array(3);

  constructor(
    t: SceneTables,
    sampler: Sampler,
    media: Media,
    films: Films,
    branches: Branches,
    scattering: Scattering,
    lights: LightSampling,
  ) {
    this.t = t;
    this.sampler = sampler;
    this.media = media;
    this.films = films;
    this.branches = branches;
    this.scattering = scattering;
    this.lights = lights;
    this.ambient = new Float64Array(t.channelCount);
  }

  /** Notes the surface met in `seen`; of what is made of flat pieces also which way they face. */
  noteSurface(): void {
    const hit = this.scattering.hit;
    const flat = this.t.kind[hit.primitive] === FLAT;
    this.note(8 * hit.surface + (flat ? nearestAxis(hit.flat) : 0));
  }

  /** Notes the colour of the surface met, in steps that print and patterns cross. */
  noteColour(): void {
    const albedo = this.scattering.hit.albedo;
    for (let c = 0; c < 3; c++) this.note(floor32(COLOUR_STEPS * albedo[c]));
  }

  /** Notes where a way goes into something clear. */
  noteEntry(way: Way): void {
    const hit = this.scattering.hit;
    this.entryCosOut = hit.cosOut;
    copy3(this.entryPoint, hit.point);
    copy3(this.entryFlat, hit.flat);
    copy3(this.entryNormal, hit.normal);
    copy3(this.entryDirection, way.direction);
  }

  /** A cloudy medium is as a matte surface of what it sends back, where the way went into it. */
  endInCloud(way: Way): void {
    const t = this.t;
    const hit = this.scattering.hit;
    const index = this.media.index(way.inside);
    scale3(way.throughput, index * index);
    hit.become(whole32(t.media[highestBit(way.inside) * MEDIUM_STRIDE + CLOUD_FACE]));
    hit.cosOut = this.entryCosOut;
    copy3(hit.point, this.entryPoint);
    copy3(hit.flat, this.entryFlat);
    copy3(hit.normal, this.entryNormal);
    copy3(way.direction, this.entryDirection);
    hit.readColour();
    way.inside = 0;
    this.scatter(way);
  }

  /** @returns whether the way goes on, in a mirror lobe */
  scatter(way: Way): boolean {
    const scattering = this.scattering;
    const hit = scattering.hit;
    scattering.lookOut(way.direction);
    copy3(way.chosenAt, hit.point);
    if (this.t.surfaces[hit.row + COAT_INDEX] !== 0) {
      this.sampler.next();
      const weight = sampleCoat(scattering.into, this.t, hit.row, scattering.out, this.sampler.uv);
      fromFrame(this.mirrored, scattering.into, hit.frame, hit.normal);
      const outwards = dot3(this.mirrored, hit.flat) > 0;
      if (this.branches.mayPart(way, 1)) {
        if (outwards) this.setAside(way, weight);
      } else {
        const share = hit.model.mirrorShare(hit.row, hit.albedo, hit.cosOut);
        this.sampler.next();
        const takesCoat = this.sampler.uv[0] < share;
        scale3(way.throughput, takesCoat ? weight / share : 1 / (1 - share));
        if (takesCoat) {
          if (!scattering.isSharp()) way.sharp = false;
          if (way.analysed) scattering.mirrorPolarised(way.stokes, way.direction, 1);
          copy3(way.direction, this.mirrored);
          way.pdf = 0;
          return outwards;
        }
      }
    } else if (hit.model.isRough) return this.goByLobe(way);
    this.lights.sampleLights(way, 0, false);
    this.addAmbient(way);
    return false;
  }

  private setAside(way: Way, reflected: number): void {
    const kept = this.branches.addReflection(way, this.scattering.hit.point, reflected);
    copy3(kept.direction, this.mirrored);
    if (kept.analysed) this.scattering.mirrorPolarised(kept.stokes, way.direction, 1);
    kept.sharp = this.scattering.isSharp();
  }

  /** Rough metal: all goes on in its lobe. */
  private goByLobe(way: Way): boolean {
    const scattering = this.scattering;
    const hit = scattering.hit;
    const model = hit.model;
    const value = scattering.value;
    this.sampler.next();
    const uv = this.sampler.uv;
    if (!model.sample(scattering.into, hit.row, hit.albedo, 1, scattering.out, 0, uv)) return false;
    model.evaluate(value, hit.row, hit.albedo, 1, scattering.out, scattering.into, 1);
    const gain = scattering.into[2] / value[PDF];
    for (let c = 0; c < 3; c++) way.throughput[c] = way.throughput[c] * value[c] * gain;
    if (way.analysed) scattering.mirrorPolarised(way.stokes, way.direction, 1);
    fromFrame(way.direction, scattering.into, hit.frame, hit.normal);
    way.pdf = 0;
    if (!scattering.isSharp()) way.sharp = false;
    return dot3(way.direction, hit.flat) > 0;
  }

  private addAmbient(way: Way): void {
    const t = this.t;
    const hit = this.scattering.hit;
    const kept = hit.model.baseAlbedo(hit.row, hit.cosOut);
    for (let channel = 0; channel < t.channelCount; channel++) {
      for (let c = 0; c < 3; c++) {
        const colour = hit.albedo[c] * kept + t.surfaces[hit.row + SPREAD + c];
        const added = way.throughput[c] * colour * this.ambient[channel];
        this.films.addEven(way, channel, c, added);
      }
    }
  }

  private note(what: i32): void {
    this.seen = (mul32(this.seen ^ what, 0x7feb352d) + 1) | 0;
  }
}
