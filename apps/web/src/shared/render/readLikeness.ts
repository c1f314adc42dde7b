import type { Likeness, SetDocument } from '@fendrix/contract';
import { traceKey } from '@fendrix/core';
import { smallPool } from './smallRender';

/** Paths a place in each batch: tones are held against a third of a stop. */
const SAMPLES = 4;
/** Before small pictures: it is waited for. */
const PRIORITY = 1000;

/** The figures of a set's picture that another one may be held against; null where no product is seen in it. */
export const readLikeness = (set: SetDocument, signal: AbortSignal): Promise<Likeness | null> =>
  smallPool().run(
    { key: traceKey(set), set },
    { kind: 'likeness', samples: SAMPLES },
    { priority: PRIORITY, signal },
  );
