import { camera, change, gradient, type Step, without } from '../steps.js';

const RIG = { bodyWidthM: 0.14, bodyHeightM: 0.1, lensDiameterM: 0.08, lensLengthM: 0.12, tripod: true };

/** A shiny can on white: one gridded light, two printed gradient cards, a card with a lens hole. */
export const millSteps: readonly Step[] = [
  {
    id: 'light-alone',
    name: 'Light alone',
    note: 'The brass mirrors the room: wall, camera and a hard line. Light falls on it, but a mirror shows what it looks at.',
    change: (set) => camera(without(set, '1', '2', '3'), { rig: RIG }),
  },
  {
    id: 'white-cards',
    name: 'Two white cards',
    note: 'Two strips appear. They are flat, and end in hard edges towards the middle.',
    change: (set) => {
      const white = { kind: 'matte', reflectance: 0.82 };
      const withCards = camera(set, { rig: RIG });
      return change(change(without(withCards, '3'), '1', { front: white }), '2', { front: white });
    },
    from: 'start',
  },
  {
    id: 'bright-front',
    name: 'Gradients, bright to the front',
    note: 'The strips are brightest towards the lens and fall off round the sides: the body reads as round.',
    from: 'start',
    change: (set) => {
      const cards = change(set, '1', { front: gradient(0.035, 0.82) });
      return camera(without(change(cards, '2', { front: gradient(0.82, 0.035) }), '3'), { rig: RIG });
    },
  },
  {
    id: 'bright-back',
    name: 'Gradients, bright to the back',
    note: 'The other look: bright edges, dark towards the middle. Hold it against the take before: both are right.',
    from: 'start',
    change: (set) => camera(without(set, '3'), { rig: RIG }),
  },
  {
    id: 'lens-hole',
    name: 'Card with a lens hole',
    note: 'The dark middle was the camera and the wall behind it. A white card with a hole covers both: look at the band.',
    pinned: true,
    change: (set) =>
      camera(
        {
          ...set,
          sheets: [
            ...set.sheets,
            {
              kind: 'card',
              tag: '3',
              name: 'lens-hole card',
              positionM: [0, -0.9, 0.19],
              aimM: [0, 0, 0.1],
              rollDeg: 0,
              widthM: 0.4,
              heightM: 0.34,
              holeDiameterM: 0.075,
              front: { kind: 'matte', reflectance: 0.85 },
              back: { kind: 'matte', reflectance: 0.85 },
              stand: false,
            },
          ],
        },
        { rig: RIG },
      ),
  },
];
