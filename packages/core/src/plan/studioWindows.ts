import type { Light, SetDocument, Studio, Vector } from '@fendrix/contract';
import { add, scale } from '../units/vector.js';

type StudioWindow = Studio['windows'][number];
export type WindowLight = Extract<Light, { kind: 'window' }>;

/** The glazing stands so far before the wall, m: what lies in one plane with it would cover it here and there. */
const BEFORE_WALL_M = 0.005;
/** Luminance and colour of an overcast sky, cd/m2 and K: 2000 to 6000 are usual. To be metered on the day. */
const SKY_CD_M2 = 3500;
const SKY_K = 6500;
/** Sun that reaches a window comes down at about this slope, and gives this behind the glass, lx. To be metered on the day. */
const SUN_DOWN = 0.6;
const SUN_LX = 40_000;
const SUN_K = 5000;

/**
 * The windows of a studio as lights where they are in its walls, seen from the mark on its table, with the sky alone.
 * @param tags free letters; windows beyond them are left out
 */
export function studioWindows(studio: Studio, tags: readonly string[]): WindowLight[] {
  return studio.windows.slice(0, tags.length).map((own, index) => {
    const { corner, along, inward } = wallOf(studio, own.wall);
    const across = own.fromLeftM + own.widthM / 2;
    const up: Vector = [0, 0, own.sillM + own.heightM / 2];
    const positionM = [corner, scale(along, across), scale(inward, BEFORE_WALL_M), up].reduce(add);
    return {
      kind: 'window',
      tag: tags[index] as string,
      name: own.name,
      positionM,
      aimM: add(positionM, inward),
      rollDeg: 0,
      widthM: own.widthM,
      heightM: own.heightM,
      sky: 'overcast',
      driftStopsPerHour: 0,
      output: { kind: 'luminance', luminanceCdM2: SKY_CD_M2 },
      powerStops: 0,
      on: true,
      colour: { temperatureK: SKY_K, gels: [] },
      stand: false,
    };
  });
}

/** Sun through a window: straight in and down, to be turned to where it comes from. */
export function sunThrough({ positionM, aimM }: Pick<WindowLight, 'positionM' | 'aimM'>): WindowLight['sun'] {
  const [x, y] = aimM.map((value, axis) => value - (positionM[axis] as number)) as Vector;
  return { towards: [x, y, -SUN_DOWN], illuminanceLx: SUN_LX, temperatureK: SUN_K };
}

/**
 * A set in the room of a studio, on its table. Its windows are put there when they are wanted (`studioWindows`): a light takes
 * its share of the rays also where it is off, and a window that is off makes the others twice as grainy.
 */
export const inStudio = (set: SetDocument, { room, bench, benchHeightM }: Studio): SetDocument => ({
  ...set,
  room,
  bench,
  mark: { heightAboveFloorM: benchHeightM },
});

/** The lower left corner of a wall as one who looks at it from inside sees it, the way to its right, and into the room. */
function wallOf({ room, benchHeightM }: Studio, wall: StudioWindow['wall']) {
  const [x0, y0, z0] = [-room.markFromLeftM, -room.markFromFrontM, -benchHeightM];
  const [x1, y1] = [x0 + room.widthM, y0 + room.depthM];
  const walls: Record<StudioWindow['wall'], { corner: Vector; along: Vector; inward: Vector }> = {
    left: { corner: [x0, y0, z0], along: [0, 1, 0], inward: [1, 0, 0] },
    right: { corner: [x1, y1, z0], along: [0, -1, 0], inward: [-1, 0, 0] },
    back: { corner: [x0, y1, z0], along: [1, 0, 0], inward: [0, -1, 0] },
    front: { corner: [x1, y0, z0], along: [-1, 0, 0], inward: [0, 1, 0] },
  };
  return walls[wall];
}
