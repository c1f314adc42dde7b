import type { SetDocument } from '@fendrix/contract';
import { buildScene, type Thing } from './scene.js';
import type { Surface } from './surface.js';
import { tessellateOne } from './tessellate.js';

/** Steps round a whole circle: under a tenth of a millimetre off at the neck of a bottle. */
const ROUND = 96;

/** A thing of a set as triangles, apart for each of its materials. */
export interface ThingMesh {
  thing: Thing;
  pieces: {
    /** Linear red, green, blue of it, 0 to 1. */
    colour: [number, number, number];
    metal: boolean;
    /** Light goes through it. */
    clear: boolean;
    /** 9 numbers a triangle, m from the centre of the set. */
    triangles: Float32Array;
  }[];
}

/**
 * All that stands on a set as triangles, for programs that know no exact outlines. Limits: round things are faceted; relief, print and
 * what a material does beside its colour is not told; the room is left out.
 */
export function setMeshes(set: SetDocument): ThingMesh[] {
  const { things, table, surfaces } = buildScene({ ...set, room: undefined });
  const pieces = new Map<number, Map<number, number[]>>();
  for (let i = 0; i < table.count; i++) {
    const ofThing = pieces.get(table.thing[i] as number) ?? new Map<number, number[]>();
    pieces.set(table.thing[i] as number, ofThing);
    const front = table.front[i] as number;
    const out = ofThing.get(front) ?? [];
    ofThing.set(front, out);
    tessellateOne(out, table, i, ROUND);
  }
  return [...pieces].map(([index, bySurface]) => ({
    thing: things[index] as Thing,
    pieces: [...bySurface].map(([front, triangles]) => ({
      ...materialOf(surfaces[front]),
      triangles: Float32Array.from(triangles),
    })),
  }));
}

function materialOf(surface: Surface | undefined): Omit<ThingMesh['pieces'][number], 'triangles'> {
  if (!surface) return { colour: [0.5, 0.5, 0.5], metal: false, clear: false };
  const { r, g, b, lobe, medium, spread } = surface;
  const held = (value: number) => Math.max(0, Math.min(1, value));
  return {
    colour: [held(r + spread[0]), held(g + spread[1]), held(b + spread[2])],
    metal: lobe !== null && medium < 0,
    clear: medium >= 0,
  };
}
