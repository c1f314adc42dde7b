import { BLACK, put, SILVER, type Step, VELVET } from '../steps.js';

const GREY = { front: { kind: 'matte', reflectance: 0.3 }, back: { kind: 'matte', reflectance: 0.3 } };

/** A flag across the line from the softbox to the bottle, a third of the way. */
const flag = (tag: string, name: string, positionM: number[], aimM: number[]) => ({
  kind: 'flag',
  tag,
  name,
  positionM,
  aimM,
  widthM: 0.5,
  heightM: 0.5,
  ...BLACK,
});

/** Dark and moody: light on the bottle and on nothing else. */
export const vinegarSteps: readonly Step[] = [
  {
    id: 'softbox-alone',
    name: 'Softbox alone',
    note: 'The bottle has its edge, but wall and table are as bright as it: nothing is moody yet.',
    change: (set) => set,
  },
  {
    id: 'lower-flag',
    name: 'Lower flag',
    note: 'Its upper edge stands just under the line from the softbox to the foot of the bottle: the table goes dark, the bottle keeps its light.',
    change: (set) =>
      put(set, { sheets: [flag('1', 'lower flag', [-0.567, 0.212, -0.171], [-0.384, 0.143, -0.21])] }),
  },
  {
    id: 'upper-flag',
    name: 'Upper flag',
    note: 'From above only a gap is left: what went over the bottle to the wall and ceiling is cut. See the zones and the wall spot.',
    change: (set) =>
      put(set, { sheets: [flag('2', 'upper flag', [-0.407, 0.152, 0.657], [-0.224, 0.083, 0.618])] }),
  },
  {
    id: 'side-flag',
    name: 'Flag between softbox and wall',
    note: 'The softbox looks at the wall past its own edge. A flag along its back takes that light and none of the bottle’s.',
    change: (set) =>
      put(set, {
        sheets: [
          {
            kind: 'flag',
            tag: '3',
            name: 'wall flag',
            positionM: [-0.53, 0.36, 0.42],
            aimM: [-0.69, 0.01, 0.42],
            widthM: 0.42,
            heightM: 1,
            ...BLACK,
          },
        ],
      }),
  },
  {
    id: 'absorber',
    name: 'Black cloth on the far side',
    note: 'The right side was filled by the white wall of the room. Black velvet there takes it: the shadow side closes.',
    change: (set) =>
      put(set, {
        sheets: [
          {
            kind: 'flag',
            tag: '4',
            name: 'black cloth',
            positionM: [0.6, -0.1, 0.4],
            aimM: [0, -0.1, 0.2],
            widthM: 1.1,
            heightM: 1,
            ...VELVET,
          },
        ],
      }),
  },
  {
    id: 'glow',
    name: 'Small card behind the bottle',
    note: 'A grey card narrower than the bottle, hidden behind it and turned to the softbox: the vinegar glows, the wall stays dark.',
    change: (set) =>
      put(set, {
        sheets: [
          {
            kind: 'card',
            tag: '6',
            name: 'glow card',
            positionM: [0.004, 0.09, 0.118],
            aimM: [-0.4, -0.16, 0.16],
            widthM: 0.06,
            heightM: 0.09,
            ...GREY,
          },
        ],
      }),
  },
  {
    id: 'silver',
    name: 'Small silver card for the label',
    note: 'A hand-sized silver card from the front left throws some of its light onto the label, for that spot only.',
    pinned: true,
    change: (set) =>
      put(set, {
        sheets: [
          {
            kind: 'card',
            tag: '5',
            name: 'small silver card',
            positionM: [0.31, -0.42, 0.16],
            aimM: [-0.12, -0.02, 0.1],
            widthM: 0.16,
            heightM: 0.2,
            ...SILVER,
          },
        ],
      }),
  },
];
