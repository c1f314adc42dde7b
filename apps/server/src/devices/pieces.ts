import type { Light } from '@fendrix/contract';
import { pieceOf } from '@fendrix/core';
import type { KitStore } from '../domain/kit.js';

/** The pieces of equipment that are really there: each light a little off the figures of its kind. */
export interface Pieces {
  /** @returns what a light of a set really is; undefined where all are as by their figures */
  of(seed: number): Promise<((light: Light) => Light) | undefined>;
}

export function createPieces(kit: KitStore): Pieces {
  return {
    async of(seed) {
      if (seed === 0) return undefined;
      const { document } = await kit.read();
      // Whatever the kit was calibrated to, the lamp itself stays what it is.
      const nominal = new Map(
        document.entries.flatMap((entry) => {
          if (entry.what !== 'light') return [];
          const light = entry.calibrated?.before ?? entry.thing;
          return [[light.name, light] as const];
        }),
      );
      return (light) => pieceOf(light, nominal.get(light.name), seed);
    },
  };
}
