import Box from '@mui/material/Box';
import CircularProgress from '@mui/material/CircularProgress';
import Typography from '@mui/material/Typography';
import { type ReactNode, useState } from 'react';
import { useDayAtHand } from '../day/dayAtHand';
import { useBuildSteps } from '../day/useBuildSteps';
import { useDay, useOrder } from '../day/useDay';
import { PictureAtTable } from './PictureAtTable';
import { useAwake } from './useAwake';

/** The day at hand, one step at a time. @param notice what is told above it  @param foot what stands small below it */
export function AtTable({ notice, foot }: { notice?: ReactNode; foot: ReactNode }) {
  const { reading } = useDayAtHand();
  const staysOn = useAwake();
  return (
    <Box
      component="main"
      aria-label="Set side"
      sx={{ minHeight: '100dvh', display: 'flex', flexDirection: 'column', p: { xs: 1.5, md: 3 } }}
    >
      {notice}
      {reading ? (
        <CircularProgress aria-label="The sets of the pictures are being read" sx={{ m: 'auto' }} />
      ) : (
        <Pictures />
      )}
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center', mt: 1 }}>
        {foot}
        {!staysOn && (
          <Typography sx={{ fontSize: '0.8125rem', color: 'text.secondary' }}>
            This browser cannot keep the screen on: set the device so that it stays on by itself.
          </Typography>
        )}
      </Box>
    </Box>
  );
}

function Pictures() {
  const day = useDay();
  const { order, best } = useOrder(day);
  const { job, act } = useDayAtHand();
  const { order: own, stands } = job.day;
  const isOwn = own.length > 0;
  /** Pictures taken since the page was opened, and what stood there before each: Back goes to them too. */
  const [taken, setTaken] = useState<readonly { id: string; stood: string | undefined }[]>([]);
  const [picture, ...later] = useBuildSteps(day, order);
  // Until the order is known nothing is begun.
  if (best === null && !isOwn)
    return <CircularProgress aria-label="The order is being worked out" sx={{ m: 'auto' }} />;
  if (!picture)
    return (
      <Typography sx={{ m: 'auto', fontSize: '1.5rem', maxWidth: 560 }}>
        {day.without.length > 0
          ? 'No picture that is set up is left. Make the sets of the others first.'
          : job.shots.length > 0
            ? 'All pictures are taken.'
            : 'There is nothing to build yet: list the pictures of the job and make their sets.'}
      </Typography>
    );
  const standing = (set: string | undefined) => (set === undefined ? {} : { stands: set });
  const take = () => {
    const { id, setId } = picture.shot;
    setTaken([...taken, { id, stood: stands }]);
    act({ kind: 'taken', shot: id, done: true, ...standing(setId) });
  };
  const last = taken.at(-1);
  const takeBack = last
    ? () => {
        setTaken(taken.slice(0, -1));
        act({ kind: 'taken', shot: last.id, done: false, ...standing(last.stood) });
      }
    : null;
  return (
    <PictureAtTable
      key={picture.shot.id}
      picture={picture}
      next={later[0]?.shot.name ?? null}
      onTaken={take}
      onTakeBack={takeBack}
    />
  );
}
