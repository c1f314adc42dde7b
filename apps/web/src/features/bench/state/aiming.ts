import type { Light, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { aimFacing, type Facing, facingOf } from '@fendrix/core';
import type { Edit } from './edit';
import { type Aimed, changeLight, changeSheet, type ThingRef } from './edits';

/** What is aimed, as a light, a sheet or the camera; null for other things. */
export function aimedOf(set: SetDocument, { kind, key }: ThingRef): Aimed | null {
  if (kind === 'camera') return set.camera;
  if (kind === 'sheet') return set.sheets.find(({ tag }) => tag === key) ?? null;
  const light = kind === 'light' ? set.lights.find(({ tag }) => tag === key) : undefined;
  return light && 'aimM' in light ? light : null;
}

/** Aims a light, a sheet or the camera; the rest stays where it stands. */
export function aimThing(
  { kind, key }: ThingRef,
  aim: Pick<Aimed, 'aimM'> | Pick<Aimed, 'keepsDirection'>,
): Edit {
  return (set) => {
    if (kind === 'camera') return { ...set, camera: { ...set.camera, ...aim } };
    if (kind === 'sheet') return changeSheet(key, (sheet) => ({ ...sheet, ...aim }) as Sheet)(set);
    if (kind === 'light')
      return changeLight(key, (light) => ('aimM' in light ? ({ ...light, ...aim } as Light) : light))(set);
    return set;
  };
}

/** Turns or tilts what is aimed; the rest of its way stays as it is by then. */
export function faceThing(ref: ThingRef, changes: Partial<Facing>): Edit {
  return (set) => {
    const aimed = aimedOf(set, ref);
    if (!aimed) return set;
    const facing = { ...facingOf(aimed.positionM, aimed.aimM), ...changes };
    return aimThing(ref, { aimM: aimFacing(aimed.positionM, facing) })(set);
  };
}

/** Moves the point that a thing is aimed at along one axis. */
export function aimAlong(ref: ThingRef, axis: 0 | 1 | 2, value: number): Edit {
  return (set) => {
    const aimed = aimedOf(set, ref);
    if (!aimed) return set;
    const aimM: Vector = [...aimed.aimM];
    aimM[axis] = value;
    return aimThing(ref, { aimM })(set);
  };
}
