import { formatStops, type SpotReading, targetVerdicts } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { Explained } from '../../../shared/Explained';
import { removeSpot } from '../state/edits';
import { useBenchDispatch, useReadings, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';
import { Contrast } from './Contrast';
import { FieldEvenness } from './FieldEvenness';
import { TargetFields } from './TargetFields';
import { rangeWords, toneWords } from './toneWords';

/** What the camera records at the pinned spots, against the tones wanted there; contrasts and evenness. */
export const SpotPanel = memo(function SpotPanel() {
  const spots = useSetPart((set) => set.spots);
  const readings = useReadings();
  return (
    <Box component="section" aria-label="Pinned spots">
      <Box sx={{ display: 'flex', alignItems: 'baseline' }}>
        <Box component="h2" sx={{ m: 0, flex: 1, fontSize: '0.8125rem', fontWeight: 650 }}>
          Spots
        </Box>
        <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>stops from mid-tone</Box>
      </Box>
      {spots.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem', py: 0.5 }}>
          None pinned. Press P, then point at the picture: each spot is read in stops as the lights move.
        </Box>
      )}
      {spots.map((spot) => (
        <SpotRow key={spot.name} name={spot.name} reading={readings.find(({ name }) => name === spot.name)} />
      ))}
      <FieldEvenness />
      <Contrast readings={readings} />
    </Box>
  );
});

function SpotRow({ name, reading }: { name: string; reading: SpotReading | undefined }) {
  const dispatch = useBenchDispatch();
  const spots = useSetPart((set) => set.spots);
  const readings = useReadings();
  const verdict = targetVerdicts(spots, readings).find((own) => own.name === name);
  const value = reading ? (toneWords(reading) ?? hiddenOrBlack(reading)) : '…';
  return (
    <div data-testid={`spot ${name}`}>
      <Explained label={name} value={value}>
        {reading && (
          <>
            {reading.lights.map((light) => (
              <div key={light.tag}>
                {light.tag}: {Number(light.reading.toPrecision(3))} {light.time === 'flash' ? 'lx s' : 'lx'},
                of it direct {Number(light.directReading.toPrecision(3))}
                {light.on ? '' : ' (off)'}
                {light.stopsFromMidTone === null ? '' : `; alone ${formatStops(light.stopsFromMidTone)}`}
              </div>
            ))}
            <Box sx={{ mt: 1 }}>
              A flat incident meter here says{' '}
              {reading.incidentStops === null ? 'nothing' : formatStops(reading.incidentStops)} against the
              settings. The camera sees the surface, its mirror part and the close-focus loss too: {value}.
              {reading.filterStops !== null &&
                `The polariser on the lens takes ${reading.filterStops.toFixed(1)} stops of it. `}
              Uncertainty of the light about {uncertainty(reading)}
              {reading.standardErrorStops === null
                ? '.'
                : `, of the tone ± ${reading.standardErrorStops.toFixed(2)} stops: one standard error of the paths traced so far. ≈ stands before a tone whose tenth is not yet known; it is traced on while the set rests.`}
            </Box>
          </>
        )}
        <TargetFields name={name} />
        <Button size="small" sx={{ mt: 1 }} onClick={() => dispatch(edit(removeSpot(name)))}>
          Unpin {name}
        </Button>
      </Explained>
      {verdict && (
        <Box
          data-testid={`target ${name}`}
          sx={{
            fontSize: '0.75rem',
            pl: 1,
            borderLeft: 3,
            borderColor: verdict.missing === 0 && verdict.stops !== null ? 'primary.main' : 'warning.main',
          }}
        >
          wanted {rangeWords(verdict)}
          {verdict.against ? ` from ${verdict.against}` : ''}:{' '}
          {verdict.stops === null
            ? 'not read'
            : verdict.missing === 0
              ? 'met'
              : `${Math.abs(verdict.missing).toFixed(1)} too ${verdict.missing > 0 ? 'dark' : 'bright'}`}
        </Box>
      )}
    </div>
  );
}

const hiddenOrBlack = (reading: SpotReading): string =>
  reading.lights.some(({ on }) => on) ? 'not seen' : 'black';

function uncertainty({ lights }: SpotReading): string {
  const whole = lights.reduce((sum, { on, reading }) => sum + (on ? reading : 0), 0);
  const error = Math.hypot(...lights.map(({ on, standardError }) => (on ? standardError : 0)));
  return whole > 0 ? `${((100 * error) / whole).toFixed(1)} %` : '0 %';
}
