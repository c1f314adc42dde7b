import type { SetDocument } from '@fendrix/contract';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { useEffect, useState } from 'react';
import { useDispatch } from 'react-redux';
import { setsApi } from '../../sets';

/** Sets by where they are stored, as they are read; those that are not there any more stay away. */
export function useSetsOf(ids: readonly string[]): {
  sets: ReadonlyMap<string, SetDocument>;
  reading: boolean;
} {
  const dispatch = useDispatch<ThunkDispatch<unknown, unknown, UnknownAction>>();
  const [read, setRead] = useState<ReadonlyMap<string, SetDocument | null>>(new Map());
  const wanted = ids.join(' ');
  useEffect(() => {
    let here = true;
    for (const id of new Set(wanted.split(' ').filter(Boolean))) {
      const asked = dispatch(setsApi.endpoints.readSet.initiate(id, { forceRefetch: true }));
      asked
        .unwrap()
        .then(({ document }) => document as SetDocument | null)
        .catch(() => null)
        .then((set) => {
          asked.unsubscribe();
          if (here) setRead((all) => new Map(all).set(id, set));
        });
    }
    return () => {
      here = false;
    };
  }, [wanted, dispatch]);
  const sets = new Map([...read].flatMap(([id, set]) => (set ? [[id, set] as const] : [])));
  return { sets, reading: ids.some((id) => !read.has(id)) };
}
