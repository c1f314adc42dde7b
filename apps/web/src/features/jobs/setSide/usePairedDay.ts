import type { DayAction, DayAtTable } from '@fendrix/contract';
import { afterDayAction } from '@fendrix/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type DayAtHand, doneNow } from '../day/dayAtHand';
import { askServer, keepActions, keptActions, type Link } from './pairedDay';

/** The server is asked again so often, ms. */
const AGAIN_MS = 3000;
/** A device that is not paired asks nothing until it is: the longest that a timer waits. */
const NEVER_MS = 2 ** 31 - 1;

/** The day as the server told it last, with all that was done here since; what a lost link held up is told when it is back. */
export function usePairedDay(): {
  link: Link;
  /** Null until it was read once. */
  day: DayAtHand | null;
  /** So much is not told yet. */
  waiting: number;
  /** Asks at once. */
  again(): void;
} {
  const [link, setLink] = useState<Link>('asking');
  const [told, setTold] = useState<DayAtTable | null>(null);
  /** What the server was told of, and has not shown in a day yet: it counts here until then. */
  const sent = useRef<readonly DayAction[]>([]);
  /** All that the day of the server is shown with. */
  const [done, setDone] = useState<readonly DayAction[]>(keptActions);
  /** What the server was not told of. */
  const waiting = useRef(done);
  const keep = useCallback((next: readonly DayAction[]) => {
    waiting.current = next;
    keepActions(next);
    setDone([...sent.current, ...next]);
  }, []);
  /** Ends the wait between two questions. */
  const wake = useRef<() => void>(() => undefined);

  useEffect(() => {
    let here = true;
    let etag: string | null = null;
    const rest = (ms: number) =>
      new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, ms);
        wake.current = () => {
          clearTimeout(timer);
          resolve();
        };
      });
    // One question after the other: no answer is older than the one before it, and nothing is told twice.
    const ask = async () => {
      while (here) {
        let isWoken = false;
        wake.current = () => {
          isWoken = true;
        };
        const answer = await askServer(
          etag,
          () => waiting.current,
          (count) => {
            sent.current = [...sent.current, ...waiting.current.slice(0, count)];
            keep(waiting.current.slice(count));
          },
        );
        if (!here) return;
        etag = answer.etag;
        setLink(answer.link);
        if (answer.link === 'there') {
          // The day that was read has all that was told.
          sent.current = [];
          setDone(waiting.current);
        }
        if (answer.day) setTold(answer.day);
        // Something was done meanwhile: it is told at once, unless it cannot be.
        if (!isWoken || answer.link !== 'there')
          await rest(answer.link === 'not-paired' ? NEVER_MS : AGAIN_MS);
      }
    };
    void ask();
    return () => {
      here = false;
      wake.current();
    };
  }, [keep]);

  const day = useMemo((): DayAtHand | null => {
    if (!told) return null;
    return {
      job: done.reduce(afterDayAction, told.job),
      sets: new Map(Object.entries(told.sets)),
      reading: false,
      kit: told.kit,
      act(own) {
        keep([...waiting.current, doneNow(own)]);
        wake.current();
      },
    };
  }, [told, done, keep]);
  return { link, day, waiting: waiting.current.length, again: () => wake.current() };
}
