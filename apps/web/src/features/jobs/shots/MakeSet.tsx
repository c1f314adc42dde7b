import type { Job, Shot } from '@fendrix/contract';
import type { StagedShot } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link, useNavigate } from 'react-router';
import { changeRow } from '../../../shared/rows';
import { useAttempt } from '../../../shared/useAttempt';
import { setsApi } from '../../sets';
import { useEditJob } from '../state/openJob';

/** Makes the set of a picture, or brings its camera to the set that is there. */
export function MakeSet({ job, shot, staged }: { job: Job; shot: Shot; staged: StagedShot }) {
  const edit = useEditJob();
  const attempt = useAttempt();
  const navigate = useNavigate();
  const [create, creating] = setsApi.useCreateSetMutation();
  const [read] = setsApi.useLazyReadSetQuery();
  const [save, saving] = setsApi.useSaveSetMutation();
  const make = () =>
    attempt(async () => {
      const { id } = await create({
        ...staged.set,
        name: `${job.name}: ${shot.name}`.slice(0, 80),
      }).unwrap();
      edit((now) => ({ ...now, shots: changeRow(now.shots, shot.id, { setId: id }) }));
      await navigate(`/sets/${id}`);
    });
  const bring = (id: string) =>
    attempt(async () => {
      const { revision, document } = await read(id).unwrap();
      const { positionM, aimM, focusM, body, lens, fNumber, crops } = staged.set.camera;
      const camera = { ...document.camera, positionM, aimM, focusM, body, lens, fNumber, crops };
      await save({ id, revision, document: { ...document, camera } }).unwrap();
      await navigate(`/sets/${id}`);
    });
  const { setId } = shot;
  return (
    <>
      {!staged.inRoom && (
        <Box sx={{ color: 'warning.main', fontSize: '0.8125rem' }}>
          The camera would stand outside of the room.
        </Box>
      )}
      {setId && (
        <>
          <Button size="small" component={Link} to={`/sets/${setId}`}>
            Open its set
          </Button>
          <Button size="small" disabled={saving.isLoading || !staged.inRoom} onClick={() => bring(setId)}>
            Send this camera to its set
          </Button>
        </>
      )}
      <Button size="small" variant="contained" disabled={creating.isLoading} onClick={make}>
        {setId ? 'Make another set' : 'Make a set for it'}
      </Button>
    </>
  );
}
