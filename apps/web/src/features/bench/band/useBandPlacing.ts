import type { BandAnswer, BandWish } from '@fendrix/core';
import { formatLength } from '@fendrix/core';
import { useSnackbar } from 'notistack';
import { useRef } from 'react';
import { useSession } from '../picture/useSession';
import { useBenchDispatch } from '../state/hooks';
import { tellFailure } from '../state/tellFailure';
import { takeChange } from '../state/useAnswer';

let gestures = 0;

/**
 * Places lights and sheets for wanted lengths of the band. While an edge is dragged only the newest wish is solved,
 * one after the other; all of one drag is one step of undo.
 */
export function useBandPlacing() {
  const session = useSession();
  const dispatch = useBenchDispatch();
  const { enqueueSnackbar } = useSnackbar();
  const waiting = useRef<BandWish | null>(null);
  const busy = useRef(false);
  const gesture = useRef('');

  async function place(wish: BandWish): Promise<BandAnswer | null> {
    const answer = (await session?.ask({ kind: 'placeForBand', wish })) ?? null;
    if (answer) dispatch(takeChange(answer.change, gesture.current || null));
    return answer;
  }

  async function work() {
    if (busy.current) return;
    busy.current = true;
    while (waiting.current) {
      const wish = waiting.current;
      waiting.current = null;
      await place(wish).catch((error: unknown) => tellFailure('Its place for the band', error));
    }
    busy.current = false;
  }

  return {
    /** Follows a drag. */
    follow(wish: BandWish, first: boolean) {
      if (first) gesture.current = `band ${++gestures}`;
      waiting.current = wish;
      void work();
    },
    /** Places once and tells what came of it. */
    async once(wish: BandWish) {
      gesture.current = '';
      try {
        const answer = await place(wish);
        enqueueSnackbar(answerInWords(answer, wish), {
          variant: answer?.reached && !answer.limited && !answer.inFrame ? 'success' : 'warning',
        });
      } catch (error) {
        tellFailure('Its place for the band', error);
      }
    },
  };
}

const percent = (part: number) => `${(100 * part).toFixed(1)} %`;

/** What came of a wish, with what to do where it was not met. */
function answerInWords(answer: BandAnswer | null, { key, from, to, by }: BandWish): string {
  if (!answer) return `${key} cannot be placed for this band.`;
  const { reached, limited, inFrame, widthM } = answer;
  const size = widthM === null ? '' : `, ${formatLength(widthM)} wide`;
  const now = reached
    ? `${key} takes ${percent(reached.to - reached.from)} now${by === 'size' ? size : ''}`
    : `${key} is not mirrored there: something covers it`;
  const why = {
    nearest: `it stands as near as it can; take a wider one than${size || ' this'}`,
    farthest: 'it stands as far as it can; take a narrower one',
    room: 'a wall is in the way; take a smaller one or another side',
    height: 'at its height the product does not see it; lift or lower it',
  };
  return [
    now,
    ...(limited ? [`${percent(to - from)} was wanted: ${why[limited]}`] : []),
    ...(inFrame ? ['it comes into the picture itself'] : []),
  ].join('. ');
}
