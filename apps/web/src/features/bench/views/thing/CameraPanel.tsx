import type { Camera, SetDocument } from '@fendrix/contract';
import {
  cameraFigures,
  focusPoint,
  formatLength,
  formatTime,
  isUpright,
  parseLengthM,
  shakesByHand,
  turnedCamera,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { Choice } from '../../../../shared/Choice';
import { Explained } from '../../../../shared/Explained';
import { cameraSchema } from '../../../../shared/form/schema';
import { QuantityField } from '../../../../shared/QuantityField';
import { changedSince } from '../../state/edit';
import { changeCamera } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { AimFields } from './AimFields';
import { AllFigures, type PanelProps, StandFields, Title } from './ThingFields';

/** Whether the camera counts as a thing that is mirrored, and whether its own blur is in the picture. */
function RigSwitches({ camera }: { camera: Camera }) {
  const dispatch = useBenchDispatch();
  const rig = { bodyWidthM: 0.14, bodyHeightM: 0.1, lensDiameterM: 0.08, lensLengthM: 0.12, tripod: true };
  const put = (changes: Partial<Camera>) => dispatch(edit(changeCamera(changes)));
  return (
    <Box sx={{ display: 'grid', my: 0.5 }}>
      <FormControlLabel
        control={
          <Switch
            size="small"
            checked={camera.rig !== undefined}
            onChange={(_, on) => put({ rig: on ? rig : undefined })}
          />
        }
        label="Mirrors and shades, with tripod"
        slotProps={{ typography: { sx: { fontSize: '0.8125rem' } } }}
      />
      <FormControlLabel
        control={
          <Switch
            size="small"
            checked={camera.depthOfField}
            onChange={(_, depthOfField) => put({ depthOfField })}
          />
        }
        label="Blur of the lens in the picture"
        slotProps={{ typography: { sx: { fontSize: '0.8125rem' } } }}
      />
    </Box>
  );
}

/** What the focus goes along with. */
function focusWords(set: SetDocument): string {
  const { product } = focusPoint(set);
  const name = set.products.find(({ id }) => id === product)?.name;
  return name ? `“${name}”` : 'the place it is on';
}

const SHOWN = new Set([
  'positionM',
  'aimM',
  'keepsDirection',
  'focusM',
  'fNumber',
  'shutterS',
  'iso',
  'focusOn',
  'focusLocked',
  'release',
]);

const RELEASES: readonly { value: Camera['release']; words: string }[] = [
  { value: 'hand', words: 'by hand on the button' },
  { value: 'self-timer', words: 'self-timer' },
  { value: 'cable', words: 'cable, or from the computer' },
];

export function CameraPanel({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const { camera } = set;
  const figures = cameraFigures(camera);
  return (
    <>
      <Title name="Camera" kind={`${camera.body.name}; ${camera.lens.name}`} />
      <StandFields set={set} thing={thing} />
      <AimFields set={set} thing={thing} />
      <QuantityField
        label="focal length"
        shown={`${Number((camera.lens.focalLengthM * 1000).toFixed(1))} mm`}
        parse={(text) => parseLengthM(text, 'mm')}
        example="85 mm"
        onCommit={(focalLengthM) =>
          dispatch(edit((old) => changeCamera({ lens: { ...old.camera.lens, focalLengthM } })(old)))
        }
      />
      <QuantityField
        label="in focus at"
        shown={formatLength(camera.focusM)}
        parse={(text) => parseLengthM(text)}
        example="1m20"
        onCommit={(focusM) => dispatch(edit(changeCamera({ focusM, focusOn: undefined })))}
      />
      <FormControlLabel
        control={
          <Switch
            size="small"
            checked={!camera.focusLocked}
            onChange={(_, follows) => dispatch(edit(changeCamera({ focusLocked: !follows })))}
          />
        }
        label={camera.focusLocked ? 'Focus locked as taped' : `Focus follows ${focusWords(set)}`}
        slotProps={{ typography: { sx: { fontSize: '0.8125rem' } } }}
      />
      <Choice
        shown
        label="released"
        value={camera.release}
        options={RELEASES}
        onChoose={(release) => dispatch(edit(changeCamera({ release })))}
      />
      {shakesByHand(camera) && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.75rem', mb: 0.5 }}>
          At {formatTime(camera.shutterS)} the finger on the button shakes it: self-timer or cable, and hands
          off the table. Flash alone freezes it.
        </Box>
      )}
      <Explained
        label="sharp from – to"
        value={`${formatLength(figures.depthOfFieldM.near)} – ${figures.depthOfFieldM.far === null ? 'far' : formatLength(figures.depthOfFieldM.far)}`}
      >
        Sharp means a blur disc below {(figures.circleOfConfusionM * 1e6).toFixed(1)} µm on the sensor (
        {figures.circleOfConfusionBasis}). k = c N/(f m); near s/(1 + k), far s/(1 − k) from the entrance
        pupil. A smaller f-stop or more distance deepens it.
      </Explained>
      <Explained label="close-focus loss" value={`${figures.bellowsStops.toFixed(2)} stop`}>
        2 log₂(1 + m/p) with m = {figures.magnification.toFixed(3)}: the lens is racked out, so less light
        arrives. It is in the picture and the spot readings; a hand meter does not see it.
      </Explained>
      <Explained label="view" value={`${figures.angleOfViewDeg.width.toFixed(1)}° wide`}>
        2 atan(w / 2f′) with f′ = f (1 + m/p), w = {Number((camera.body.sensorWidthM * 1000).toFixed(1))} mm.
      </Explained>
      <Button
        size="small"
        variant="outlined"
        sx={{ mt: 0.5 }}
        onClick={() => dispatch(edit((old) => ({ ...old, camera: turnedCamera(old.camera) })))}
      >
        {isUpright(camera.body) ? 'Turn the camera level' : 'Turn the camera upright'}
      </Button>
      <RigSwitches camera={camera} />
      <AllFigures
        schema={cameraSchema()}
        value={camera}
        hidden={SHOWN}
        onChange={(changed) =>
          dispatch(edit((old) => ({ ...old, camera: changedSince(camera, changed as Camera, old.camera) })))
        }
      />
    </>
  );
}
