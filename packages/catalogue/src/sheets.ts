import type { KitEntryInput } from '@fendrix/contract';

type SheetEntry = Extract<KitEntryInput, { what: 'sheet' }>;
type SheetInput = SheetEntry['thing'];
type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;
type Sides = Pick<SheetInput, 'front' | 'back'>;

const BOARDS = 'Usual reflectances of boards, measured straight on';
const LOSSES = 'Usual losses of diffusion films and papers';

const both = (front: SheetInput['front'], back: SheetInput['back'] = front): Sides => ({ front, back });
const white = { kind: 'matte' as const, reflectance: 0.85 };
/** Black board keeps a little gloss. */
const black = { kind: 'coated' as const, reflectance: 0.03, roughness: 0.5 };
const frost = (stops: number, haze: number) => ({
  kind: 'translucent' as const,
  transmittance: 2 ** -stops,
  reflectance: Math.min(0.45, 0.9 * (1 - 2 ** -stops)),
  haze,
});

const right = { positionM: [0.28, -0.1, 0.15], aimM: [0, 0, 0.1] } satisfies Partial<SheetInput>;
const left = { positionM: [-0.28, -0.1, 0.15], aimM: [0, 0, 0.1] } satisfies Partial<SheetInput>;
const before = { positionM: [-0.35, 0, 0.22], aimM: [0, 0, 0.12] } satisfies Partial<SheetInput>;
const above = { positionM: [0, 0.05, 0.5], aimM: [0, 0.05, 0] } satisfies Partial<SheetInput>;

function sheet(
  id: string,
  name: string,
  purposes: string[],
  source: string,
  thing: DistributiveOmit<SheetInput, 'tag' | 'name'>,
): SheetEntry {
  return { what: 'sheet', id, name, purposes, source, thing: { tag: '1', name, ...thing } as SheetInput };
}

