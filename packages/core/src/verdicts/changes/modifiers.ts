import type { Kit, Light, SetDocument } from '@fendrix/contract';
import { leftInKit } from '../../plan/kitCheck.js';
import { movableOf, widened, withMovable } from '../../solve/movables.js';
import { add, scale, subtract } from '../../units/vector.js';
import { byStops, withLight } from './changes.js';

/** Changes of what is before a light; each gives null where it changes nothing. */

/** A usual honeycomb, full angle, degrees, and what it costs straight ahead, stops. */
const GRID = { cutoffDeg: 40, lossStops: 0.5 };

/** A honeycomb on a light that takes one, with the power turned up by what it costs. */
export function withGrid(set: SetDocument, tag: string): SetDocument | null {
  const light = set.lights.find((own) => own.tag === tag);
  if (!light || (light.kind !== 'softbox' && light.kind !== 'octa' && light.kind !== 'dish') || light.grid)
    return null;
  const gridded = withLight(set, tag, { grid: GRID } as Partial<Light>);
  return byStops(gridded, tag, GRID.lossStops) ?? gridded;
}

export const withoutGrid = (set: SetDocument, tag: string): SetDocument | null => {
  const light = set.lights.find((own) => own.tag === tag);
  return light && 'grid' in light && light.grid
    ? withLight(set, tag, { grid: undefined } as Partial<Light>)
    : null;
};

/** A light or sheet wider by a factor, or, of a light, higher too; null for what has no such size. */
export function resized(
  set: SetDocument,
  kind: 'light' | 'sheet',
  key: string,
  wide: number,
  high = 1,
): SetDocument | null {
  const ref = { kind, key };
  const own = movableOf(set, ref);
  const changed = own && (wide === 1 ? own : widened(own, wide));
  if (!changed) return null;
  if (high === 1) return withMovable(set, ref, changed);
  if (!('heightM' in changed) || changed.kind === 'window' || changed.kind === 'tent') return null;
  return withMovable(set, ref, { ...changed, heightM: Math.min(10, changed.heightM * high) });
}

/** A light nearer to its aim point, or farther, by a factor of its distance. */
export function atDistance(set: SetDocument, tag: string, factor: number): SetDocument | null {
  const light = set.lights.find((own) => own.tag === tag);
  if (!light || !('aimM' in light)) return null;
  const positionM = add(light.aimM, scale(subtract(light.positionM, light.aimM), factor));
  return withLight(set, tag, { positionM } as Partial<Light>);
}

/** The same soft or hard light with another modifier of the kit, larger or smaller, that is not on the set yet. */
export function fromKit(
  set: SetDocument,
  kit: Pick<Kit, 'entries'> | null,
  tag: string,
  suits: (sizeM: number, nowM: number) => boolean,
): SetDocument[] {
  const light = set.lights.find((own) => own.tag === tag);
  if (!kit || !light || !('aimM' in light)) return [];
  const left = leftInKit(set, kit);
  const now = sizeOf(light);
  return kit.entries.flatMap((entry) => {
    if (entry.what !== 'light' || !((left.get(entry.id) ?? 0) > 0)) return [];
    const other = entry.thing;
    if (other.kind !== light.kind || !('aimM' in other) || !suits(sizeOf(other), now)) return [];
    const { positionM, aimM, powerStops, on, stand } = light;
    const placed = { ...other, tag, positionM, aimM, powerStops, on, stand } as Light;
    return [{ ...set, lights: set.lights.map((own) => (own.tag === tag ? placed : own)) }];
  });
}

/** Longer side of the face of a light, m; 0 for one without. */
const sizeOf = (light: Light): number =>
  'widthM' in light
    ? Math.max(light.widthM, light.heightM)
    : 'outerDiameterM' in light
      ? light.outerDiameterM
      : 'diameterM' in light
        ? light.diameterM
        : 0;
