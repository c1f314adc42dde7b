import { formatStops, type SpotReading } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { Explained } from '../../../shared/Explained';
import { removeSpot } from '../state/edits';
import { useBench, useBenchDispatch, useReadings, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';

/** What the camera records at the pinned spots, and what the spot last pointed at mirrors. */
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
      <PickLine />
    </Box>
  );
});

function SpotRow({ name, reading }: { name: string; reading: SpotReading | undefined }) {
  const dispatch = useBenchDispatch();
  const stops = reading?.stopsFromMidTone;
  const value = !reading
    ? '…'
    : stops === null || stops === undefined
      ? hiddenOrBlack(reading)
      : formatStops(stops);
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
              Uncertainty of the light about {uncertainty(reading)}.
            </Box>
          </>
        )}
        <Button size="small" sx={{ mt: 1 }} onClick={() => dispatch(edit(removeSpot(name)))}>
          Unpin {name}
        </Button>
      </Explained>
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

function PickLine() {
  const pick = useBench((bench) => bench.pick);
  if (!pick) return null;
  const mirror =
    pick.weight === 0
      ? 'is matte there and mirrors nothing.'
      : `mirrors ${pick.mirrored ? pick.mirrored.name : 'the dark'} there, ${(100 * pick.weight).toFixed(1)} % of it.`;
  return (
    <Box
      role="status"
      sx={{ mt: 1, fontSize: '0.8125rem', borderLeft: 3, borderColor: 'warning.main', pl: 1 }}
    >
      {pick.thing.name} {mirror}
    </Box>
  );
}
