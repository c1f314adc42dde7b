import type { SetDocument } from '@fendrix/contract';
import type { FieldTrace } from '@fendrix/core';
import type { RemoteSession } from '../../picture/remoteSession';

/** The whole frame at few places: enough for levels. */
const PLACES = { across: 18, down: 12, samples: 64 };
const FRAME = { left: 0, top: 0, right: 1, bottom: 1 };

export const readFrame = (
  session: RemoteSession,
  set?: SetDocument,
  signal?: AbortSignal,
): Promise<FieldTrace | null> => session.ask({ kind: 'field', rect: FRAME, ...PLACES }, set, signal);
