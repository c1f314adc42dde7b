import type { SetDocument, Vector } from '@fendrix/contract';
import { formatLength, type Overlap, overlapName, vector } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { OVERLAPS, useAtRest } from '../picture/useAtRest';
import { moveThing, positionOf } from '../state/edits';
import { useBenchDispatch, useSet } from '../state/hooks';
import { edit } from '../state/thunks';

/** Things that stand in or through each other, as soon as the set rests, with the way out; they may be left so. */
export const OverlapNotes = memo(function OverlapNotes() {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const found = useAtRest(OVERLAPS);
  if (!found || found.length === 0) return null;

  const take = ({ kind, key: tag }: Overlap, move: Vector) =>
    dispatch(
      edit((now) => {
        if (kind === 'stand') return now;
        const place = positionOf(now, { kind, key: tag });
        return place ? moveThing({ kind, key: tag }, vector.add(place, move))(now) : now;
      }),
    );
  const allow = (one: Overlap) =>
    dispatch(edit((now) => ({ ...now, allowedOverlaps: [...now.allowedOverlaps, overlapName(one)] })));
  return (
    <Box component="section" aria-label="Overlaps" sx={{ display: 'grid', gap: 0.5 }}>
      {found.map((one) => (
        <Alert
          key={overlapName(one)}
          severity="warning"
          icon={false}
          sx={{ py: 0, px: 1, fontSize: '0.8125rem' }}
        >
          {overlapWords(one, set)}
          <Box>
            {one.wayOutM && (
              <Button
                size="small"
                sx={{ px: 0, mr: 1.5 }}
                onClick={() => one.wayOutM && take(one, one.wayOutM)}
              >
                Move it {moveWords(one.wayOutM)}
              </Button>
            )}
            <Button size="small" color="inherit" sx={{ px: 0 }} onClick={() => allow(one)}>
              Ignore
            </Button>
          </Box>
        </Alert>
      ))}
    </Box>
  );
});

function overlapWords({ kind, key, other, wayOutM }: Overlap, set: SetDocument): string {
  const things = kind === 'light' ? set.lights : set.sheets;
  const name = things.find(({ tag }) => tag === key)?.name;
  const what = kind === 'stand' ? `The stand of ${key}` : `${key}${name ? `, ${name},` : ''}`;
  const into =
    other.kind === 'bench' ? 'the table' : other.kind === 'backdrop' ? 'the background' : other.name;
  const words = `${what} goes through ${into}.`;
  return wayOutM || kind === 'stand' ? words : `${words} Half a metre does not clear it: set it up anew.`;
}

/** The move that clears it, as one says it at the table. */
function moveWords([x, y, z]: Vector): string {
  const ways: [number, string, string][] = [
    [z, 'up', 'down'],
    [x, 'to camera right', 'to camera left'],
    [y, 'away from the camera', 'towards the camera'],
  ];
  return ways
    .filter(([size]) => Math.abs(size) > 1e-6)
    .map(([size, one, other]) => `${formatLength(Math.abs(size))} ${size > 0 ? one : other}`)
    .join(', ');
}
