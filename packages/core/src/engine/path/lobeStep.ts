import type { Sampler } from '../sampler.js';
import { PDF, SCATTERS } from '../surfaces/surfaceModel.js';
import type { SceneTables } from '../tables.js';
import { dot3, fromFrame, scale3 } from '../vectors.js';
import type { Scattering } from './scattering.js';
import type { Way } from './way.js';

/**
 * Ways that go on in a narrow mirror lobe which bundles light, satin metal or a satin coat: from lamps (`Carrier`), and from where what
 * lamps send by way of it has been counted (`ScatterStep`), which is why no light is sampled here.
 */
export class LobeStep {
  private t: SceneTables;
  private sampler: Sampler;
  private scattering: Scattering;

  constructor(t: SceneTables, sampler: Sampler, scattering: Scattering) {
    this.t = t;
    this.sampler = sampler;
    this.scattering = scattering;
  }

  /** Whether the surface met bundles light by such a lobe. */
  bundles(): boolean {
    const hit = this.scattering.hit;
    const model = hit.model;
    return (
      this.t.bundles[hit.primitive] !== 0 && model.interaction === SCATTERS && model.bundlesByLobe(hit.row)
    );
  }

  /** By chance the way goes by the lobe, or else by what lies under it. @returns whether by the lobe */
  choose(way: Way): boolean {
    const hit = this.scattering.hit;
    // All that rough metal sends back is its lobe.
    if (hit.model.isRough) return true;
    const share = hit.model.mirrorShare(hit.row, hit.albedo, hit.cosOut);
    this.sampler.next();
    const byLobe = this.sampler.uv[0] < share;
    scale3(way.throughput, 1 / (byLobe ? share : 1 - share));
    return byLobe;
  }

  /** Sends a way on in the lobe. @returns false where it leads nowhere */
  follow(way: Way): boolean {
    const scattering = this.scattering;
    const hit = scattering.hit;
    const model = hit.model;
    const row = hit.row;
    const albedo = hit.albedo;
    const sampler = this.sampler;
    const into = scattering.into;
    const value = scattering.value;
    scattering.scatterPlainly();
    scattering.lookOut(way.direction);
    const share = model.isRough ? model.mirrorShare(row, albedo, hit.cosOut) : 1;
    sampler.next();
    const choice = sampler.uv[0];
    sampler.stretch(share, choice >= share);
    if (!model.sample(into, row, albedo, share, scattering.out, choice, sampler.uv)) return false;
    scattering.coatAlone = !model.isRough;
    scattering.evaluate(share);
    scattering.coatAlone = false;
    if (!(value[PDF] > 0)) return false;
    const gain = into[2] / value[PDF];
    scattering.polarise(way);
    for (let c = 0; c < 3; c++) way.throughput[c] = way.throughput[c] * value[c] * gain;
    fromFrame(way.direction, into, hit.frame, hit.normal);
    way.lastSharp = hit.primitive;
    way.pdf = 0;
    way.sampleOnce();
    way.forgetSampled();
    return dot3(way.direction, hit.flat) > 0;
  }
}
