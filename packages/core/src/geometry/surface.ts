import type { AnyMaterial, Dielectric, Reflectance, Relief } from '@fendrix/contract';
import { LRUCache } from 'lru-cache';
import {
  CLOTH,
  COATED,
  DIELECTRIC,
  MATTE,
  METAL,
  MIRROR,
  NET,
  RETROREFLECTIVE,
  TRANSLUCENT,
  WAX,
} from '../engine/layouts.js';
import { requireDomain } from '../errors.js';
import { type Coat, coveredReflectance, makeCoat } from '../optics/coat.js';
import { indexByColour } from '../optics/dispersion.js';
import { CLEAR_ALPHA, METAL_INDEX, type MetalLobe, makeMetalLobe } from '../optics/metal.js';
import { makeSheen, type Sheen } from '../optics/sheen.js';
import { makeTone, type SurfaceTone } from './tone.js';

/** An edge of a net that opens softly, see the contract. */
export type SoftEdge = NonNullable<Extract<AnyMaterial, { kind: 'net' }>['softEdge']>;

/** A material made ready for shading. */
export interface Surface {
  kind: number;
  /** Linear reflectance; of a coated surface that of the base as seen through the coat. */
  r: number;
  g: number;
  b: number;
  coat: Coat | null;
  /** Mirror lobe of bare metal and rough mirrors; of a clear one its Fresnel figures count alone. */
  lobe: MetalLobe | null;
  /** What goes back to where it came from: its lobe, red green blue. */
  returned: { lobe: MetalLobe; colour: readonly [number, number, number] } | null;
  /** GGX alpha of the boundary of a clear medium; 0 is clear. */
  frost: number;
  /** Whether a brush runs up the body rather than round it. */
  brushUp: boolean;
  /** Sheen of cloth. */
  sheen: Sheen | null;
  /** What is let through evenly and what straight on: translucent red, green, blue; of a net all three equal. */
  spread: readonly [number, number, number];
  straight: readonly [number, number, number];
  /** Place at which a net opens fully: side and width, null for an even one. */
  softEdge: SoftEdge | null;
  /** 1 / mean free path, 1/m, and albedo of one scattering inside wax. */
  scatterPerM: readonly [number, number, number];
  single: readonly [number, number, number];
  tone: SurfaceTone | null;
  relief: Relief | null;
  /** Index into the media of a dielectric, -1 otherwise. */
  medium: number;
}

/** What fills a dielectric. */
export interface Medium {
  index: number;
  /** The same for red, green and blue; null where it splits no light. */
  colourIndex: [number, number, number] | null;
  /** Napierian absorption per metre: red, green, blue. */
  absorptionPerM: [number, number, number];
  /** How often light is scattered, evenly to all sides, per metre. */
  cloudPerM: number;
  /** Surface that stands for a cloudy medium in quick pictures; -1 for a clear one. */
  face: number;
}

/** Where two media overlap the one with the higher place in the list counts, so liquids come before glass. */
export const MOST_MEDIA = 31;

/** Surfaces as they were last asked for: in a drag none changes, and a printed one takes long. Prints of 32 MB together at most. */
const lastSurfaces = new LRUCache<string, Surface>({
  max: 64,
  maxSize: 8e6,
  sizeCalculation: ({ tone }) => 1 + (tone?.raster.length ?? 0),
});

/** Gathers the surfaces and media of a set; equal ones are kept once. */
export class SurfaceList {
  readonly surfaces: Surface[] = [];
  readonly media: Medium[] = [];
  private readonly known = new Map<string, number>();

  /** Liquids must be added before any glass. @throws {DomainError} more than 31 different media */
  addMedium(material: Dielectric, role: 'liquid' | 'body'): number {
    const { index, absorptionPerCm: perCm, scatteringPerCm } = material;
    return this.once(`medium ${role} ${index} ${material.dispersion} ${perCm} ${scatteringPerCm}`, () => {
      requireDomain(
        this.media.length < MOST_MEDIA,
        `a set holds at most ${MOST_MEDIA} different clear materials`,
      );
      const [r = 0, g = 0, b = 0] = typeof perCm === 'number' ? [perCm, perCm, perCm] : perCm;
      const medium: Medium = {
        index,
        colourIndex: indexByColour(material),
        absorptionPerM: [100 * r, 100 * g, 100 * b],
        cloudPerM: 100 * scatteringPerCm,
        face: -1,
      };
      if (scatteringPerCm > 0)
        medium.face = this.add({ kind: 'matte', reflectance: cloudReflectance(medium) });
      return this.media.push(medium) - 1;
    });
  }

  add(material: AnyMaterial, role: 'liquid' | 'body' = 'body'): number {
    const medium = material.kind === 'dielectric' ? this.addMedium(material, role) : -1;
    const what = JSON.stringify(material);
    return this.once(`surface ${role} ${what}`, () => {
      const key = `${medium} ${what}`;
      const surface = lastSurfaces.get(key) ?? makeSurface(material, medium);
      lastSurfaces.set(key, surface);
      return this.surfaces.push(surface) - 1;
    });
  }

  private once(key: string, make: () => number): number {
    const found = this.known.get(key);
    if (found !== undefined) return found;
    const index = make();
    this.known.set(key, index);
    return index;
  }
}

/** Of things of which only the shape counts: no tables of roughness, no lettering is worked out. */
export class UnseenSurfaces extends SurfaceList {
  override add(): number {
    return 0;
  }

  override addMedium(): number {
    return 0;
  }
}

