import type { SetDocument } from '@fendrix/contract';
import {
  type FieldFigures,
  type FieldTrace,
  fieldFigures,
  fieldStops,
  GROUND_KINDS,
  PRODUCT_KINDS,
  type Thing,
} from '@fendrix/core';
import type { RemoteSession } from '../../picture/remoteSession';

/** The whole frame at few places: enough for levels. */
const PLACES = { across: 18, down: 12, samples: 64 };
const FRAME = { left: 0, top: 0, right: 1, bottom: 1 };

const TABLE: readonly Thing['kind'][] = ['bench'];

export const readFrame = (
  session: RemoteSession,
  set?: SetDocument,
  signal?: AbortSignal,
): Promise<FieldTrace | null> => session.ask({ kind: 'field', rect: FRAME, ...PLACES }, set, signal);

export interface FrameLevels {
  ground: FieldFigures | null;
  table: FieldFigures | null;
  products: FieldFigures | null;
  whole: FieldFigures | null;
}

/** Levels of ground, table and products with the powers and settings of a set. No rays. */
export function levelsOf(set: SetDocument, field: FieldTrace): FrameLevels {
  const stops = fieldStops(set, field);
  const of = (kinds?: readonly Thing['kind'][]) => fieldFigures(field, stops, kinds);
  return { ground: of(GROUND_KINDS), table: of(TABLE), products: of(PRODUCT_KINDS), whole: of() };
}
