import {
  type AnyMaterial,
  materialKinds,
  type SetDocument,
  type SetDocumentInput,
  setDocument,
} from '@fendrix/contract';

/** Radius of the ball and side of the strip, m. */
const BALL_M = 0.03;
const STRIP_M = 0.07;
const PROFILE_POINTS = 13;
/** From this index on it is glass, which is blown: a wall so thick; below it is a liquid or solid plastic. */
const GLASS_FROM = 1.5;
const WALL_M = 0.003;

const PASSES: ReadonlySet<string> = new Set(['translucent', 'net']);

const made = new WeakMap<AnyMaterial, SetDocument>();

/**
 * A small set that shows what a material looks like: as a ball and as a strip that is bent (of what lets light through, with a light
 * behind it), under one soft light and beside a white card, before a ground that runs from light to dark.
 */
export function swatchSet(material: AnyMaterial): SetDocument {
  const known = made.get(material);
  if (known) return known;
  const set = setDocument.parse(inputOf(material));
  made.set(material, set);
  return set;
}

function inputOf(material: AnyMaterial): SetDocumentInput {
  const asSheet = materialKinds.sheet.has(material.kind);
  const passes = PASSES.has(material.kind);
  const clear = material.kind === 'dielectric';
  const isGlass = material.kind === 'dielectric' && material.index >= GLASS_FROM;
  const grey = { kind: 'matte' as const, reflectance: 0.3 };
  const ball = {
    kind: 'turned' as const,
    id: 'ball',
    name: 'Ball',
    positionM: [asSheet ? -0.034 : -0.03, 0, 0] as [number, number, number],
    material: material as never,
    profile: Array.from({ length: PROFILE_POINTS }, (_, i) => {
      const angle = (i / (PROFILE_POINTS - 1)) * Math.PI;
      return {
        radiusM: Math.round(BALL_M * Math.sin(angle) * 1e6) / 1e6,
        heightM: Math.round(BALL_M * (1 - Math.cos(angle)) * 1e6) / 1e6,
        smooth: i > 0 && i < PROFILE_POINTS - 1,
      };
    }),
    ...(isGlass ? { hollow: { wallM: WALL_M, baseM: WALL_M } } : {}),
  };
  const block = {
    kind: 'box' as const,
    id: 'block',
    name: 'Block',
    positionM: [0.04, 0.005, 0] as [number, number, number],
    turnDeg: 25,
    widthM: 0.04,
    depthM: isGlass ? WALL_M : 0.02,
    heightM: 0.055,
    edgeRadiusM: 0.001,
    material: material as never,
  };
  const strip = {
    kind: 'curve' as const,
    tag: '1',
    name: 'Strip',
    positionM: [passes ? 0 : 0.045, passes ? 0.03 : 0.012, STRIP_M / 2] as [number, number, number],
    aimM: [passes ? 0 : 0.02, -1, STRIP_M / 2] as [number, number, number],
    widthM: passes ? 0.12 : 0.06,
    heightM: STRIP_M,
    bendDeg: 80,
    front: material as never,
    back: material as never,
  };
  const lamp = {
    kind: 'softbox' as const,
    tag: 'A',
    name: 'Softbox',
    positionM: [-0.3, -0.3, 0.42] as [number, number, number],
    aimM: [0, 0, 0.03] as [number, number, number],
    // Through rough glass a light is found by chance: a wide one of little luminance is found soon.
    widthM: clear ? 0.8 : 0.35,
    heightM: clear ? 0.8 : 0.35,
    output: { kind: 'luminance' as const, luminanceCdM2: clear ? 6_000 : 26_000 },
  };
  const behind = {
    tag: 'B',
    positionM: [clear ? -0.05 : 0.02, 0.14, clear ? 0.15 : 0.05] as [number, number, number],
    aimM: [clear ? -0.05 : 0, 0, clear ? 0.15 : 0.03] as [number, number, number],
    output: { kind: 'luminance' as const, luminanceCdM2: clear ? 1_800 : 9_000 },
  };
  return {
    format: 'fendrix-set',
    version: 3,
    name: 'Swatch',
    bench: { widthM: 1, depthM: 1, material: grey },
    backdrop: {
      kind: 'panel',
      widthM: 0.6,
      heightM: 0.4,
      centreM: [0, 0.16, 0.15],
      material: {
        kind: 'matte',
        reflectance: 0.4,
        tone: { kind: 'gradient', direction: 'across', from: 0.65, to: 0.04, start: 0.3, end: 0.7 },
      },
    },
    products: [...(passes ? [] : [ball]), ...(asSheet ? [] : [block])],
    sheets: [
      ...(asSheet ? [strip] : []),
      {
        kind: 'card',
        tag: '2',
        name: 'Card',
        positionM: [0.2, -0.06, 0.08],
        aimM: [0, 0, 0.04],
        widthM: 0.15,
        heightM: 0.2,
        front: { kind: 'matte', reflectance: 0.85 },
        back: { kind: 'matte', reflectance: 0.85 },
      },
    ],
    lights: [
      lamp,
      ...(passes ? [{ ...lamp, ...behind, widthM: 0.04, heightM: 0.04 }] : []),
      ...(clear ? [{ ...lamp, ...behind, widthM: 0.14, heightM: 0.3 }] : []),
    ],
    camera: {
      body: { name: 'Body', sensorWidthM: 0.036, sensorHeightM: 0.024, pixelsWide: 6000, pixelsHigh: 4000 },
      lens: { name: 'Lens', focalLengthM: 0.1 },
      positionM: [0, -0.46, 0.16],
      aimM: [0, 0, 0.03],
      focusM: 0.46,
      fNumber: 8,
      shutterS: 1 / 60,
      iso: 100,
    },
  };
}
