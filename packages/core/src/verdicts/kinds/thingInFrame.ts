import type { SetDocument, Vector } from '@fendrix/contract';
import type { Thing } from '../../geometry/scene.js';
import { prepareTracing } from '../../render/prepareTracing.js';
import { viewOf } from '../../render/view.js';
import { comesIntoFrame } from '../../solve/comesIntoFrame.js';
import { movableOf } from '../../solve/movables.js';
import { add, dot, scale, subtract } from '../../units/vector.js';
import { movedBy, those, withoutPeople, withoutStands } from '../changes/changes.js';
import { type Evidence, keptPlaces, thingCauses } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { over } from '../working.js';

/** Things of the set that are no part of the picture. */
const TOOLS: ReadonlySet<Thing['kind']> = new Set(['light', 'sheet', 'stand', 'camera', 'person']);
/** Sheets that stand round the products are seen on purpose. */
const ROUND: ReadonlySet<string> = new Set(['tent', 'cone']);

/** What fills this much of the frame is the ground: a lit face or a sheet behind glass. */
const GROUND_PART = 0.25;

function isTool({ set, things, thing }: Evidence, place: number): boolean {
  const seen = things[thing[place] as number];
  if (!seen || !TOOLS.has(seen.kind)) return false;
  const sheet = seen.kind === 'sheet' ? set.sheets.find(({ tag }) => tag === seen.key) : undefined;
  return !sheet || !ROUND.has(sheet.kind);
}

/** A light, card, stand, camera or person in the frame, within what the crops keep of it. */
export const thingInFrame: Judge<'thing-in-frame'> = {
  code: 'thing-in-frame',
  byMaps: true,
  judge(evidence) {
    const kept = keptPlaces(evidence);
    const places = kept.filter((place) => isTool(evidence, place));
    const causes = thingCauses(evidence, places, (place) => evidence.thing[place] as number);
    return causes.flatMap(({ thing }) => {
      const own = places.filter((place) => evidence.things[evidence.thing[place] as number] === thing);
      const value = own.length / kept.length;
      if (value >= GROUND_PART) return [];
      const causes = [{ thing, part: 1 }];
      return beyond(evidence.limits, 'thing-in-frame', { value }, () => ({
        of: thing,
        places: own,
        causes,
        working: over({ thingPlaces: own.length, keptPlaces: kept.length }),
      }));
    });
  },
  cures({ set }, { of }) {
    if (!of) return [];
    if (of.kind === 'person') return those(withoutPeople(set, [of.key]));
    if (of.kind === 'stand') return those(withoutStands(set, [of.key]));
    if (of.kind !== 'light' && of.kind !== 'sheet') return [];
    const { kind, key } = of;
    const { right, up, origin } = viewOf(set.camera);
    const own = movableOf(set, { kind, key });
    if (!own) return [];
    // Out on the side on which it stands: never through the products.
    const side = dot(subtract(own.positionM, origin), right) < 0 ? -1 : 1;
    const out = scale(right, side);
    const ways: Vector[] = [out, up, add(up, out)];
    return those(...ways.map((way) => pushedOut(set, kind, key, way)));
  },
};

const STEPS_M = [0.03, 0.06, 0.1, 0.15, 0.22, 0.3, 0.4, 0.55];

/** A thing the least way along a direction at which the lens does not see it any more. */
function pushedOut(set: SetDocument, kind: 'light' | 'sheet', key: string, way: Vector): SetDocument | null {
  for (const step of STEPS_M) {
    const moved = movedBy(set, kind, key, scale(way, step));
    if (!moved) return null;
    if (!comesIntoFrame(prepareTracing(moved, 'plain'), moved, { kind, key })) return moved;
  }
  return null;
}
