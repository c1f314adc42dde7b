import type { SetDocument } from '@fendrix/contract';
import { standsInRoom } from '../../geometry/roomBounds.js';
import type { Thing } from '../../geometry/scene.js';
import { NO_PART } from '../../render/look.js';
import { add, scale, subtract } from '../../units/vector.js';
import { those, withCamera, withoutPeople, withoutStands } from '../changes/changes.js';
import { type Evidence, seenProducts, thingCauses } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { over } from '../working.js';

/** What nobody wants to see in a product. */
const UNWANTED: ReadonlySet<Thing['kind']> = new Set(['camera', 'person', 'stand']);
/** A dark thing is seen in a mirror that sends back this much; in a clear coat, 4 %, it is not. */
const SEEN_FROM = 0.12;

const isUnwanted = ({ things, view }: Evidence, place: number): boolean => {
  const kind = things[view.mirrored[place] as number]?.kind;
  return kind !== undefined && UNWANTED.has(kind) && (view.mirroredPart[place] as number) >= SEEN_FROM;
};

/** Camera, tripod, person or stand mirrored in a product. */
export const seenInProduct: Judge<'seen-in-product'> = {
  code: 'seen-in-product',
  byMaps: true,
  judge: (evidence) =>
    seenProducts(evidence).flatMap(({ thing, places }) => {
      const mirroring = places.filter((place) => evidence.view.mirrored[place] !== NO_PART);
      const seen = mirroring.filter((place) => isUnwanted(evidence, place));
      const value = mirroring.length === 0 ? 0 : seen.length / mirroring.length;
      return beyond(evidence.limits, 'seen-in-product', { value }, () => ({
        of: thing,
        places: seen,
        working: over({ unwantedPlaces: seen.length, mirroringPlaces: mirroring.length }),
        causes: thingCauses(evidence, seen, (place) => evidence.view.mirrored[place] as number),
      }));
    }),
  cures({ set }, { causes }) {
    const kinds = new Set(causes.map(({ thing }) => thing.kind));
    const keysOf = (kind: Thing['kind']) =>
      causes.flatMap(({ thing }) => (thing.kind === kind ? [thing.key] : []));
    return those(
      kinds.has('person') ? withoutPeople(set, keysOf('person')) : null,
      kinds.has('stand') ? withoutStands(set, keysOf('stand')) : null,
      kinds.has('camera') ? withoutTripod(set) : null,
      kinds.has('camera') ? fromFarther(set, 1.5) : null,
      kinds.has('camera') ? fromFarther(set, 2) : null,
    );
  },
};

const withoutTripod = (set: SetDocument): SetDocument | null =>
  set.camera.rig?.tripod ? withCamera(set, { rig: { ...set.camera.rig, tripod: false } }) : null;

/** The same frame from farther away with a longer lens: what the camera covers in a mirror gets smaller. */
function fromFarther(set: SetDocument, factor: number): SetDocument | null {
  const { positionM, aimM, lens, focusM } = set.camera;
  const back = subtract(positionM, aimM);
  const to = add(aimM, scale(back, factor));
  if (!standsInRoom(set, to, 0.3)) return null;
  const gone = (factor - 1) * Math.hypot(...back);
  const focalLengthM = lens.focalLengthM * factor;
  const name = `${Math.round(1000 * focalLengthM)} mm`;
  return withCamera(set, {
    positionM: to,
    focusM: focusM + gone,
    lens: { ...lens, name, focalLengthM },
  });
}
