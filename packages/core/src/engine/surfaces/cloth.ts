import { SHEEN, SHEEN_MEAN, SHEEN_TABLE } from '../layouts.js';
import { tableAlbedo } from '../microfacet.js';
import { type i32, whole32 } from '../portable.js';
import { sheenLobe } from '../sheen.js';
import type { SceneTables } from '../tables.js';
import { EvenBase } from './evenBase.js';

/** Linen, felt, velvet: an even base under a sheen that is brightest at grazing angles. Source: docs/physics/surfaces.md */
export class Cloth extends EvenBase {
  constructor(t: SceneTables) {
    super(t);
    this.takesIrradiance = true;
  }

  override evaluateBase(
    out: Float64Array,
    surface: i32,
    albedo: Float64Array,
    o: Float64Array,
    i: Float64Array,
  ): void {
    const part = this.t.surfaces[surface + SHEEN];
    const oz = o[2];
    const iz = i[2];
    const seen = (1 - part * this.sheenAlbedo(surface, iz)) * (1 - part * this.sheenAlbedo(surface, oz));
    const base = ((1 / Math.PI) * seen) / (1 - part * this.t.surfaces[surface + SHEEN_MEAN]);
    const hx = o[0] + i[0];
    const hy = o[1] + i[1];
    const hz = oz + iz;
    const sheen = part * sheenLobe(oz, iz, hz / Math.sqrt(hx * hx + hy * hy + hz * hz));
    for (let c = 0; c < 3; c++) out[c] = albedo[c] * base + sheen;
  }

  override sentByBase(out: Float64Array, surface: i32, albedo: Float64Array, cosOut: number): void {
    const sheen = this.t.surfaces[surface + SHEEN] * this.sheenAlbedo(surface, cosOut);
    for (let c = 0; c < 3; c++) out[c] = albedo[c] * (1 - sheen) + sheen;
  }

  /** Part of light from a direction that the whole sheen lobe sends back. */
  private sheenAlbedo(surface: i32, cosine: number): number {
    return tableAlbedo(this.t.albedos, whole32(this.t.surfaces[surface + SHEEN_TABLE]), cosine);
  }
}
