import type { SetDocument, Vector } from '@fendrix/contract';
import { withPlacement } from '../../solve/placements.js';
import { degrees } from '../../units/angle.js';
import { subtract } from '../../units/vector.js';
import { byStops, those } from '../changes/changes.js';
import { atDistance } from '../changes/modifiers.js';
import { lightCauses, seenProducts } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { from } from '../working.js';

/** Things that lie, or whose top is what is looked at. */
const LYING: ReadonlySet<string> = new Set(['cloth', 'dish', 'pieces', 'water']);

/** How high a light stands over a thing as seen from it, degrees: 0 rakes, 90 is straight from above. */
function standsOver(
  set: SetDocument,
  tag: string,
  point: Vector,
): { deg: number; heightM: number; awayM: number } | null {
  const light = set.lights.find((own) => own.tag === tag);
  if (!light || light.kind === 'surround') return null;
  const [x, y, z] = subtract(light.positionM, point);
  const awayM = Math.hypot(x, y);
  return { deg: degrees(Math.atan2(z, awayM)), heightM: z, awayM };
}

/** A main light too high to bring out the texture that is wished. */
export const notRaked: Judge<'not-raked'> = {
  code: 'not-raked',
  judge(evidence) {
    const { set } = evidence;
    if (set.wishes.texture !== 'raked') return [];
    return seenProducts(evidence).flatMap(({ product, thing, places }) => {
      if (!LYING.has(product.kind)) return [];
      const [key] = lightCauses(evidence, places);
      const stands = key && standsOver(set, key.thing.key, product.positionM);
      if (!key || !stands) return [];
      return beyond(evidence.limits, 'not-raked', { value: stands.deg }, () => ({
        of: thing,
        places,
        causes: [key],
        working: from({ lightHeight: stands.heightM, lightAway: stands.awayM }),
      }));
    });
  },
  /** Lower, with the light that it then lacks on the thing. */
  cures({ set }, { causes, figure, of }) {
    const light = causes[0]?.thing.key ?? '';
    const own = set.lights.find(({ tag }) => tag === light);
    const product = set.products.find(({ id }) => id === of?.key);
    if (!own || own.kind === 'surround' || !product) return [];
    const [x, y, z] = subtract(own.positionM, product.positionM);
    const level = Math.hypot(x, y);
    const lower = [figure.limit - 3, figure.limit - 12].map((deg) => {
      const down = level * Math.tan((deg * Math.PI) / 180) - z;
      const moved = down < 0 ? withPlacement(set, { vary: 'light-height', light }, down) : null;
      return moved && (byStops(moved, light, 1) ?? moved);
    });
    const farther = atDistance(set, light, 1.3);
    return those(...lower, ...lower.map((so) => so && atDistance(so, light, 1.2)), farther);
  },
};
