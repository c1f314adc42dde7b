import type { AnyMaterial, Dielectric } from '@fendrix/contract';
import equal from 'fast-deep-equal';
import type { NamedMaterial } from './materialGroups';

/** How much of its colour a clear material has, over what the kit gives it. */
export const TINTS = { light: 0.4, medium: 1, deep: 2.5 } as const;
export type Tint = keyof typeof TINTS;

/** Less than this over all colours is clear: there is nothing to be light or deep, 1/cm. */
const CLEAR_PER_CM = 0.05;

export const tinted = (material: Dielectric, factor: number): Dielectric => ({
  ...material,
  absorptionPerCm: Array.isArray(material.absorptionPerCm)
    ? material.absorptionPerCm.map((value) => value * factor)
    : material.absorptionPerCm * factor,
});

/** The material of the kit that this one is, and with how much of its colour; null where it is none of them. */
export function knownAs<M extends AnyMaterial>(
  material: M,
  known: readonly NamedMaterial<M>[],
): { one: NamedMaterial<M>; tint: Tint | null } | null {
  const same = known.find((one) => equal(withGrey(one.material), withGrey(material)));
  if (same) return { one: same, tint: hasTint(material) ? 'medium' : null };
  if (!hasTint(material)) return null;
  for (const one of known) {
    if (!hasTint(one.material)) continue;
    for (const tint of Object.keys(TINTS) as Tint[]) {
      if (nearly(tinted(one.material, TINTS[tint]), material)) return { one, tint };
    }
  }
  return null;
}

/** Red, green and blue alike are one number. */
function withGrey(material: AnyMaterial): AnyMaterial {
  if (!('reflectance' in material) || !Array.isArray(material.reflectance)) return material;
  const [red, green, blue] = material.reflectance;
  return red === green && green === blue ? ({ ...material, reflectance: red } as AnyMaterial) : material;
}

function hasTint(material: AnyMaterial): material is Dielectric {
  if (material.kind !== 'dielectric') return false;
  return perColour(material).some((value) => value > CLEAR_PER_CM);
}

const perColour = ({ absorptionPerCm }: Dielectric): number[] =>
  Array.isArray(absorptionPerCm) ? absorptionPerCm : [absorptionPerCm];

/** The same but for the last places of its absorption. */
function nearly(one: Dielectric, other: Dielectric): boolean {
  const [a, b] = [perColour(one), perColour(other)];
  return (
    equal({ ...one, absorptionPerCm: 0 }, { ...other, absorptionPerCm: 0 }) &&
    a.length === b.length &&
    a.every((value, i) => Math.abs(value - (b[i] as number)) <= 1e-6 * Math.max(1, value))
  );
}
