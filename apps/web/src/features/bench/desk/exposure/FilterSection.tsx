import { formatStops, lensFigures, nearestStep, SHUTTERS } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Choice } from '../../../../shared/Choice';
import { Explained } from '../../../../shared/Explained';
import { Section } from '../../../../shared/Section';
import { changeCamera } from '../../state/edits';
import { useBenchDispatch, useSetPart } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { useDeskFigure } from '../useDeskFigure';

const ND: readonly string[] = ['0', '1', '2', '3', '4', '6', '10'];
const POLARISER = { axisDeg: 90, lossStops: 1.5, extinction: 0.005 };

/** What takes light on its way into the camera: close focus, polariser, neutral density. */
export function FilterSection() {
  const camera = useSetPart((set) => set.camera);
  const dispatch = useBenchDispatch();
  const [nd, setNd] = useDeskFigure('filter nd', '0');
  const { bellowsStops, magnification } = lensFigures(camera);
  const wanted = camera.shutterS * 2 ** Number(nd);
  const step = SHUTTERS[nearestStep(SHUTTERS, wanted)];
  const onDial = step !== undefined && Math.abs(Math.log2(step.value / wanted)) < 0.4;
  return (
    <Section title="Filters and close focus">
      <Explained label="close focus" value={formatStops(-bellowsStops)}>
        2 log₂(1 + m/p) at m = {magnification.toFixed(3)}. It is in the picture, the spots and the ruler. A
        meter in the hand does not see it: open by as much against its reading.
      </Explained>
      <Explained
        label="polariser"
        value={camera.polariser ? formatStops(-camera.polariser.lossStops) : 'none'}
      >
        It takes its loss from all light, and more from what is mirrored: off glass, water, wet food and
        lacquer nearly all of it where they are seen 53 to 57 degrees off straight on, little off bare metal.
        A lamp with a film of its own, crossed with it, loses its mirror images at every angle. Turn it under
        the lens view.
        <Box>
          <Button
            size="small"
            onClick={() =>
              dispatch(edit(changeCamera({ polariser: camera.polariser ? undefined : POLARISER })))
            }
          >
            {camera.polariser ? 'Take it off' : 'Put it on'}
          </Button>
        </Box>
      </Explained>
      <Choice label="ND filter, stops" shown value={nd} options={ND} onChoose={setNd} />
      {nd !== '0' && (
        <Box sx={{ fontSize: '0.8125rem' }} role="status">
          For the same continuous light:{' '}
          {step && onDial ? `${step.printed} s` : `${Number(wanted.toPrecision(3))} s, by bulb`}. Flash loses{' '}
          {nd} stops with it: turn it up or open the f-stop.
          {step && onDial && (
            <Button size="small" onClick={() => dispatch(edit(changeCamera({ shutterS: step.value })))}>
              Take this shutter
            </Button>
          )}
        </Box>
      )}
    </Section>
  );
}
