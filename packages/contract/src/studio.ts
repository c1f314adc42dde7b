import { z } from 'zod';
import { lengthM } from './geometry.js';
import { name } from './names.js';
import { bench, room } from './standing.js';

const wall = z
  .enum(['front', 'back', 'left', 'right'])
  .describe('front: behind the camera; back: behind the set');

/** The room the studio works in: walls, windows, where the table stands, mains. */
export const studio = z.strictObject({
  room,
  bench,
  benchHeightM: lengthM.max(2).default(0.75).describe('Top of the table over the floor, m'),
  windows: z
    .array(
      z.strictObject({
        name,
        wall,
        fromLeftM: z
          .number()
          .min(0)
          .max(50)
          .describe('Left edge from the left corner, looking at the wall, m'),
        sillM: z.number().min(0).max(10).describe('Lower edge over the floor, m'),
        widthM: lengthM,
        heightM: lengthM,
        facesDeg: z.number().min(0).max(360).describe('Compass bearing it faces, degrees: 0 north, 90 east'),
      }),
    )
    .max(12)
    .default([]),
  latitudeDeg: z.number().min(-90).max(90).optional().describe('Where it is, degrees north of the equator'),
  longitudeDeg: z.number().min(-180).max(180).optional().describe('Where it is, degrees east of Greenwich'),
  sockets: z.int().min(0).max(60).default(2),
  breakerA: z.number().min(1).max(125).default(16).describe('Breaker of the circuit, A'),
  mainsV: z.number().min(90).max(260).default(230).describe('Mains voltage, V'),
});

export type Studio = z.infer<typeof studio>;
