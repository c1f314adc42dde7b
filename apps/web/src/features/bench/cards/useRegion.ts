import { type Region, traceKey } from '@fendrix/core';
import type { RegionPlaces } from '@fendrix/workers';
import { useEffect, useState } from 'react';
import { useSession } from '../picture/useSession';
import { useSet } from '../state/hooks';

/** The places that a region takes of the picture as it is now; null while they are not known. */
export function useRegion(region: Region | null): RegionPlaces | null {
  const set = useSet();
  const session = useSession();
  const [found, setFound] = useState<{ of: string; places: RegionPlaces } | null>(null);
  const of = region ? `${traceKey(set)} ${JSON.stringify(region)}` : '';
  useEffect(() => {
    if (!session || !region) return;
    const stop = new AbortController();
    session
      .ask({ kind: 'region', region }, { ...set, takes: [] }, stop.signal)
      .then((places) => {
        if (places && !stop.signal.aborted) setFound({ of, places });
      })
      .catch(() => undefined);
    return () => stop.abort(new Error('another place is asked about'));
    // The name says all that matters of both.
  }, [session, of]);
  return region && found?.of === of ? found.places : null;
}
