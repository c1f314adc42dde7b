import type { KitEntryInput } from '@fendrix/contract';

export type MaterialEntry = Extract<KitEntryInput, { what: 'material' }>;

export const TABLES = 'Refractive index tables';
export const BY_SIGHT = 'colour by sight, to be matched to a test sample';
export const SHEETS = 'Usual reflectances of boards and papers, measured straight on';

export function material(
  id: string,
  name: string,
  purposes: string[],
  source: string,
  thing: MaterialEntry['thing'],
): MaterialEntry {
  return { what: 'material', id, name, purposes, source, thing };
}

/** What is clear, of a refractive index, with its absorption (natural, per cm) alike or for red, green and blue. */
export const clear = (index: number, absorptionPerCm: number | [number, number, number] = 0) => ({
  kind: 'dielectric' as const,
  index,
  absorptionPerCm,
});
