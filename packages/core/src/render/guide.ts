import { normalsAt } from '../geometry/normal.js';
import { MATTE } from '../geometry/surface.js';
import { setRay } from '../trace/kernel.js';
import type { Tracing } from './renderTile.js';
import { rayThrough, viewOfShape } from './view.js';

/**
 * What the preview filter needs to know of each pixel: where its neighbours are of the same kind.
 * Shiny pixels are left alone: their detail is the mirror image, which no guide knows.
 */
export interface FilterGuide {
  width: number;
  height: number;
  /** Place, surface and print together as one number; only equal ones are mixed. 0: not to be filtered. */
  region: Int32Array;
  /** Shading normal, 3 a pixel. */
  normal: Float32Array;
}

export function filterGuide(tracing: Tracing, width: number, height: number): FilterGuide {
  const { scene, kernel } = tracing;
  const view = viewOfShape(tracing.view, width, height);
  const guide: FilterGuide = {
    width,
    height,
    region: new Int32Array(width * height),
    normal: new Float32Array(width * height * 3),
  };
  const direction = new Float64Array(3);
  const normals = new Float64Array(6);
  const point = new Float64Array(3);
  for (let pixel = 0; pixel < width * height; pixel++) {
    const x = pixel % width;
    const y = (pixel - x) / width;
    rayThrough(direction, view, (x + 0.5) / width, (y + 0.5) / height);
    setRay(kernel.ray, view.origin, direction);
    const primitive = kernel.closestHit();
    if (primitive < 0) continue;
    for (let a = 0; a < 3; a++) {
      point[a] = (kernel.ray[a] as number) + (kernel.ray[7] as number) * (direction[a] as number);
    }
    normalsAt(normals, scene.table, primitive, point);
    let facing = 0;
    for (let a = 0; a < 3; a++) facing += (normals[a] as number) * (direction[a] as number);
    const side = facing < 0 ? scene.table.front : scene.table.back;
    const material = side[primitive] as number;
    if (scene.surfaces[material]?.kind !== MATTE || (scene.table.emitter[primitive] as number) >= 0) continue;
    guide.region[pixel] = 1 + material + 1024 * (scene.table.thing[primitive] as number);
    for (let a = 0; a < 3; a++) guide.normal[3 * pixel + a] = normals[3 + a] as number;
  }
  return guide;
}
