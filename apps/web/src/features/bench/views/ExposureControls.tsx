import {
  type DialStep,
  fStopsOf,
  ISO_SPEEDS,
  lightLuminance,
  nearestStep,
  printedSetting,
  SHUTTERS,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { Choice } from '../../../shared/Choice';
import { surround } from '../../../shared/theme';
import { FocusNote } from '../lens/FocusNote';
import { changeCamera } from '../state/edits';
import { useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';

/** f-stop, shutter and ISO: dials of third stops. Changing them develops the picture anew and traces nothing. */
export const ExposureControls = memo(function ExposureControls() {
  const camera = useSetPart((set) => set.camera);
  const dispatch = useBenchDispatch();
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
      <Dial
        label="f-stop"
        prefix="f/"
        dial={fStopsOf(camera.lens)}
        value={camera.fNumber}
        onChange={(fNumber) => dispatch(edit(changeCamera({ fNumber })))}
      />
      <Dial
        label="shutter"
        prefix=""
        dial={SHUTTERS}
        value={camera.shutterS}
        onChange={(shutterS) => dispatch(edit(changeCamera({ shutterS })))}
      />
      <Dial
        label="ISO"
        prefix="ISO "
        dial={ISO_SPEEDS}
        value={camera.iso}
        onChange={(iso) => dispatch(edit(changeCamera({ iso })))}
      />
    </Box>
  );
});

/** What the settings would do to the real frame: a cut by the shutter, products out of focus. */
export const ExposureNotes = memo(function ExposureNotes() {
  const camera = useSetPart((set) => set.camera);
  const flash = useSetPart(({ lights }) =>
    lights.some((light) => light.on && lightLuminance(light).time === 'flash'),
  );
  const cut = flash && camera.shutterS < camera.body.syncSpeedS * 0.98;
  return (
    <>
      <FocusNote />
      {cut && (
        <Box role="status" sx={{ color: surround.caution, fontSize: '0.75rem' }}>
          Faster than this body's flash sync ({printedSetting(SHUTTERS, camera.body.syncSpeedS)}): the real
          frame would be cut; the picture shown is not.
        </Box>
      )}
    </>
  );
});

interface DialProps {
  label: string;
  prefix: string;
  dial: readonly DialStep[];
  value: number;
  onChange(value: number): void;
}

/** A value between two steps of the dial. */
const BETWEEN = 'between';

function Dial({ label, prefix, dial, value, onChange }: DialProps) {
  const index = nearestStep(dial, value);
  const between = Math.abs(Math.log2((dial[index]?.value ?? value) / value)) >= 0.09;
  return (
    <Choice
      label={label}
      onSurround
      figures
      value={between ? BETWEEN : String(index)}
      options={[
        ...(between ? [{ value: BETWEEN, words: `${prefix}${printedSetting(dial, value)}` }] : []),
        ...dial.map(({ printed }, i) => ({ value: String(i), words: `${prefix}${printed}` })),
      ]}
      onChoose={(chosen) => {
        const step = dial[Number(chosen)];
        if (step) onChange(step.value);
      }}
    />
  );
}
