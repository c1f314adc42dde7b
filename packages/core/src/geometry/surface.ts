import type { Dielectric, Material, Reflectance } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { type Coat, coveredReflectance, makeCoat } from '../optics/coat.js';

export const MATTE = 0;
export const COATED = 1;
export const DIELECTRIC = 2;
export const MIRROR = 3;

/** A material made ready for shading. */
export interface Surface {
  kind: number;
  /** Linear reflectance; of a coated surface that of the base as seen through the coat. */
  r: number;
  g: number;
  b: number;
  coat: Coat | null;
  /** Index into the media of a dielectric, -1 otherwise. */
  medium: number;
}

/** What fills a dielectric. */
export interface Medium {
  index: number;
  /** Napierian absorption per metre: red, green, blue. */
  absorptionPerM: [number, number, number];
}

/** Where two media overlap the one with the higher place in the list counts, so liquids come before glass. */
export const MOST_MEDIA = 31;

/** Gathers the surfaces and media of a set; equal ones are kept once. */
export class SurfaceList {
  readonly surfaces: Surface[] = [];
  readonly media: Medium[] = [];
  private readonly known = new Map<string, number>();

  /** Liquids must be added before any glass. @throws {DomainError} more than 31 different media */
  addMedium(material: Dielectric, role: 'liquid' | 'body'): number {
    return this.once(`medium ${role} ${JSON.stringify(material)}`, () => {
      requireDomain(
        this.media.length < MOST_MEDIA,
        `a set holds at most ${MOST_MEDIA} different clear materials`,
      );
      const perCm = material.absorptionPerCm;
      const [r = 0, g = 0, b = 0] = typeof perCm === 'number' ? [perCm, perCm, perCm] : perCm;
      return this.media.push({ index: material.index, absorptionPerM: [100 * r, 100 * g, 100 * b] }) - 1;
    });
  }

  add(material: Material, role: 'liquid' | 'body' = 'body'): number {
    const medium = material.kind === 'dielectric' ? this.addMedium(material, role) : -1;
    return this.once(`surface ${role} ${JSON.stringify(material)}`, () => {
      return this.surfaces.push(makeSurface(material, medium)) - 1;
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

function makeSurface(material: Material, medium: number): Surface {
  switch (material.kind) {
    case 'matte':
      return { kind: MATTE, ...rgb(material.reflectance), coat: null, medium };
    case 'mirror':
      return { kind: MIRROR, ...rgb(material.reflectance), coat: null, medium };
    case 'dielectric':
      return { kind: DIELECTRIC, r: 1, g: 1, b: 1, coat: null, medium };
    case 'coated': {
      const coat = makeCoat(material.coatIndex, material.roughness);
      const base = rgb(material.reflectance);
      return {
        kind: COATED,
        r: coveredReflectance(coat, base.r),
        g: coveredReflectance(coat, base.g),
        b: coveredReflectance(coat, base.b),
        coat,
        medium,
      };
    }
  }
}

function rgb(reflectance: Reflectance): { r: number; g: number; b: number } {
  if (typeof reflectance === 'number') return { r: reflectance, g: reflectance, b: reflectance };
  return { r: reflectance[0], g: reflectance[1], b: reflectance[2] };
}
