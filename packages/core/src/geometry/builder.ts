import type { AnyMaterial } from '@fendrix/contract';
import { PrimitiveList, type Sides } from './primitives.js';
import { SurfaceList } from './surface.js';

/** Something with a name that can be hit by a ray. */
export interface Thing {
  kind: 'light' | 'sheet' | 'product' | 'bench' | 'backdrop' | 'room' | 'camera' | 'person' | 'stand';
  /** Tag of a light, sheet or stand, id of a product, name of a person, otherwise the kind or the wall's name. */
  key: string;
  name: string;
}

/** What the builders of things write into: primitives, surfaces, and the names of things. */
export class SceneParts {
  readonly list = new PrimitiveList();
  readonly things: Thing[] = [];

  /** @param surfaces where only shapes count, `UnseenSurfaces` */
  constructor(readonly surfaces: SurfaceList = new SurfaceList()) {}

  thing(kind: Thing['kind'], key: string, name: string): number {
    return this.things.push({ kind, key, name }) - 1;
  }

  /** Both sides of a thing that exists already. */
  sides(thing: number, front: AnyMaterial, back: AnyMaterial = front): Sides {
    return { thing, front: this.surfaces.add(front), back: this.surfaces.add(back) };
  }
}
