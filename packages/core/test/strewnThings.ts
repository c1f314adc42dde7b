import { OCTAGON, PrimitiveList, type PrimitiveTable, wallPiece } from '../src/geometry/primitives.js';
import { standingPose } from '../src/units/frame.js';
import { sides } from './engines.js';

type Vector = [number, number, number];

/** Primitives of every kind strewn about, many small ones among them, some round the lens itself. */
export function strewnThings(random: () => number, count: number): PrimitiveTable {
  const list = new PrimitiveList();
  const place = (): Vector => [2 * random() - 1, 2 * random() - 1, 2 * random() - 1];
  for (let i = 0; i < count; i++) {
    const size = 0.02 + 0.3 * random() ** 3;
    const [x, y, z] = place();
    const pose = { ...standingPose([x, y, z], 360 * random()) };
    const kind = i % 7;
    if (kind === 0) list.ball([x, y, z], size, sides);
    else if (kind === 1) list.cone(pose, wallPiece(size, -size, size), sides);
    else if (kind === 2) list.disc(pose, 0, size, 0.7 * size, sides);
    else if (kind === 3) list.flat([x, y, z], [size, 0, 0], [0, 0, size], [0, 1, 0], sides, OCTAGON);
    else if (kind === 4) list.flat([x, y, z], [0, size, size], [size, 0, 0], [0, 1, 0], sides);
    else if (kind === 5) {
      const near = (): Vector => [x + size * random(), y + size * random(), z + size * random()];
      list.triangle([x, y, z], near(), near(), sides);
    } else {
      const lower = { r: 0.2 * size, z: 0, nr: 1, nz: 0 };
      const arc = { bearingRad: 6 * random(), halfWidthRad: 2 * random() };
      list.cone(pose, { lower, upper: { ...lower, r: size, z: size }, arc }, sides);
    }
  }
  return list.pack();
}
