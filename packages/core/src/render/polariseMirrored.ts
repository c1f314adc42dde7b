import { POLARISING } from '../engine/fresnel.js';
import { SURFACE_STRIDE } from '../engine/layouts.js';
import { Stokes } from '../engine/path/stokes.js';
import { MIRRORED_WAY, SEEN_NORMAL, SEEN_SURFACE } from '../engine/sight.js';
import type { Tracing } from './prepareTracing.js';

/**
 * Light as it was traced along the way that a look mirrors, made that which the lens gets by that mirror, but for how much of
 * it is mirrored: what the mirror itself does to polarisation. Nothing where the set tells no ways of polarisation apart.
 * @param direction of the look  @param sight its answer  @param films [channel * 3 + colour], changed in place
 */
export function polariseMirrored(
  { tables, models, view }: Tracing,
  direction: Float64Array,
  sight: Float64Array,
  films: Float64Array,
): void {
  const surface = sight[SEEN_SURFACE] as number;
  if (surface < 0 || !tables.planeChannel.some((plane) => plane >= 0)) return;
  const normal = sight.slice(SEEN_NORMAL, SEEN_NORMAL + 3);
  const level = Float64Array.from(view.right);
  const cosine = Math.abs(normal.reduce((sum, value, a) => sum + value * (direction[a] as number), 0));
  const how = new Float64Array(POLARISING);
  models.ofSurface(surface).polarise(how, surface * SURFACE_STRIDE, Math.min(1, cosine));
  const stokes = new Stokes();
  stokes.begin(direction, level);
  stokes.meet(direction, normal, how, 1);
  stokes.levelBy(sight.slice(MIRRORED_WAY, MIRRORED_WAY + 3), level);
  const row = (k: number, met: readonly number[]) =>
    met.reduce((sum, value, j) => sum + value * (stokes.rows[3 * k + j] as number), 0);
  tables.planeChannel.forEach((plane, channel) => {
    if (plane < 0) return;
    for (let c = 0; c < 3; c++) {
      const at = [3 * channel, 3 * plane, 3 * plane + 3].map((first) => first + c) as [
        number,
        number,
        number,
      ];
      const met = at.map((k) => films[k] as number);
      at.forEach((k, i) => {
        films[k] = row(i, met);
      });
    }
  });
}
