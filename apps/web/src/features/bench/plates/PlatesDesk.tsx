import type { Plate } from '@fendrix/contract';
import { MOST_FOCUS_STEPS, proposedPlates } from '@fendrix/core';
import { PLATE_GIVES, plateList } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { Choice } from '../../../shared/Choice';
import { Section } from '../../../shared/Section';
import { fileName, saveFile } from '../../../shared/saveFile';
import { useFigure } from '../figures/figureStore';
import { SessionClosed } from '../picture/remoteSession';
import { useSession } from '../picture/useSession';
import { benchActions } from '../state/benchSlice';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';
import { addPlates, newPlate, plateOf } from '../state/plates';
import { edit } from '../state/thunks';
import { PlateEditor } from './PlateEditor';
import { PlateRows } from './PlateRows';

const GIVES = (Object.keys(PLATE_GIVES) as Plate['gives'][]).map((value) => ({
  value,
  words: PLATE_GIVES[value],
}));

/** What one frame cannot hold: further frames from the locked camera, each with its light and mask, laid over the set's own. */
export default function PlatesDesk() {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const { shown, chosen } = useBench((bench) => bench.plates);
  const plate = plateOf(set, chosen);
  return (
    <>
      <Section title="Plates" action={<SavePlates />}>
        <Box sx={{ fontSize: '0.8125rem', mb: 1 }}>
          {set.plates.length === 0
            ? 'What one frame cannot hold is taken in several: the label with one light, the liquid with another, a ground of its own, focus steps. Camera and products stay locked; each plate has its lights and exposure, and a mask that says what of it goes into the picture.'
            : 'Lowest first, over the frame of the set as it stands. The picture shows them put together.'}
        </Box>
        <PlateRows plates={set.plates} chosen={chosen} />
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap', mt: 1 }}>
          <AddPlate />
          {set.plates.length > 0 && (
            <Button
              size="small"
              aria-pressed={shown}
              onClick={() => dispatch(benchActions.platesChanged({ shown: !shown }))}
            >
              {shown ? 'Show the set’s own frame' : 'Put together'} (L)
            </Button>
          )}
        </Box>
      </Section>
      {plate && <PlateEditor key={plate.id} plate={plate} />}
    </>
  );
}

function AddPlate() {
  const set = useSet();
  const { enqueueSnackbar } = useSnackbar();
  const dispatch = useBenchDispatch();
  const [gives, setGives] = useState<Plate['gives']>('label');
  return (
    <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
      <Choice label="What the new plate gives" value={gives} options={GIVES} onChoose={setGives} />
      <Button
        size="small"
        variant="outlined"
        onClick={() => {
          const words = PLATE_GIVES[gives];
          const name = words.charAt(0).toUpperCase() + words.slice(1);
          const added: Plate[] = [];
          for (const proposed of proposedPlates(set, gives))
            added.push(newPlate([...set.plates, ...added], proposed, name));
          const [first] = added;
          if (!first) {
            enqueueSnackbar(
              `It takes more than ${MOST_FOCUS_STEPS} focus steps to hold the products at this f-stop. Close it, or take them with a rail.`,
            );
          } else if (dispatch(edit(addPlates(added))))
            dispatch(benchActions.platesChanged({ chosen: first.id, shown: true, maskShown: false }));
        }}
      >
        {gives === 'focus' ? 'Add focus steps' : 'Add a plate'}
      </Button>
    </Box>
  );
}

/** Gives out plates, masks and a list in one file; not before all of them are traced. */
function SavePlates() {
  const set = useSet();
  const session = useSession();
  const picture = useFigure('picture');
  const { enqueueSnackbar } = useSnackbar();
  if (set.plates.length === 0) return null;
  const ready = picture?.plates?.onTheirWay === 0;
  return (
    <Button
      size="small"
      disabled={!ready}
      title={ready ? '' : 'As soon as all plates are traced and put together'}
      onClick={() =>
        void session
          ?.plateFiles(plateList(set))
          .then((blob) => saveFile(blob, fileName(`${set.name}, plates`, 'zip')))
          .catch((error: unknown) => {
            if (error instanceof SessionClosed) return;
            enqueueSnackbar('The plates were not saved: not all of them are there yet. Try again.', {
              variant: 'warning',
            });
          })
      }
    >
      Save plates and masks
    </Button>
  );
}