export const sheets: SheetEntry[] = [
  sheet(
    'white-card-20x30',
    'White card 20 x 30',
    ['bounce', 'fill', 'bright edge'],
    `${BOARDS}: white foam board 0.85.`,
    {
      kind: 'card',
      ...right,
      widthM: 0.2,
      heightM: 0.3,
      ...both(white),
    },
  ),
  sheet(
    'white-card-50x70',
    'White board 50 x 70',
    ['bounce', 'fill', 'wrap'],
    `${BOARDS}: white foam board 0.85.`,
    {
      kind: 'card',
      ...right,
      widthM: 0.5,
      heightM: 0.7,
      ...both(white),
    },
  ),
  sheet(
    'silver-card',
    'Silver card 20 x 30',
    ['bounce', 'crisp fill', 'sparkle'],
    `${BOARDS}: silver card 0.8, a rough mirror.`,
    {
      kind: 'card',
      ...right,
      widthM: 0.2,
      heightM: 0.3,
      ...both({ kind: 'mirror', reflectance: 0.8, roughness: 0.25 }),
    },
  ),
  sheet(
    'gold-card',
    'Gold card 20 x 30',
    ['bounce', 'warm fill'],
    `${BOARDS}: gold card, a warm rough mirror.`,
    {
      kind: 'card',
      ...right,
      widthM: 0.2,
      heightM: 0.3,
      ...both({ kind: 'mirror', reflectance: [0.82, 0.66, 0.38], roughness: 0.25 }),
    },
  ),
  sheet(
    'crumpled-foil',
    'Crumpled foil 15 x 20',
    ['bounce', 'sparkle', 'broken light'],
    `${BOARDS}: crumpled foil 0.75, broad lobe.`,
    {
      kind: 'card',
      ...right,
      widthM: 0.15,
      heightM: 0.2,
      ...both({
        kind: 'mirror',
        reflectance: 0.75,
        roughness: 0.08,
        relief: { kind: 'crumple', depthM: 0.004, sizeM: 0.02 },
      }),
    },
  ),
  sheet(
    'mirror-card',
    'Mirror 5 x 8',
    ['bounce', 'spot', 'light a label', 'behind a glass'],
    `${BOARDS}: mirror 0.9.`,
    {
      kind: 'card',
      positionM: [0.15, 0.12, 0.06],
      aimM: [0, 0, 0.1],
      widthM: 0.05,
      heightM: 0.08,
      ...both({ kind: 'mirror', reflectance: 0.9 }, black),
    },
  ),
  sheet(
    'black-flag',
    'Black flag 20 x 30',
    ['cut', 'dark edge', 'shade', 'block'],
    `${BOARDS}: black foam board 0.04 with some gloss.`,
    {
      kind: 'flag',
      ...left,
      widthM: 0.2,
      heightM: 0.3,
      ...both(black),
    },
  ),
  sheet(
    'velvet-flag',
    'Velvet flag 50 x 70',
    ['cut', 'black', 'dark edge', 'deep'],
    `${BOARDS}: black velvet 0.004.`,
    {
      kind: 'flag',
      ...left,
      widthM: 0.5,
      heightM: 0.7,
      ...both({ kind: 'matte', reflectance: 0.004 }),
    },
  ),
  sheet(
    'soft-flag',
    'Flag with soft edge 20 x 30',
    ['cut', 'gradual', 'feather'],
    'Net that opens over its upper half.',
    {
      kind: 'flag',
      ...left,
      widthM: 0.2,
      heightM: 0.3,
      ...both({ kind: 'net', openness: 0.05, softEdge: { side: 'top', widthPart: 0.5 } }),
    },
  ),
  sheet(
    'single-net',
    'Net, half a stop',
    ['cut', 'lower a little'],
    'Single net: half a stop through its holes.',
    {
      kind: 'flag',
      ...left,
      widthM: 0.3,
      heightM: 0.3,
      ...both({ kind: 'net', openness: 2 ** -0.5 }),
    },
  ),
  sheet(
    'lens-hole-card',
    'Black card with lens hole',
    ['cut', 'hide the camera', 'dark front'],
    `${BOARDS}: black foam board 0.04.`,
    {
      kind: 'card',
      positionM: [0, -0.9, 0.12],
      aimM: [0, 0, 0.1],
      widthM: 0.6,
      heightM: 0.6,
      holeDiameterM: 0.07,
      ...both(black),
    },
  ),
  sheet(
    'gradient-card',
    'Printed gradient 20 x 30',
    ['gradient', 'metal', 'bright to dark', 'cylinder'],
    'Solid ink 0.035, bare paper 0.82.',
    {
      kind: 'card',
      ...right,
      widthM: 0.2,
      heightM: 0.3,
      ...both(
        {
          kind: 'matte',
          reflectance: 0.82,
          tone: { kind: 'gradient', direction: 'across', from: 0.035, to: 0.82, gamma: 1.4 },
        },
        white,
      ),
    },
  ),
  sheet(
    'tracing-paper',
    'Tracing paper frame 40 x 50',
    ['soft', 'gradient', 'spread', 'diffuse'],
    `${LOSSES}: tracing paper 1.2 stops.`,
    {
      kind: 'frame',
      ...before,
      widthM: 0.4,
      heightM: 0.5,
      ...both(frost(1.2, 0.92)),
    },
  ),
  sheet(
    'baking-paper',
    'Two sheets of baking paper 38 x 50',
    ['soft', 'gradient', 'kitchen', 'diffuse'],
    `${LOSSES}: two sheets 1.5 stops.`,
    {
      kind: 'frame',
      ...before,
      widthM: 0.38,
      heightM: 0.5,
      ...both(frost(1.5, 0.97)),
    },
  ),
  sheet(
    'quarter-frost',
    'Quarter frost 50 x 60',
    ['soft', 'take the edge off', 'diffuse'],
    `${LOSSES}: quarter frost 0.4 stop, half of it straight.`,
    {
      kind: 'frame',
      ...before,
      widthM: 0.5,
      heightM: 0.6,
      ...both(frost(0.4, 0.5)),
    },
  ),
  sheet(
    'full-frost',
    'Full frost 50 x 60',
    ['soft', 'gradient', 'diffuse'],
    `${LOSSES}: full frost 1.8 stops.`,
    {
      kind: 'frame',
      ...before,
      widthM: 0.5,
      heightM: 0.6,
      ...both(frost(1.8, 1)),
    },
  ),
  sheet(
    'white-acrylic-sheet',
    'White acrylic 3 mm, 50 x 50',
    ['glow', 'bright field', 'from below', 'diffuse'],
    `${LOSSES}: white acrylic 3 mm 2 stops.`,
    {
      kind: 'frame',
      positionM: [0, 0.4, 0.25],
      aimM: [0, 0, 0.15],
      widthM: 0.5,
      heightM: 0.5,
      ...both(frost(2, 1)),
    },
  ),
  sheet(
    'roof',
    'Frost roof 60 x 60',
    ['soft', 'top', 'gradient', 'flat lay'],
    `${LOSSES}: half frost 1 stop.`,
    {
      kind: 'roof',
      ...above,
      widthM: 0.6,
      heightM: 0.6,
      ...both(frost(1, 0.9)),
    },
  ),
  sheet('reflector-disc', 'White disc 60', ['bounce', 'fill'], `${BOARDS}: white cloth 0.8.`, {
    kind: 'disc',
    ...right,
    diameterM: 0.6,
    ...both({ kind: 'matte', reflectance: 0.8 }),
  }),
  sheet(
    'folded-v',
    'Folded V of white board',
    ['bounce', 'wrap', 'stands by itself', 'fill'],
    `${BOARDS}: white foam board 0.85.`,
    {
      kind: 'fold',
      positionM: [0.35, 0, 0.15],
      aimM: [0, 0, 0.15],
      widthM: 0.2,
      heightM: 0.3,
      openingDeg: 100,
      ...both(white),
    },
  ),
  sheet(
    'curved-card',
    'Curved white card',
    ['bounce', 'wrap', 'cylinder', 'even highlight'],
    `${BOARDS}: white paper 0.82.`,
    {
      kind: 'curve',
      positionM: [0.2, 0, 0.15],
      aimM: [0, 0, 0.15],
      widthM: 0.4,
      heightM: 0.3,
      bendDeg: 120,
      ...both({ kind: 'matte', reflectance: 0.82 }),
    },
  ),
  sheet(
    'paper-cone',
    'Paper cone to the lens',
    ['glow', 'jewelry', 'shadowless', 'wrap'],
    `${LOSSES}: drawing paper 1.6 stops.`,
    {
      kind: 'cone',
      positionM: [0, -0.35, 0.05],
      aimM: [0, 0, 0.05],
      diameterM: 0.08,
      farDiameterM: 0.3,
      lengthM: 0.35,
      ...both(frost(1.6, 1)),
    },
  ),
  sheet(
    'light-tent',
    'Light tent 60',
    ['glow', 'wrap', 'shadowless', 'chrome'],
    `${LOSSES}: tent cloth 1.3 stops.`,
    {
      kind: 'tent',
      positionM: [0, 0.05, 0],
      aimM: [0, -1, 0],
      form: 'box',
      widthM: 0.6,
      depthM: 0.6,
      heightM: 0.6,
      opening: { widthM: 0.12, heightM: 0.3 },
      ...both(frost(1.3, 1)),
    },
  ),
  sheet(
    'dome-tent',
    'Dome tent 50',
    ['glow', 'wrap', 'shadowless', 'jewelry'],
    `${LOSSES}: tent cloth 1.3 stops.`,
    {
      kind: 'tent',
      positionM: [0, 0, 0],
      aimM: [0, -1, 0],
      form: 'dome',
      widthM: 0.5,
      depthM: 0.5,
      heightM: 0.3,
      opening: { widthM: 0.12, heightM: 0.15 },
      ...both(frost(1.3, 1)),
    },
  ),
  sheet(
    'branch',
    'Branch with leaves',
    ['pattern', 'dapple', 'shadow', 'gobo', 'summer'],
    'A plant before the light; leaves 6 cm long.',
    {
      kind: 'leaves',
      positionM: [-0.4, 0.15, 0.35],
      aimM: [0, 0, 0.05],
      widthM: 0.4,
      heightM: 0.4,
      count: 40,
      leafM: 0.06,
      seed: 2,
      ...both({ kind: 'matte', reflectance: [0.06, 0.12, 0.04] }),
    },
  ),
];
