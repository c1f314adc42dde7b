import { traceKey } from '@fendrix/core';
import type { Task, TaskResult } from '@fendrix/workers';
import { useEffect, useMemo, useState } from 'react';
import { useBench, useSet } from '../state/hooks';
import { tellFailure } from '../state/tellFailure';
import { useSession } from './useSession';

/** What is asked, as a failure to answer begins. */
const SUBJECTS = { overlaps: 'What stands in something', inFrame: 'What comes into the picture' };

/**
 * What workers say of the set as it is now, asked as soon as it rests; null until then, and of an older set never.
 * @param task the same object at each call
 */
export function useAtRest<T extends Extract<Task, { kind: keyof typeof SUBJECTS }>>(
  task: T,
): TaskResult<T> | null {
  const set = useSet();
  const session = useSession();
  const following = useBench((bench) => bench.picture.phase === 'following');
  const [read, setRead] = useState<{ key: string; answer: TaskResult<T> } | null>(null);
  const key = useMemo(() => `${traceKey(set)} ${set.allowedOverlaps.join()}`, [set]);
  useEffect(() => {
    if (!session || following) return;
    const asked = new AbortController();
    session
      .ask(task, undefined, asked.signal)
      .then((answer) => answer && setRead({ key, answer }))
      .catch((error: unknown) => {
        if (!asked.signal.aborted) tellFailure(SUBJECTS[task.kind], error);
      });
    return () => asked.abort(new Error('the set moved'));
  }, [session, following, key, task]);
  return read?.key === key ? read.answer : null;
}

export const OVERLAPS = { kind: 'overlaps' } as const satisfies Task;
export const IN_FRAME = { kind: 'inFrame' } as const satisfies Task;
