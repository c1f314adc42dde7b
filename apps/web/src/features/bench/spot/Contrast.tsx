import { formatStops, keyToFill, type SpotReading } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { Choice } from '../../../shared/Choice';
import { Explained } from '../../../shared/Explained';
import { useSetPart } from '../state/hooks';

/** Contrast between two spots, such as an edge and the ground behind it, and key to fill at the first of them. */
export function Contrast({ readings }: { readings: readonly SpotReading[] }) {
  const lights = useSetPart((set) => set.lights);
  const [names, setNames] = useState<[string, string]>(['', '']);
  const [key, setKey] = useState('');
  const seen = readings.filter(({ stopsFromMidTone }) => stopsFromMidTone !== null);
  if (seen.length < 2) return null;
  const one = seen.find(({ name }) => name === names[0]) ?? seen[0];
  const other =
    seen.find(({ name }) => name === names[1] && name !== one?.name) ??
    seen.find(({ name }) => name !== one?.name);
  if (!one || !other) return null;
  const stops = (one.stopsFromMidTone ?? 0) - (other.stopsFromMidTone ?? 0);
  const on = lights.filter((light) => light.on);
  const keyTag = on.some(({ tag }) => tag === key) ? key : brightestAt(one);
  const ratio = keyTag ? keyToFill(one, keyTag) : null;
  return (
    <Box component="section" aria-label="Contrast" sx={{ mt: 1.5 }}>
      <Box component="h2" sx={{ m: 0, fontSize: '0.8125rem', fontWeight: 650 }}>
        Contrast
      </Box>
      <Box
        sx={{
          display: 'flex',
          gap: 0.5,
          alignItems: 'center',
          fontSize: '0.8125rem',
          '& .MuiInputBase-root': { minWidth: 0, flex: 1 },
        }}
      >
        <Choice
          label="First spot"
          value={one.name}
          options={seen.map(({ name }) => name)}
          onChoose={(name) => setNames([name, other.name])}
        />
        over
        <Choice
          label="Second spot"
          value={other.name}
          options={seen.map(({ name }) => name).filter((name) => name !== one.name)}
          onChoose={(name) => setNames([one.name, name])}
        />
      </Box>
      <Explained label="separation" value={`${formatStops(stops)} · ${ratioWords(2 ** Math.abs(stops))}`}>
        {one.name} is recorded {formatStops(one.stopsFromMidTone ?? 0)}, {other.name}{' '}
        {formatStops(other.stopsFromMidTone ?? 0)} from mid-tone. Below half a stop an edge sinks into the
        background; a full stop holds it apart.
      </Explained>
      {on.length > 1 && ratio && (
        <>
          <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center', fontSize: '0.8125rem' }}>
            key light
            <Choice
              label="Key light"
              value={keyTag ?? ''}
              options={on.map(({ tag }) => tag)}
              onChoose={setKey}
            />
          </Box>
          <Explained
            label={`key to fill at ${one.name}`}
            value={
              Number.isFinite(ratio.ratio)
                ? `${ratioWords(ratio.ratio)} · ${formatStops(ratio.stops)}`
                : 'no fill'
            }
          >
            Key and fill together over the fill alone; the fill is all light here that is not the key's,
            bounced light of the others too. 2 : 1 is soft, 4 : 1 shapes, 8 : 1 is hard.
          </Explained>
        </>
      )}
    </Box>
  );
}

const ratioWords = (ratio: number) => `${ratio < 10 ? ratio.toFixed(1) : Math.round(ratio)} : 1`;

function brightestAt({ lights }: SpotReading): string | null {
  const on = lights.filter((light) => light.on);
  return [...on].sort((a, b) => b.reading - a.reading)[0]?.tag ?? null;
}
