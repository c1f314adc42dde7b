import { readFileSync } from 'node:fs';
import { type AnyMaterial, materialKinds, type OpaqueMaterial } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { SURFACE_KINDS } from '../src/engine/layouts.js';
import { PDF, REFLECTS, REFRACTS, SCATTERING, SCATTERS } from '../src/engine/surfaces/surfaceModel.js';
import { SurfaceModels } from '../src/engine/surfaces/surfaceModels.js';
import { seededRandom } from './random.js';
import { overheadSoftbox, testSet } from './sets.js';
import { oneSurface } from './surfaces.js';
import { seenLuminance } from './tracing.js';

/** Each kind of material, white where it can be; a kind that is missing here does not compile. */
const materials: { [K in AnyMaterial['kind']]: Extract<AnyMaterial, { kind: K }>[] } = {
  matte: [{ kind: 'matte', reflectance: 1 }],
  cloth: [{ kind: 'cloth', reflectance: 1, sheen: 0.6 }],
  coated: [
    { kind: 'coated', reflectance: 1, coatIndex: 1.5, roughness: 0.4 },
    { kind: 'coated', reflectance: 1, coatIndex: 1.5, roughness: 0.1 },
  ],
  wax: [{ kind: 'wax', reflectance: 0.9, meanFreePathM: 0.001, index: 1.4, roughness: 0.3 }],
  metal: [
    { kind: 'metal', metal: 'aluminium', roughness: 0.3 },
    { kind: 'metal', metal: 'copper', roughness: 0.2, brushed: { acrossRoughness: 0.4, along: 'round' } },
    { kind: 'metal', metal: 'gold', roughness: 0 },
  ],
  mirror: [
    { kind: 'mirror', reflectance: 1, roughness: 0.3 },
    { kind: 'mirror', reflectance: 1, roughness: 0 },
  ],
  dielectric: [
    { kind: 'dielectric', index: 1.5, absorptionPerCm: 0, scatteringPerCm: 0, roughness: 0 },
    { kind: 'dielectric', index: 1.5, absorptionPerCm: 0, scatteringPerCm: 0, roughness: 0.3 },
  ],
  retroreflective: [
    { kind: 'retroreflective', reflectance: 1, returned: [0.9, 0.7, 0.2], roughness: 0.3 },
    { kind: 'retroreflective', reflectance: 1, returned: 0.5, roughness: 0.1 },
  ],
  translucent: [{ kind: 'translucent', reflectance: 0.4, transmittance: 0.6, haze: 1 }],
  net: [{ kind: 'net', openness: 0.3, reflectance: 1 }],
};

const all = Object.values(materials)
  .flat()
  .map(
    (material) =>
      [`${material.kind} ${'roughness' in material ? material.roughness : ''}`, material] as const,
  );

/** A direction, even over the half space above or below. */
function direction(random: () => number, below = false): Float64Array {
  const z = 0.02 + 0.98 * random();
  const flat = Math.sqrt(1 - z * z);
  const phi = 2 * Math.PI * random();
  return Float64Array.of(flat * Math.cos(phi), flat * Math.sin(phi), below ? -z : z);
}

describe('reflective tape', () => {
  /** Luminance that a board of the material shows a lens straight before it, by a lamp at a place. */
  const seen = (material: OpaqueMaterial, lampM: [number, number, number]) =>
    seenLuminance(
      testSet({
        lights: [{ ...overheadSoftbox(1), positionM: lampM, aimM: [0, 0, 0], widthM: 0.02, heightM: 0.02 }],
        bench: { widthM: 1, depthM: 1, material },
      }),
      [0, 0, 1],
      [0, 0, 0],
      2000,
    );
  const matte = { kind: 'matte' as const, reflectance: 0.3 };
  const tape = { kind: 'retroreflective' as const, reflectance: 0.3, returned: 0.35, roughness: 0.05 };

  test('is many times brighter than its cloth for a lens beside the lamp, and no brighter from elsewhere', () => {
    expect(seen(tape, [0.04, 0, 1]) / seen(matte, [0.04, 0, 1])).toBeGreaterThan(10);
    const aside = seen(tape, [0.8, 0, 0.6]) / seen(matte, [0.8, 0, 0.6]);
    expect(aside).toBeGreaterThan(0.6);
    expect(aside).toBeLessThan(1.05);
  });
});

