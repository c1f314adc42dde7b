import { formatStops, lightLuminance, printedSetting, SHUTTERS } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Explained } from '../../../../shared/Explained';
import { QuantityField } from '../../../../shared/QuantityField';
import { Section } from '../../../../shared/Section';
import { changeCamera } from '../../state/edits';
import { useBenchDispatch, useReadings, useSet } from '../../state/hooks';
import { edit } from '../../state/thunks';
import { stopsQuantity } from '../stopsQuantity';
import { useDeskFigure } from '../useDeskFigure';

/** Ambient lower than this under the flash is not seen. */
const LIMIT_STOPS = -5;

/** How much of each spot is continuous light, and the shutter that keeps it under the flash. */
export function AmbientSection() {
  const set = useSet();
  const readings = useReadings();
  const dispatch = useBenchDispatch();
  const [limit, setLimit] = useDeskFigure('ambient limit', LIMIT_STOPS);
  const { camera } = set;
  const sync = camera.body.syncSpeedS;
  const flash = set.lights.some((light) => light.on && lightLuminance(light).time === 'flash');
  if (!flash) return null;
  const mixed = readings.filter(({ ambient }) => ambient.fraction !== null);
  const worst = Math.max(...mixed.map(({ ambient }) => ambient.stops), Number.NEGATIVE_INFINITY);
  // Ambient follows the shutter, flash does not.
  const neededS = camera.shutterS * 2 ** (limit - worst);
  const fastest = SHUTTERS.filter(({ value }) => value >= sync * 0.98);
  const fitting = [...fastest].reverse().find(({ value }) => value <= neededS * 1.02);
  const atSync = worst + Math.log2(sync / camera.shutterS);
  return (
    <Section title="Flash against ambient">
      {mixed.map(({ name, ambient }) => (
        <Explained
          key={name}
          label={`ambient at ${name}`}
          value={
            ambient.stops === Number.NEGATIVE_INFINITY
              ? 'none'
              : `${formatStops(ambient.stops)} · ${(100 * (ambient.fraction ?? 0)).toFixed(1)} %`
          }
        >
          Continuous light times the shutter over the light of the flash, stops; and its part of all light
          there. The shutter changes the ambient only, up to the sync speed; the power of the flash changes
          the flash only.
        </Explained>
      ))}
      <QuantityField
        label="keep ambient under"
        shown={stopsQuantity.format(limit)}
        parse={stopsQuantity.parse}
        example="−5"
        onCommit={setLimit}
      />
      <Box sx={{ fontSize: '0.8125rem', mt: 0.5 }} role="status">
        {worst === Number.NEGATIVE_INFINITY
          ? 'There is no continuous light on these spots.'
          : worst <= limit
            ? `Kept: at most ${formatStops(worst)}.`
            : fitting
              ? `${fitting.printed} or faster keeps it under ${formatStops(limit)}.`
              : `Not within the sync speed: ${printedSetting(SHUTTERS, sync)} leaves ${formatStops(atSync)}. Switch room and modelling lamps off, close the blinds, or turn the flash up and close the f-stop.`}
        {worst > limit && fitting && (
          <Button size="small" onClick={() => dispatch(edit(changeCamera({ shutterS: fitting.value })))}>
            Take it
          </Button>
        )}
      </Box>
      {camera.shutterS < sync * 0.98 && (
        <Box role="alert" sx={{ color: 'warning.main', fontSize: '0.8125rem' }}>
          {printedSetting(SHUTTERS, camera.shutterS)} is faster than the sync speed of{' '}
          {printedSetting(SHUTTERS, sync)}: the curtain cuts the frame. Figures and picture do not show that.
        </Box>
      )}
    </Section>
  );
}
