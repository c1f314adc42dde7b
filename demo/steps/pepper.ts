import { change, gradient, put, type Step } from '../steps.js';

const edgeCard = (tag: string, side: number) => ({
  kind: 'card',
  tag,
  name: side < 0 ? 'gradient card left' : 'gradient card right',
  positionM: [0.31 * side, 0.1, 0.18],
  aimM: [0, 0, 0.11],
  widthM: 0.2,
  heightM: 0.4,
  front: side < 0 ? gradient(0.82, 0.1) : gradient(0.1, 0.82),
  back: { kind: 'matte', reflectance: 0.04 },
});
const over = (y: number) => ({ positionM: [0, y, 0.62], aimM: [0, y, 0] });

/** A black thing on black under one softbox overhead. */
export const pepperSteps: readonly Step[] = [
  {
    id: 'to-the-camera',
    name: 'Light towards the camera',
    note: 'The front is lit and flat. The background is dark, and the back edge sinks into it.',
    change: (set) => change(set, 'A', over(-0.3)),
  },
  {
    id: 'over-it',
    name: 'Light straight above',
    note: 'The top takes the light, the front falls off downwards: watch shoulder against mill front.',
    change: (set) => change(set, 'A', over(0)),
  },
  {
    id: 'to-the-back',
    name: 'Light slid to the back',
    note: 'The edge of the top is drawn against the background, but the background gets brighter too. The front is nearly gone.',
    change: (set) => change(set, 'A', over(0.25)),
  },
  {
    id: 'between',
    name: 'Light a hand behind it',
    note: 'The compromise: the top edge is drawn, and the background stays more than five stops under mid-tone.',
    change: (set) => change(set, 'A', over(0.04)),
  },
  {
    id: 'chin',
    name: 'Small card under the chin',
    note: 'A white card on the table before it, just out of the frame, opens the front from below.',
    change: (set) =>
      put(set, {
        sheets: [
          {
            kind: 'card',
            tag: '1',
            name: 'small white card',
            positionM: [0, -0.24, 0.004],
            aimM: [0, -0.24, 1],
            widthM: 0.22,
            heightM: 0.12,
            front: { kind: 'matte', reflectance: 0.85 },
            back: { kind: 'matte', reflectance: 0.85 },
          },
        ],
      }),
  },
  {
    id: 'edges',
    name: 'Edges lifted by gradient cards',
    note: 'Two printed cards just out of the frame draw the sides. They fade towards the lens, so that no hard line shows.',
    change: (set) => put(set, { sheets: [edgeCard('2', -1), edgeCard('3', 1)] }),
  },
  {
    id: 'exposure',
    name: 'Exposure up by one stop',
    note: 'Black is not underexposed: the whole scale goes up until the shoulder holds and the background is just black.',
    pinned: true,
    change: (set) => change(set, 'A', { powerStops: -1.2 }),
  },
];