describe('models of surfaces', () => {
  test('there is one for each kind', () => {
    const { tables } = oneSurface({ kind: 'matte', reflectance: 0.5 });
    const models = new SurfaceModels(tables);
    const found = Array.from({ length: SURFACE_KINDS }, (_, kind) => models.ofKind(kind));
    expect(new Set(found.map((model) => model.constructor)).size).toBe(SURFACE_KINDS);
  });

  test('each kind of the contract has its line in the physics of surfaces', () => {
    const page = readFileSync(new URL('../../../docs/physics/surfaces.md', import.meta.url), 'utf8');
    const kinds = new Set([...materialKinds.body, ...materialKinds.sheet]);
    expect(Object.keys(materials).sort()).toEqual([...kinds].sort());
    for (const kind of kinds) expect(page).toMatch(new RegExp(`\\n\\| ${kind}\\b`));
  });

  describe.each(all)('%s', (_, material) => {
    const { model, albedo } = oneSurface(material);
    const out = Float64Array.of(0.5, 0, Math.sqrt(0.75));
    // Enough of the mirror lobe, where there is one, for a wrong density of it to be seen.
    const share = model.mirrorShare(0, albedo, out[2] as number) > 0 ? 0.6 : 0;
    const value = new Float64Array(SCATTERING);
    const steps = 30_000;

    test('sends back no more light than falls on it, and the same both ways', () => {
      const random = seededRandom(3);
      const back = new Float64Array(SCATTERING);
      let sum = 0;
      for (let i = 0; i < steps; i++) {
        const below = model.transmits && i % 2 === 1;
        const into = direction(random, below);
        const cosine = Math.abs(into[2] as number);
        model.evaluate(value, 0, albedo, share, out, into, 1);
        sum += (((model.transmits ? 2 : 1) * 2 * Math.PI * 0.98) / steps) * (value[0] as number) * cosine;
        if (below) continue;
        model.evaluate(back, 0, albedo, share, into, out, 1);
        expect(back[0]).toBeCloseTo(value[0] as number, 9);
      }
      expect(sum).toBeLessThan(1.02);
      if (model.interaction === SCATTERS) expect(sum).toBeGreaterThan(0.5);
    });

    test('samples directions with the density it tells', () => {
      const random = seededRandom(7);
      const into = new Float64Array(3);
      let told = 0;
      let sampled = 0;
      let nearby = 0;
      let expected = 0;
      // The cone of 40 degrees round the mirror direction, where lobes are.
      const isNear = (d: Float64Array) =>
        -0.5 * (d[0] as number) + Math.sqrt(0.75) * (d[2] as number) > 0.766;
      for (let i = 0; i < steps; i++) {
        const even = direction(random, model.transmits && i % 2 === 1);
        model.evaluate(value, 0, albedo, share, out, even, 1);
        const density = (((model.transmits ? 2 : 1) * 2 * Math.PI * 0.98) / steps) * (value[PDF] as number);
        told += density;
        if (isNear(even)) expected += density;
        const uv = Float64Array.of(random(), random());
        if (!model.sample(into, 0, albedo, share, out, random(), uv)) continue;
        if (Math.abs(into[2] as number) < 0.02) continue;
        sampled += 1 / steps;
        if (isNear(into)) nearby += 1 / steps;
      }
      if (model.interaction === REFLECTS || model.interaction === REFRACTS) {
        expect(told * sampled).toBe(0);
        return;
      }
      expect(told / sampled).toBeCloseTo(1, 1);
      expect(nearby).toBeCloseTo(expected, 1);
    });

    test('its traits agree with each other', () => {
      const mirrored = new Float64Array(3);
      const mirrors = model.reflectance(mirrored, 0, 0.8);
      if (mirrors) expect(model.roughness(0)).toBeLessThan(2);
      if (model.isSpecular(0)) expect(mirrors).toBe(true);
      if (model.takesIrradiance) expect(model.interaction).toBe(SCATTERS);
    });
  });
});