/** Whether light can pass without being turned: shadow rays then have to be weighed, not just blocked. */
export function letsThroughStraight(surface: Surface): boolean {
  return surface.softEdge !== null || surface.straight[0] + surface.straight[1] + surface.straight[2] > 0;
}

const NONE: readonly [number, number, number] = [0, 0, 0];

function makeSurface(material: AnyMaterial, medium: number): Surface {
  const [r, g, b] = 'reflectance' in material ? rgb(material.reflectance) : [1, 1, 1];
  const plain: Surface = {
    kind: MATTE,
    r,
    g,
    b,
    coat: null,
    lobe: null,
    returned: null,
    frost: 0,
    brushUp: false,
    sheen: null,
    spread: NONE,
    straight: NONE,
    softEdge: null,
    scatterPerM: NONE,
    single: NONE,
    tone: null,
    relief: ('relief' in material && material.relief) || null,
    medium,
  };
  const toneWith = (finish: (reflectance: number) => number) =>
    'tone' in material && material.tone ? makeTone(material.tone, [r, g, b], finish) : null;
  const same = (reflectance: number) => reflectance;
  switch (material.kind) {
    case 'matte':
      return { ...plain, tone: toneWith(same) };
    case 'cloth':
      return { ...plain, kind: CLOTH, sheen: makeSheen(material.sheen), tone: toneWith(same) };
    case 'dielectric':
      return { ...plain, kind: DIELECTRIC, frost: material.roughness < CLEAR_ALPHA ? 0 : material.roughness };
    case 'coated': {
      const coat = makeCoat(material.coatIndex, material.roughness);
      const under = (reflectance: number) => coveredReflectance(coat, reflectance);
      return { ...plain, kind: COATED, r: under(r), g: under(g), b: under(b), coat, tone: toneWith(under) };
    }
    case 'mirror': {
      const lobe = makeMetalLobe({ reflectance: [r, g, b] }, material.roughness, material.roughness);
      return { ...plain, kind: material.roughness < CLEAR_ALPHA ? MIRROR : METAL, lobe };
    }
    case 'metal': {
      const { roughness, brushed } = material;
      const across = brushed?.acrossRoughness ?? roughness;
      const lobe = makeMetalLobe(METAL_INDEX[material.metal], roughness, across);
      const clear = roughness < CLEAR_ALPHA && across < CLEAR_ALPHA;
      return { ...plain, kind: clear ? MIRROR : METAL, lobe, brushUp: brushed?.along === 'up' };
    }
    case 'retroreflective': {
      const { roughness } = material;
      const lobe = makeMetalLobe({ reflectance: [1, 1, 1] }, roughness, roughness);
      const returned = { lobe, colour: rgb(material.returned) };
      return { ...plain, kind: RETROREFLECTIVE, returned, tone: toneWith(same) };
    }
    case 'translucent': {
      const through = rgb(material.transmittance);
      const part = (share: number) => through.map((t) => t * share) as [number, number, number];
      return { ...plain, kind: TRANSLUCENT, spread: part(material.haze), straight: part(1 - material.haze) };
    }
    case 'net': {
      const open = material.openness;
      const closed = 1 - open;
      return {
        ...plain,
        kind: NET,
        r: r * closed,
        g: g * closed,
        b: b * closed,
        straight: [open, open, open],
        softEdge: material.softEdge ?? null,
      };
    }
    case 'wax': {
      const coat = makeCoat(material.index, material.roughness);
      const single = (reflectance: number) => singleAlbedo(reflectance, coat.insideDiffuse);
      return {
        ...plain,
        kind: WAX,
        coat,
        scatterPerM: rgb(material.meanFreePathM).map((pathM) => 1 / pathM) as [number, number, number],
        single: [single(r), single(g), single(b)],
      };
    }
  }
}

/**
 * Albedo of one scattering that gives a thick body a reflectance for even light, for isotropic scattering.
 * The reflectance is that of the light that has entered; what the skin sends back inside is counted in.
 * @param inside part of even light from inside that the skin sends back
 * Within 1 % of a random walk (docs/physics/surfaces.md).
 * Source: van de Hulst 1980, Multiple Light Scattering, sec. 11.2 (spherical albedo by the similarity parameter).
 */
export function singleAlbedo(reflectance: number, inside: number): number {
  // The body without its skin: R = A (1 - Fi) / (1 - A Fi).
  const bare = reflectance / (1 - inside + inside * reflectance);
  let low = 0;
  let high = 1;
  for (let i = 0; i < 60; i++) {
    const s = (low + high) / 2;
    if (thickReflectance(s) > bare) low = s;
    else high = s;
  }
  return 1 - ((low + high) / 2) ** 2;
}

/** Reflectance of a thick body without a skin, for even light. @param s square root of what one scattering loses */
const thickReflectance = (s: number): number => ((1 - s) * (1 - 0.139 * s)) / (1 + 1.17 * s);

/** What a thick layer of a cloudy medium sends back of the light that falls on it evenly, but for what it mirrors. */
export function cloudReflectance({ index, absorptionPerM, cloudPerM }: Medium): [number, number, number] {
  const skin = makeCoat(index, 0);
  const [r, g, b] = absorptionPerM.map((lost) =>
    coveredReflectance(skin, thickReflectance(Math.sqrt(lost / (lost + cloudPerM)))),
  );
  return [r ?? 0, g ?? 0, b ?? 0];
}

export function rgb(reflectance: Reflectance): [number, number, number] {
  return typeof reflectance === 'number' ? [reflectance, reflectance, reflectance] : reflectance;
}
