import { change, head, put, type Step } from '../steps.js';

const backLight = (tag: string, side: number, powerStops: number) =>
  head(tag, powerStops, 0.42, {
    kind: 'softbox',
    name: side < 0 ? 'Strip behind, left' : 'Strip behind, right',
    positionM: [0.5 * side, 0.4, 0.3],
    aimM: [0, 0, 0.12],
    widthM: 0.2,
    heightM: 0.7,
    hotCentre: 1.3,
  });

/** A drink in a glass: key, two lights from behind, then one straight behind. */
export const perrySteps: readonly Step[] = [
  {
    id: 'key',
    name: 'Key from front left',
    note: 'A square glint and nothing else: light from the front goes through the drink and is gone.',
    change: (set) => set,
  },
  {
    id: 'back-left',
    name: 'One light behind, left',
    note: 'The left rim lights up, the drink begins to show.',
    change: (set) => put(set, { lights: [backLight('B', -1, -2.4)] }),
  },
  {
    id: 'back-right',
    name: 'Two lights behind',
    note: 'Both rims stand. The middle of the drink still shows the dark wall behind it.',
    change: (set) => put(set, { lights: [backLight('C', 1, -5)] }),
  },
  {
    id: 'behind',
    name: 'Softbox straight behind the glass',
    note: 'The drink glows through and through, and the edges of the glass turn dark: bright field.',
    change: (set) =>
      put(set, {
        lights: [
          head('D', -5, 0.12, {
            kind: 'softbox',
            name: 'Softbox behind, two frosts',
            positionM: [0, 0.62, 0.2],
            aimM: [0, 0, 0.12],
            widthM: 0.3,
            heightM: 0.45,
            hotCentre: 1.6,
          }),
        ],
      }),
  },
  {
    id: 'glass-plate',
    name: 'Plate for the rims',
    note: 'For putting together later: the camera is locked, the light behind is off, the rims alone are recorded.',
    change: (set) => change(change(set, 'D', { on: false }), 'A', { on: false }),
  },
  {
    id: 'liquid-plate',
    name: 'Plate for the drink',
    note: 'The other half: only the light straight behind, a little lower, for the colour of the drink.',
    from: 'behind',
    pinned: true,
    change: (set) =>
      change(change(change(change(set, 'A', { on: false }), 'B', { on: false }), 'C', { on: false }), 'D', {
        powerStops: -5.5,
      }),
  },
];
