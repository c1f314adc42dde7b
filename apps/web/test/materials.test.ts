import { defaultKit } from '@fendrix/catalogue';
import { type Dielectric, setDocument } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { grouped, type NamedMaterial } from '../src/shared/materials/materialGroups';
import { swatchSet } from '../src/shared/materials/swatchSet';
import { knownAs, TINTS, tinted } from '../src/shared/materials/tint';

const materials: NamedMaterial[] = defaultKit().entries.flatMap((entry) =>
  entry.what === 'material' ? [{ name: entry.name, material: entry.thing, purposes: entry.purposes }] : [],
);
const named = (name: string) => {
  const found = materials.find((one) => one.name === name);
  if (!found) throw new Error(`the kit has ${name}`);
  return found;
};
const glass = (name: string) => named(name).material as Dielectric;

describe('materials of the kit', () => {
  test.each(materials.map(({ name, material }) => [name, material] as const))(
    '%s has a swatch, made once',
    (_name, material) => {
      const set = swatchSet(material);
      expect(setDocument.safeParse(set).success).toBe(true);
      expect(swatchSet(material)).toBe(set);
      const shown = [...set.products.map((one) => one.material), ...set.sheets.map(({ front }) => front)];
      expect(shown).toContainEqual(material);
    },
  );

  test('stand in groups as one looks for them, each in one, and hold what a studio names', () => {
    const groups = grouped(materials);
    expect(groups.reduce((count, [, own]) => count + own.length, 0)).toBe(materials.length);
    const of = (name: string) => groups.find(([, own]) => own.some((one) => one.name === name))?.[0];
    expect(
      [
        'Clear glass',
        'Frosted glass',
        'Red wine',
        'Kraft paper',
        'Crumpled foil',
        'Linen',
        'Slate',
        'Mirror',
      ].map(of),
    ).toEqual([
      'Glass',
      'Glass',
      'Liquids',
      'Paper and paint',
      'Metals and foils',
      'Cloth',
      'Wood and stone',
      'Acrylic, mirror, ceramic',
    ]);
    for (const [group, own] of groups) expect(own.length, group).toBeGreaterThan(2);
    const frost = { name: 'x', material: { kind: 'net', openness: 0.5, reflectance: 0.04 } as const };
    expect(grouped([frost])[0]?.[0]).toBe('Frost and net');
  });
});

describe('how much colour a clear material has', () => {
  test.each(['light', 'medium', 'deep'] as const)(
    '%s is found again, also where it is one number',
    (tint) => {
      for (const one of [glass('Amber glass'), { ...glass('Amber glass'), absorptionPerCm: 0.7 }]) {
        const known = [{ name: 'it', material: one }];
        expect(knownAs(tinted(one, TINTS[tint]), known)).toEqual({ one: known[0], tint });
      }
    },
  );

  test('what is clear, opaque or unknown has none', () => {
    expect(knownAs(glass('Water'), materials)?.tint).toBeNull();
    expect(knownAs(named('Linen').material, materials)?.tint).toBeNull();
    expect(knownAs(tinted(glass('Amber glass'), 1.7), materials)).toBeNull();
    expect(knownAs({ ...glass('Amber glass'), index: 1.6 }, materials)).toBeNull();
  });
});
