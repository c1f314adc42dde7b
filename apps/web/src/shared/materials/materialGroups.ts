import type { AnyMaterial } from '@fendrix/contract';

/** A material by the name that it is known by. */
export interface NamedMaterial<M extends AnyMaterial = AnyMaterial> {
  name: string;
  material: M;
  /** What it is good for, as the kit says. */
  purposes?: readonly string[];
}

const BY_PURPOSE: readonly [purpose: string, group: string][] = [
  ['glass', 'Glass'],
  ['liquid', 'Liquids'],
  ['foil', 'Metals and foils'],
  ['metal', 'Metals and foils'],
  ['cloth', 'Cloth'],
  ['wood', 'Wood and stone'],
  ['stone', 'Wood and stone'],
  ['acrylic', 'Acrylic, mirror, ceramic'],
  ['ceramic', 'Acrylic, mirror, ceramic'],
  ['mirror', 'Acrylic, mirror, ceramic'],
  ['food', 'Food'],
];

/** The group that a material stands in where it is chosen. */
export function groupOf({ material, purposes = [] }: NamedMaterial): string {
  if (material.kind === 'translucent' || material.kind === 'net') return 'Frost and net';
  return BY_PURPOSE.find(([purpose]) => purposes.includes(purpose))?.[1] ?? 'Paper and paint';
}

/** Materials by group, each group where its first one stands. */
export function grouped<N extends NamedMaterial>(materials: readonly N[]): [group: string, own: N[]][] {
  const groups = new Map<string, N[]>();
  for (const one of materials) groups.set(groupOf(one), [...(groups.get(groupOf(one)) ?? []), one]);
  return [...groups];
}
