import { BLACK, camera, change, FROST, head, put, type Step, without } from '../steps.js';

const softStrip = (tag: string, side: number, powerStops: number) =>
  head(tag, powerStops, 0.42, {
    kind: 'softbox',
    name: side < 0 ? 'Strip left' : 'Strip right',
    positionM: [0.42 * side, 0.02, 0.3],
    aimM: [0, 0, 0.13],
    widthM: 0.25,
    heightM: 0.9,
    hotCentre: 1.3,
  });
const dish = (
  tag: string,
  name: string,
  positionM: number[],
  aimM: number[],
  powerStops: number,
  more = {},
) =>
  head(tag, powerStops, 0.65, { kind: 'dish', name, positionM, aimM, diameterM: 0.18, beamDeg: 60, ...more });
const frost = (tag: string, side: number) => ({
  kind: 'frame',
  tag,
  name: side < 0 ? 'frost left' : 'frost right',
  positionM: [0.32 * side, 0.02, 0.24],
  aimM: [0, 0, 0.14],
  widthM: 0.4,
  heightM: 0.56,
  ...FROST,
});

/** A glass bottle from a bare flash to the hero picture. */
export const bottleSteps: readonly Step[] = [
  {
    id: 'bare-flash',
    name: 'Bare flash',
    note: 'A small hard glint on the shoulder, a hard shadow, the liquid nearly black: a small light is a small image in glass.',
    change: (set) => set,
  },
  {
    id: 'umbrella',
    name: 'Umbrella',
    note: 'The shadow is soft now, the glint a round patch with ribs. Softer light, but still one blob in the glass.',
    change: (set) =>
      put(set, {
        lights: [
          head('A', -2, 0.55, {
            kind: 'umbrella',
            name: 'Umbrella',
            positionM: [-0.6, -0.6, 0.5],
            aimM: [0, 0, 0.12],
            diameterM: 0.85,
            hotCentre: 1.6,
            backShare: 0,
          }),
        ],
      }),
  },
  {
    id: 'one-strip',
    name: 'One strip',
    note: 'A long light draws a long highlight, and follows the form. The right edge sinks into the background.',
    change: (set) => put(set, { lights: [softStrip('A', -1, -2.5)] }),
  },
  {
    id: 'two-strips',
    name: 'Two strips',
    note: 'Both edges are drawn. The liquid is still dark: nothing bright stands behind it.',
    change: (set) => put(set, { lights: [softStrip('B', 1, -2.9)] }),
  },
  {
    id: 'lit-backdrop',
    name: 'Lit background',
    note: 'The liquid shows its colour: it is lit by what stands behind. The rims turn dark where the room shows through.',
    change: (set) =>
      put(set, {
        lights: [
          dish('C', 'Dish to the backdrop', [-0.5, 0.2, 0.1], [0, 0.55, 0.2], -4, {
            grid: { cutoffDeg: 60, lossStops: 0.8 },
          }),
        ],
      }),
  },
  {
    id: 'no-table',
    name: 'No table',
    note: 'On a plinth smaller than its base no white glow climbs into the foot of the glass. More to cut out later.',
    change: (set) => ({
      ...set,
      bench: {
        widthM: 0.055,
        depthM: 0.055,
        thicknessM: 0.25,
        centreM: [0, 0],
        material: { kind: 'matte', reflectance: 0.03 },
      },
    }),
  },
  {
    id: 'frost',
    name: 'Gradients through frost',
    note: 'A dish behind each frost: the strips now fade at one side instead of ending. Compare the profile under the band.',
    change: (set) =>
      put(without(set, 'A', 'B'), {
        lights: [
          dish('A', 'Dish left, behind frost', [-0.95, 0.05, 0.34], [-0.4, 0.02, 0.15], -2.2),
          dish('B', 'Dish right, behind frost', [0.95, 0.05, 0.34], [0.4, 0.02, 0.15], -2.8),
        ],
        sheets: [frost('1', -1), frost('2', 1)],
      }),
  },
  {
    id: 'moved-back',
    name: 'Backdrop moved back',
    note: 'Further back the background fills less of the angle: the dark rims of the glass get wider, and its light is its own.',
    change: (set) =>
      change(
        {
          ...set,
          spots: set.spots.map((spot) =>
            spot.name === 'table' ? { ...spot, pointM: [0.1, 0.85, 0.16] } : spot,
          ),
          backdrop: {
            kind: 'panel',
            widthM: 1.1,
            heightM: 0.9,
            centreM: [0, 0.85, 0.42],
            turnDeg: 0,
            material: { kind: 'matte', reflectance: 0.85 },
          },
        },
        'C',
        { positionM: [-0.5, 0.5, 0.1], aimM: [0, 0.85, 0.2] },
      ),
  },
  {
    id: 'gradient-backdrop',
    name: 'Gradient background',
    note: 'The dish stands low and close: the background falls off upwards. Depth without a second light.',
    change: (set) =>
      change(set, 'C', { positionM: [0, 0.62, -0.25], aimM: [0, 0.85, -0.04], powerStops: -3.8 }),
  },
  {
    id: 'label',
    name: 'Gridded, polarised spot on the label',
    note: 'The label was lit by chance. A snoot with polarising film lights it alone; the crossed filter takes its glare.',
    pinned: true,
    change: (set) =>
      camera(
        put(set, {
          lights: [
            head('D', -6.3, 0.5, {
              kind: 'snoot',
              name: 'Snoot on the label',
              positionM: [0.25, -0.9, 0.62],
              aimM: [0, -0.03, 0.075],
              diameterM: 0.06,
              cutoffDeg: 18,
              polarised: { axisDeg: 0, lossStops: 1.4 },
            }),
          ],
          sheets: [
            {
              kind: 'card',
              tag: '3',
              name: 'black card before the camera',
              positionM: [0, -1.38, 0.17],
              aimM: [0, 0, 0.12],
              widthM: 0.6,
              heightM: 0.6,
              holeDiameterM: 0.09,
              ...BLACK,
            },
          ],
        }),
        { polariser: { axisDeg: 90, lossStops: 1.5, extinction: 0.005 }, iso: 200 },
      ),
  },
];
