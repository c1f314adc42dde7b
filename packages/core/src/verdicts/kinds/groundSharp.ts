import type { SetDocument } from '@fendrix/contract';
import { fStopsOf } from '../../exposure/series.js';
import { GROUND_KINDS } from '../../judge/ground.js';
import { blurPx } from '../../optics/blur.js';
import { mostBackM, withPlacement } from '../../solve/placements.js';
import { allByStops, those, withCamera } from '../changes/changes.js';
import { type Evidence, groundPlaces } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { from } from '../working.js';

const FEWEST = 40;

/** Depth of the middle of the ground behind, m; null where too little of it is seen. */
function groundDepthM(evidence: Evidence): number | null {
  const depths = groundPlaces(evidence, GROUND_KINDS)
    .map((place) => evidence.view.depthM[place] as number)
    .sort((a, b) => a - b);
  return depths.length < FEWEST ? null : (depths[depths.length >> 1] as number);
}

const blurPart = (camera: SetDocument['camera'], depthM: number): number =>
  blurPx(camera, depthM) / camera.body.pixelsWide;

/** A background that is to be blurred and shows its folds and grain. */
export const groundSharp: Judge<'ground-sharp'> = {
  code: 'ground-sharp',
  byMaps: true,
  judge(evidence) {
    const { camera, wishes } = evidence.set;
    const depth = wishes.groundBlurPart === undefined ? null : groundDepthM(evidence);
    if (depth === null) return [];
    return beyond(
      evidence.limits,
      'ground-sharp',
      { value: blurPart(camera, depth) },
      () => ({
        of: evidence.things.find(({ kind }) => kind === 'backdrop') ?? null,
        places: groundPlaces(evidence, GROUND_KINDS),
        causes: [],
        working: from({ farthestPart: depth, focus: camera.focusM, fStop: camera.fNumber }),
      }),
      wishes.groundBlurPart,
    );
  },
  /** A larger aperture with the lights turned down by as much; the background further back. */
  cures(evidence, { figure }) {
    const { set } = evidence;
    const { camera } = set;
    const depth = groundDepthM(evidence);
    const back = mostBackM(set);
    const wider = [...fStopsOf(camera.lens)]
      .reverse()
      .find(
        ({ value }) =>
          value < camera.fNumber &&
          depth !== null &&
          blurPart({ ...camera, fNumber: value }, depth) >= figure.limit,
      );
    const opened = wider && withCamera(set, { fNumber: wider.value });
    const gained = wider ? 2 * Math.log2(camera.fNumber / wider.value) : 0;
    return those(
      opened ? (allByStops(opened, -gained) ?? opened) : null,
      opened ? withCamera(opened, { iso: camera.iso * 2 ** -gained }) : null,
      ...[0.5, 1].map((part) =>
        back > 0.05 ? withPlacement(set, { vary: 'backdrop-distance' }, part * back) : null,
      ),
    );
  },
};
