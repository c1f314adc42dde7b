import type { ReadMeter, SetDocument } from '@fendrix/contract';
import { formatStops } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { failureMessage } from '../../shared/api';
import { Choice } from '../../shared/Choice';
import { Section } from '../../shared/Section';
import { devicesApi } from './devicesApi';
import type { WorkedFrame } from './frame';

/** The stand-in meter, held at a pinned spot of what stands, or pointed at it from the lens. */
export function MeterDesk({ frame, set }: { frame: WorkedFrame; set: SetDocument | undefined }) {
  const [chosen, setChosen] = useState('');
  const [how, setHow] = useState<NonNullable<ReadMeter['how']>>('incident');
  const [light, setLight] = useState<NonNullable<ReadMeter['light']>>('all');
  const [read, { data: reading, isLoading, error, originalArgs }] = devicesApi.useReadMeterMutation();
  const spots = set?.spots ?? [];
  const spot = spots.find(({ name }) => name === chosen) ?? spots[0];
  if (!spot)
    return (
      <Section title="Meter">
        No spot is pinned on the set of this picture: pin one on its bench, then read the meter there.
      </Section>
    );
  const words = (stops: number | null) => (stops === null ? 'dark' : formatStops(stops));
  const isOfNow =
    originalArgs?.spot === spot.name && originalArgs.how === how && originalArgs.light === light;
  return (
    <Section title="Meter">
      <Choice
        shown
        label="At"
        value={spot.name}
        options={spots.map(({ name }) => ({ value: name, words: name }))}
        onChoose={setChosen}
      />
      <Choice
        shown
        label="Reads"
        value={how}
        options={[
          { value: 'incident', words: 'the light that falls there' },
          { value: 'reflected', words: 'its tone from the lens' },
        ]}
        onChoose={setHow}
      />
      <Choice
        shown
        label="Of"
        value={light}
        options={[
          { value: 'all', words: 'flash and ambient' },
          { value: 'ambient', words: 'ambient alone' },
        ]}
        onChoose={setLight}
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center', mt: 1 }}>
        <Button
          size="small"
          variant="outlined"
          disabled={isLoading}
          onClick={() => void read({ ...frame, spot: spot.name, how, light })}
        >
          {isLoading ? 'Being read' : 'Read the meter'}
        </Button>
        {reading && !isLoading && isOfNow && (
          <span role="status">
            {reading.spot}: <span className="number">{words(reading.stops)}</span>{' '}
            {how === 'incident' ? 'against the settings' : 'from mid-tone'}, planned{' '}
            <span className="number">{words(reading.plannedStops)}</span>
          </span>
        )}
      </Box>
      {error && !isLoading && <Alert severity="warning">{failureMessage(error)}</Alert>}
    </Section>
  );
}
