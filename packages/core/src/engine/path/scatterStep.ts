import type { i32 } from '../portable.js';
import type { Sampler } from '../sampler.js';
import { PDF } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import { copy3, dot3, fromFrame, most3, scale3 } from '../vectors.js';
import type { Branches } from './branches.js';
import type { Caustics } from './caustics.js';
import { ONE_LIGHT_FROM } from './heuristics.js';
import type { LightSampling } from './lightSampling.js';
import type { LobeStep } from './lobeStep.js';
import type { Reflection } from './reflection.js';
import type { Scattering } from './scattering.js';
import type { TraceMode } from './traceMode.js';
import { Way } from './way.js';

/** A way that has lost more than this is not worth two samples where one will do. */
const WORTH_TWO = 0.3;

/** From a surface that scatters: samples the lights, then goes on in a sampled direction. */
export class ScatterStep {
  private t: SceneTables;
  private mode: TraceMode;
  private sampler: Sampler;
  private branches: Branches;
  private scattering: Scattering;
  private lights: LightSampling;
  private reflection: Reflection;
  private lobe: LobeStep;
  private caustics: Caustics;
  private before: Way = new Way();
  private aimed: Float64Array = new Float64Array(3);

  constructor(
    t: SceneTables,
    mode: TraceMode,
    sampler: Sampler,
    branches: Branches,
    scattering: Scattering,
    lights: LightSampling,
    reflection: Reflection,
    lobe: LobeStep,
    caustics: Caustics,
  ) {
    this.t = t;
    this.mode = mode;
    this.caustics = caustics;
    this.sampler = sampler;
    this.branches = branches;
    this.scattering = scattering;
    this.lights = lights;
    this.reflection = reflection;
    this.lobe = lobe;
  }

  /** @returns false where the way leads nowhere */
  scatter(way: Way): boolean {
    way.fromCloud = false;
    const scattering = this.scattering;
    const hit = scattering.hit;
    let share = hit.model.mirrorShare(hit.row, hit.albedo, hit.cosOut);
    if (scattering.coatAlone) share = 1;
    if (hit.model.isSpecular(hit.row)) {
      if (this.reflection.reflectInCoat(way, share)) return true;
      // The clear coat's choice is made: what is left scatters from the base alone.
      share = 0;
    } else if (way.causticsCounted && this.lobe.bundles()) {
      if (scattering.coatAlone || this.lobe.choose(way)) return this.lobe.follow(way);
      scattering.baseAlone = true;
      share = 0;
    }
    way.specular = false;
    scattering.lookOut(way.direction);
    copy3(way.chosenAt, hit.point);
    const patch = this.lights.findPatch();
    this.decideSamples(way);
    scattering.guide.aim(patch);
    this.aimAtRoughMirrors(way);
    this.lights.sampleLights(way, share, true);
    this.lights.sampleLightmaps(way, share);
    this.lights.sampleByMirrors(way, share);
    way.lastSharp = -1;
    way.causticsCounted = this.mode.useLightmaps && !scattering.coatAlone && this.caustics.isKept(way);
    if (way.causticsCounted) this.caustics.add(way, share);

    if (way.ways === 1) return this.goOn(way, share, 0);
    scale3(way.throughput, 0.5);
    this.before.copy(way);
    if (this.goOn(way, share, 0)) this.branches.add(way).setOutFrom(hit.point, 1);
    way.copy(this.before);
    this.sampler.back(1);
    return this.goOn(way, share, 1);
  }

  /**
   * How much is sampled where light is first scattered: twice what goes on from there, as the way to the surface is
   * paid for; lights too where there is only one.
   */
  private decideSamples(way: Way): void {
    const twice = way.sharp && this.branches.left > 0 && most3(way.throughput) > WORTH_TWO;
    way.ways = twice ? 2 : 1;
    way.lightSamples = twice && this.t.emitterCount === 1 ? 2 : 1;
  }

  /** From the first surfaces some ways are sent to silver cards and foil. */
  private aimAtRoughMirrors(way: Way): void {
    const rough = this.scattering.rough;
    const hit = this.scattering.hit;
    const wide = !hit.model.isRough && !this.scattering.coatAlone;
    if (rough.count > 0 && wide && way.bounce < ONE_LIGHT_FROM) rough.look(hit.point);
    else rough.turnOff();
  }

  /** Samples one of the ways on. @returns false where it leads nowhere */
  private goOn(way: Way, share: number, index: i32): boolean {
    const scattering = this.scattering;
    const hit = scattering.hit;
    const value = scattering.value;
    const sampler = this.sampler;
    const ways = way.ways;
    sampler.nextPart(index, ways);
    const towards = scattering.rough.share;
    const aimed = sampler.uv[0] < towards;
    // What is left of the number that made a choice is as even within its part.
    if (towards > 0) sampler.stretch(towards, !aimed);
    const base = aimed || sampler.uv[0] >= share;
    if (aimed) {
      scattering.rough.aim(this.aimed, sampler.uv);
      if (!scattering.canSee(this.aimed)) return false;
    } else if (!this.sampleModel(share, base)) return false;
    scattering.evaluate(share);
    const pdf = value[PDF];
    if (!(pdf > 0)) return false;
    way.pdf = pdf * ways;
    const cosIn = scattering.into[2];
    const gain = Math.abs(cosIn) / pdf;
    scattering.polarise(way);
    for (let a = 0; a < 3; a++) way.throughput[a] = way.throughput[a] * value[a] * gain;
    fromFrame(way.direction, scattering.into, hit.frame, hit.normal);
    if (base || !scattering.isSharp()) way.sharp = false;
    return dot3(way.direction, hit.flat) > 0 === cosIn > 0;
  }

  /** Samples a direction by the model of the surface. @param base whether by its base, not its mirror lobe */
  private sampleModel(share: number, base: boolean): boolean {
    const scattering = this.scattering;
    const hit = scattering.hit;
    const model = hit.model;
    const uv = this.sampler.uv;
    const choice = uv[0];
    let through = false;
    if (model.transmits) {
      const back = model.sentBack(hit.row, hit.albedo);
      through = base && choice >= back;
      this.sampler.stretch(back, through);
    } else if (share > 0) this.sampler.stretch(share, base);
    if (base && !through) scattering.guide.bend(uv);
    return model.sample(scattering.into, hit.row, hit.albedo, share, scattering.out, choice, uv);
  }
}
