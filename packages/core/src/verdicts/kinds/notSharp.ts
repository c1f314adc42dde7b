import type { SetDocument } from '@fendrix/contract';
import { fStopsOf, ISO_SPEEDS, nearestStep } from '../../exposure/series.js';
import { blurPx } from '../../optics/blur.js';
import { those, withCamera } from '../changes/changes.js';
import { type Evidence, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { from } from '../working.js';

/** Parts of a product's places that are left out at either end: the rim of an outline. */
const RIM = 0.02;

/** Nearest and farthest depth of a product that the lens sees; of the front only, the nearest third of it. */
function depthsOf({ set, view }: Evidence, places: readonly number[]): { near: number; far: number } {
  const depths = places.map((place) => view.depthM[place] as number).sort((a, b) => a - b);
  const at = (part: number) => depths[Math.round(part * (depths.length - 1))] as number;
  const [near, far] = [at(RIM), at(1 - RIM)];
  return { near, far: set.wishes.sharp === 'front' ? near + (far - near) / 3 : far };
}

/** A product whose nearest or farthest part is blurred. */
export const notSharp: Judge<'not-sharp'> = {
  code: 'not-sharp',
  byMaps: true,
  judge: (evidence) =>
    evidence.set.wishes.sharp === 'open'
      ? []
      : seenProducts(evidence).flatMap(({ product, thing, places }) => {
          // Water that lies there is ground: it need not be sharp to its edge.
          if (product.kind === 'water') return [];
          const { near, far } = depthsOf(evidence, places);
          const { camera } = evidence.set;
          const value = Math.max(blurPx(camera, near), blurPx(camera, far));
          return beyond(evidence.limits, 'not-sharp', { value }, () => ({
            of: thing,
            places,
            causes: [],
            working: from({
              nearestPart: near,
              farthestPart: far,
              focus: camera.focusM,
              fStop: camera.fNumber,
            }),
          }));
        }),
  cures(evidence, { places }) {
    const { set, limits } = evidence;
    if (set.camera.focusLocked) return [];
    const { near, far } = depthsOf(evidence, places);
    const between = withCamera(set, { focusM: (2 * near * far) / (near + far), focusOn: undefined });
    const limit = limits['not-sharp'].limit;
    const closed = (of: SetDocument) => {
      const step = fStopsOf(of.camera.lens).find(({ value }) => {
        const camera = { ...of.camera, fNumber: value };
        return value >= of.camera.fNumber && Math.max(blurPx(camera, near), blurPx(camera, far)) <= limit;
      });
      return step ? brightAsBefore(of, step.value) : null;
    };
    return those(between, closed(set), closed(between));
  },
};

/** A smaller f-stop with the ISO of the dial at which the picture is nearest to as bright. */
function brightAsBefore(set: SetDocument, fNumber: number): SetDocument {
  const { camera } = set;
  const wanted = camera.iso * (fNumber / camera.fNumber) ** 2;
  const iso = ISO_SPEEDS[nearestStep(ISO_SPEEDS, wanted)]?.value ?? wanted;
  return withCamera(set, { fNumber, iso });
}
