import { type FieldTrace, type RimTrace, traceKey } from '@fendrix/core';
import { useEffect, useMemo, useState } from 'react';
import { useSession } from '../../picture/useSession';
import { useSet } from '../../state/hooks';
import { tellFailure } from '../../state/tellFailure';
import { readFrame } from './readFrame';

const REST_MS = 350;

/** The frame read at places, and the edges of the products, made anew a moment after something has moved. */
export function useFrameRead(): { field: FieldTrace; rims: RimTrace } | null {
  const set = useSet();
  const session = useSession();
  const key = useMemo(() => traceKey(set), [set]);
  const [read, setRead] = useState<{ key: string; field: FieldTrace; rims: RimTrace } | null>(null);
  useEffect(() => {
    if (!session) return;
    let current = true;
    const timer = setTimeout(async () => {
      try {
        const field = await readFrame(session);
        const rims = await session.ask({ kind: 'rims' });
        if (current && field && rims) setRead({ key, field, rims });
      } catch (error) {
        if (current) tellFailure('The light of the background', error);
      }
    }, REST_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [session, key]);
  return read?.key === key ? read : null;
}
