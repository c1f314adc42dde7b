import type { SetDocument, Sheet, Vector } from '@fendrix/contract';
import { cutOutSize, vector } from '@fendrix/core';

/** Where a sheet can be put by one press. */
export const SHEET_PLACES = {
  lens: 'at the lens',
  left: 'upright along the left edge of the table',
  right: 'upright along the right edge of the table',
  behind: 'upright along the back edge of the table',
} as const;
export type SheetPlace = keyof typeof SHEET_PLACES;

/** How far before the entrance pupil a card with a lens hole stands, m: just before the front of the lens. */
const BEFORE_LENS_M = 0.05;

/**
 * A sheet at a place: square before the lens, its front to the products; or upright along an edge of the table, facing in.
 * @returns null where there is no table to put it along
 */
export function sheetAt<S extends Sheet>(
  { camera, bench }: Pick<SetDocument, 'camera' | 'bench'>,
  sheet: S,
  place: SheetPlace,
): S | null {
  if (place === 'lens') {
    const way = vector.normalise(vector.subtract(camera.aimM, camera.positionM));
    const positionM = vector.add(camera.positionM, vector.scale(way, BEFORE_LENS_M));
    return { ...sheet, positionM, aimM: camera.aimM };
  }
  if (!bench) return null;
  const inwards: Record<typeof place, Vector> = { left: [1, 0, 0], right: [-1, 0, 0], behind: [0, -1, 0] };
  const way = inwards[place];
  const [x, y] = bench.centreM;
  const positionM: Vector = [
    x - (way[0] * bench.widthM) / 2,
    y - (way[1] * bench.depthM) / 2,
    standingHeightM(sheet) / 2,
  ];
  return { ...sheet, positionM, aimM: vector.add(positionM, way), rollDeg: 0 };
}

function standingHeightM(sheet: Sheet): number {
  if (sheet.kind === 'cut-out') return cutOutSize(sheet).heightM;
  if ('heightM' in sheet) return sheet.heightM;
  return sheet.diameterM;
}

export const hasLensHole = (sheet: Sheet): boolean =>
  'holeDiameterM' in sheet && sheet.holeDiameterM !== undefined;
