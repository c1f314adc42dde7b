import { MATTE } from '../geometry/surface.js';
import { castMirror, createMirrorCast } from '../mirror/castMirror.js';
import type { Tracing } from './renderTile.js';
import { rayThrough, viewOfShape } from './view.js';

/** What the preview filter needs to know of each pixel: where its neighbours are of the same kind. */
export interface FilterGuide {
  width: number;
  height: number;
  /** Thing, surface and (of shiny ones) thing mirrored as one number; only equal ones are mixed. 0: leave alone. */
  region: Int32Array;
  /** 1 where the surface mirrors or is glass: mixed over half the distance only. */
  shiny: Uint8Array;
  /** Shading normal, 3 a pixel. */
  normal: Float32Array;
}

/** Places of the things in a region's number; a set has fewer things and surfaces than this. */
const PLACES = 1024;

export function filterGuide(tracing: Tracing, width: number, height: number): FilterGuide {
  const view = viewOfShape(tracing.view, width, height);
  const guide: FilterGuide = {
    width,
    height,
    region: new Int32Array(width * height),
    shiny: new Uint8Array(width * height),
    normal: new Float32Array(width * height * 3),
  };
  const direction = new Float64Array(3);
  const cast = createMirrorCast();
  for (let pixel = 0; pixel < width * height; pixel++) {
    const x = pixel % width;
    const y = (pixel - x) / width;
    rayThrough(direction, view, (x + 0.5) / width, (y + 0.5) / height);
    castMirror(cast, tracing, view.origin, direction);
    if (cast.thing < 0 || cast.surface < 0) continue;
    const shiny = tracing.scene.surfaces[cast.surface]?.kind !== MATTE;
    const place = (cast.thing % PLACES) * PLACES + (cast.surface % PLACES);
    guide.region[pixel] = 1 + place + (shiny ? (cast.mirrored + 2) * PLACES * PLACES : 0);
    guide.shiny[pixel] = shiny ? 1 : 0;
    for (let a = 0; a < 3; a++) guide.normal[3 * pixel + a] = cast.geometry[3 + a] as number;
  }
  return guide;
}
