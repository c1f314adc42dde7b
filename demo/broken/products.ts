import { type Product, type Seeded, seeded } from './studio.js';

type Material = Product['material'];
export const matte = (reflectance: number): Material => ({ kind: 'matte', reflectance });
export const gloss = (reflectance: number): Material => ({ kind: 'coated', reflectance });
export const metal = (roughness: number): Material => ({ kind: 'metal', metal: 'silver', roughness });

const by = ({ scale }: Seeded, value: number) => Number((scale * value).toFixed(4));

/** A round jar. */
export function jar(seed: number, material: Material = matte(0.35), more: object = {}): Product {
  const own = seeded(seed);
  return {
    kind: 'turned',
    id: 'jar',
    name: 'Jar',
    positionM: [own.asideM, 0, 0],
    material,
    profile: [
      { radiusM: by(own, 0.045), heightM: 0 },
      { radiusM: by(own, 0.045), heightM: by(own, 0.15) },
    ],
    ...more,
  } as Product;
}

/** A jar with a printed label that faces the lens. */
export const labelledJar = (seed: number, label: object = {}, more: object = {}): Product => {
  const own = seeded(seed);
  return jar(seed, matte(0.3), {
    labels: [
      {
        name: 'Label',
        fromM: by(own, 0.03),
        toM: by(own, 0.11),
        widthDeg: 140,
        material: {
          kind: 'matte',
          reflectance: 0.6,
          tone: { kind: 'text', lines: ['QUINCE', 'JELLY'], ink: 0.05 },
        },
        ...label,
      },
    ],
    ...more,
  });
};

export function box(seed: number, material: Material = matte(0.35), more: object = {}): Product {
  const own = seeded(seed);
  return {
    kind: 'box',
    id: 'box',
    name: 'Box',
    positionM: [own.asideM, 0, 0],
    material,
    widthM: by(own, 0.11),
    depthM: by(own, 0.06),
    heightM: by(own, 0.15),
    ...more,
  } as Product;
}

/** A bowl with a heap of food. */
export function bowl(seed: number, food: Material = matte(0.3)): Product {
  const own = seeded(seed);
  return {
    kind: 'dish',
    id: 'bowl',
    name: 'Bowl of porridge',
    positionM: [own.asideM, 0, 0],
    material: matte(0.35),
    diameterM: by(own, 0.16),
    heightM: by(own, 0.06),
    footDiameterM: by(own, 0.08),
    food: { material: food, form: 'heap', heightM: 0.02 },
  } as Product;
}

/** A bottle of clear glass with liquid and, where it has one, a paper label. */
export function bottle(seed: number, more: object = {}): Product {
  const own = seeded(seed);
  return {
    kind: 'turned',
    id: 'bottle',
    name: 'Bottle of syrup',
    positionM: [own.asideM, 0, 0],
    material: { kind: 'dielectric', index: 1.52 },
    profile: [
      { radiusM: by(own, 0.035), heightM: 0 },
      { radiusM: by(own, 0.035), heightM: by(own, 0.11) },
      { radiusM: by(own, 0.014), heightM: by(own, 0.14) },
      { radiusM: by(own, 0.014), heightM: by(own, 0.17) },
    ],
    hollow: {
      wallM: 0.003,
      baseM: 0.006,
      liquid: {
        material: { kind: 'dielectric', index: 1.4, absorptionPerCm: [0.02, 0.1, 0.3] },
        fillToM: by(own, 0.105),
      },
    },
    ...more,
  } as Product;
}

/** Things of one kind side by side, their middles so far apart. */
export const rowOf = (one: Product, count: number, apartM: number, offM: readonly number[] = []): Product[] =>
  Array.from({ length: count }, (_, i) => ({
    ...one,
    id: `${one.id}-${i + 1}`,
    name: `${one.name} ${i + 1}`,
    positionM: [(i - (count - 1) / 2) * apartM + (offM[i] ?? 0), 0, 0],
  })) as Product[];

/** A folded shirt, flat. */
export const shirt = (seed: number, reflectance = 0.35): Product =>
  ({
    kind: 'cloth',
    id: 'shirt',
    name: 'Linen shirt',
    positionM: [seeded(seed).asideM, 0, 0],
    material: { kind: 'cloth', reflectance },
    widthM: by(seeded(seed), 0.36),
    depthM: by(seeded(seed), 0.28),
    seed,
  }) as Product;
