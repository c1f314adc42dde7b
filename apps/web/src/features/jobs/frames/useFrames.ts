import type { FrameChange, FrameList } from '@fendrix/contract';
import { useCallback, useRef, useState } from 'react';
import { framesApi } from './framesApi';

/** The list is looked at again so often, ms. */
const LOOK_AGAIN_MS = 2000;

export interface FramePage {
  job: string;
  limit: number;
  offset: number;
}

/** Something changed here. */
interface Change {
  /** All that was changed of a frame, and the last of it. */
  change: FrameChange;
  last: FrameChange;
  /** When the server took it; null while it has not. */
  takenAt: number | null;
}

/**
 * Frames of a page, looked at again and again. What is changed here is seen at once, and stays until a list is there that was asked
 * for after the server took it: an older one never brings the old back.
 */
export function useFrames(page: FramePage): {
  list: FrameList | undefined;
  /** Why the list cannot be read. */
  error: unknown;
  /** Why the last change was refused; null if it was not. */
  refused: unknown;
  change(id: string, change: FrameChange): void;
} {
  const { data, error, startedTimeStamp, fulfilledTimeStamp, isFetching } = framesApi.useListFramesQuery(
    page,
    {
      pollingInterval: LOOK_AGAIN_MS,
    },
  );
  const [send] = framesApi.useChangeFrameMutation();
  const [own, setOwn] = useState<ReadonlyMap<string, Change>>(new Map());
  const [refused, setRefused] = useState<unknown>(null);
  /** When the list that is shown was asked for. */
  const asked = useRef({ fulfilled: 0, at: 0 });
  if (!isFetching && fulfilledTimeStamp !== undefined && fulfilledTimeStamp !== asked.current.fulfilled)
    asked.current = { fulfilled: fulfilledTimeStamp, at: startedTimeStamp ?? 0 };

  const change = useCallback(
    (id: string, next: FrameChange) => {
      setRefused(null);
      setOwn((all) =>
        new Map(all).set(id, { change: { ...all.get(id)?.change, ...next }, last: next, takenAt: null }),
      );
      const settled = (taken: boolean) =>
        setOwn((all) => {
          const mine = all.get(id);
          // It was changed again meanwhile: that is waited for.
          if (mine?.last !== next) return all;
          const now = new Map(all);
          if (taken) now.set(id, { ...mine, takenAt: Date.now() });
          else now.delete(id);
          return now;
        });
      send({ id, change: next })
        .unwrap()
        .then(() => settled(true))
        .catch((failure) => {
          settled(false);
          setRefused(failure);
        });
    },
    [send],
  );

  const list = data && {
    ...data,
    frames: data.frames.map((frame) => {
      const mine = own.get(frame.id);
      return mine && (mine.takenAt === null || mine.takenAt >= asked.current.at)
        ? { ...frame, ...(mine.change as Partial<typeof frame>) }
        : frame;
    }),
  };
  return { list, error, refused, change };
}
