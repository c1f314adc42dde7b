import { type FieldTrace, traceKey } from '@fendrix/core';
import { useEffect, useMemo, useState } from 'react';
import { useSession } from '../../picture/useSession';
import { useSet } from '../../state/hooks';
import { readFrame, wrapOf } from './readGround';

const REST_MS = 350;

/** The frame read at places, and the wrap, made anew a moment after something has moved. */
export function useFrameRead(): { field: FieldTrace; wrap: number } | null {
  const set = useSet();
  const { session } = useSession();
  const key = useMemo(() => traceKey(set), [set]);
  const [read, setRead] = useState<{ key: string; field: FieldTrace; wrap: number } | null>(null);
  useEffect(() => {
    if (!session) return;
    let current = true;
    const timer = setTimeout(async () => {
      try {
        const field = await readFrame(session);
        const wrap = await wrapOf(session, set);
        if (current && field) setRead({ key, field, wrap });
      } catch {
        // The next move tries again; the picture tells what is wrong.
      }
    }, REST_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [session, key, set]);
  return read?.key === key ? read : null;
}
