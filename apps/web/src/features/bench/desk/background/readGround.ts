import type { SetDocument } from '@fendrix/contract';
import {
  type FieldFigures,
  type FieldTrace,
  fieldFigures,
  fieldStops,
  mirrorShares,
  type Thing,
} from '@fendrix/core';
import type { RemoteSession } from '../../picture/remoteSession';

/** The whole frame at few places: enough for levels. */
const PLACES = { across: 18, down: 12, samples: 64 };
const FRAME = { left: 0, top: 0, right: 1, bottom: 1 };
const MAP = { width: 240, height: 160 };

/** What counts as the ground behind the goods. */
export const GROUND: readonly Thing['kind'][] = ['backdrop', 'room'];
export const TABLE: readonly Thing['kind'][] = ['bench'];
export const GOODS: readonly Thing['kind'][] = ['product'];

export const readFrame = (
  session: RemoteSession,
  set?: SetDocument,
  signal?: AbortSignal,
): Promise<FieldTrace | null> => session.ask({ kind: 'field', rect: FRAME, ...PLACES }, set, signal);

export interface FrameLevels {
  ground: FieldFigures | null;
  table: FieldFigures | null;
  goods: FieldFigures | null;
  whole: FieldFigures | null;
}

/** Levels of ground, table and goods with the powers and settings of a set. No rays. */
export function levelsOf(set: SetDocument, field: FieldTrace): FrameLevels {
  const stops = fieldStops(set, field);
  const of = (kinds?: readonly Thing['kind'][]) => fieldFigures(field, stops, kinds);
  return { ground: of(GROUND), table: of(TABLE), goods: of(GOODS), whole: of() };
}

/** Part of the goods' visible mirroring surface that mirrors the backdrop: what a bright one wraps round their edges. */
export async function wrapOf(session: RemoteSession, set: SetDocument): Promise<number> {
  const tile = { x: 0, y: 0, ...MAP };
  const found = await session.ask({ kind: 'mirror', ...MAP, tile });
  if (!found) return 0;
  const parts = set.products.map(({ id }) => {
    const shares = mirrorShares(found.map, found.things, id);
    return shares
      .filter(({ thing }) => thing?.kind === 'backdrop')
      .reduce((sum, { share }) => sum + share, 0);
  });
  return Math.max(0, ...parts);
}
