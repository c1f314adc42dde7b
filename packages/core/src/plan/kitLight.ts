import type { Light } from '@fendrix/contract';

/** A light as the kit holds it: how it stands and its tag are the set's. */
export type KitLight = Exclude<Light, { kind: 'surround' | 'window' }>;

/** Soft faces, in the order in which they are taken for a first light or for a ground. */
const SOFT: readonly Light['kind'][] = ['softbox', 'octa', 'umbrella', 'panel'];

/**
 * A studio head in a softbox, for a studio whose kit is not known: 200 J, dial of seven stops in tenths, t0.1 of 1/800 s
 * at full power and a fifth of a stop longer for each stop down, as usual of heads set by their voltage.
 */
export function studioSoftbox(widthM: number, heightM: number): KitLight {
  return {
    kind: 'softbox',
    tag: 'A',
    name: `Softbox ${Math.round(100 * widthM)} x ${Math.round(100 * heightM)}`,
    on: true,
    stand: false,
    positionM: [0, 0, 1],
    aimM: [0, 0, 0],
    rollDeg: 0,
    widthM,
    heightM,
    hotCentre: 1.5,
    output: { kind: 'flash-energy', energyJ: 200, efficacyLmSPerJ: 35, modifierEfficiency: 0.45 },
    powerStops: 0,
    dial: { leastStops: -7, stepStops: 0.1 },
    duration: { fullS: 1 / 800, stopsPerStop: -0.2 },
  };
}

/**
 * The soft light of a kit whose face comes nearest to a size, by area; a plain softbox of just that size where the kit has
 * none at all.
 * @param widthM wanted face, m  @param heightM wanted face, m
 */
export function softLightOf(kit: readonly Light[], widthM: number, heightM: number): KitLight {
  const wanted = widthM * heightM;
  for (const kind of SOFT) {
    const [nearest] = kit
      .filter((light): light is KitLight => light.kind === kind)
      .sort((a, b) => apart(a, wanted) - apart(b, wanted));
    if (nearest) return nearest;
  }
  return studioSoftbox(widthM, heightM);
}

const apart = (light: KitLight, areaM2: number) => Math.abs(Math.log(faceAreaM2(light) / areaM2));

function faceAreaM2(light: KitLight): number {
  const { widthM, heightM } = faceSizeM(light);
  return widthM * heightM;
}

/** Across and up of a soft light's face, m. */
export function faceSizeM(light: KitLight): { widthM: number; heightM: number } {
  if ('widthM' in light) return light;
  const size = 'diameterM' in light ? light.diameterM : 0.05;
  return { widthM: size, heightM: size };
}
