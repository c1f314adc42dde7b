import type { StoredSet } from '@fendrix/contract';
import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';
import Slider from '@mui/material/Slider';
import { useState } from 'react';
import { Choice } from '../../shared/Choice';
import { frameUrl } from '../../shared/frameUrl';
import { Section } from '../../shared/Section';
import { rebuildApi } from './rebuildApi';

/** The watched folder is looked at again so often, ms. */
const LOOK_AGAIN_MS = 2000;
const WHOLE = {
  position: 'absolute',
  inset: 0,
  width: '100%',
  height: '100%',
  objectFit: 'contain',
} as const;
const planUrl = ({ id, revision }: StoredSet) => `/api/sets/${id}/sheet/picture?revision=${revision}`;

/** The old picture over what the camera sees now, at half its strength: base line, size and highlights are brought to meet. */
export function LaidOver({
  set,
  old,
  frame,
}: {
  set: StoredSet;
  old: StoredSet | null;
  frame: string | null;
}) {
  const { data } = rebuildApi.useNewestFrameQuery(undefined, { pollingInterval: LOOK_AGAIN_MS });
  const newest = data?.frames[0];
  const [below, setBelow] = useState<'newest' | 'plan'>('plan');
  const [part, setPart] = useState(50);
  const [shown, setShown] = useState<ReadonlySet<string>>(new Set());
  const noteShown = (url: string) => setShown((now) => new Set(now).add(url));
  const above = frame ? frameUrl(frame, 'large') : old ? planUrl(old) : null;
  const { sensorWidthM, sensorHeightM } = set.document.camera.body;
  const under = below === 'plan' ? planUrl(set) : newest ? frameUrl(newest.id, 'large') : null;
  const isComing = [under, above].some((url) => url !== null && !shown.has(url));
  return (
    <Section title="The old picture laid over">
      {above === null ? (
        <Box sx={{ color: 'text.secondary' }}>
          Come here by <em>Rebuild with another product</em> of an old set or of a frame of the log: its
          picture lies over the new one then.
        </Box>
      ) : (
        <>
          <Choice
            shown
            label="Over"
            value={below}
            options={[
              { value: 'plan', words: 'the new set as planned' },
              {
                value: 'newest',
                words: newest ? `the newest frame, ${newest.name}` : 'the newest frame: none yet',
              },
            ]}
            onChoose={setBelow}
          />
          <Box
            sx={{
              position: 'relative',
              aspectRatio: `${sensorWidthM} / ${sensorHeightM}`,
              bgcolor: 'action.hover',
              overflow: 'hidden',
              mt: 1,
            }}
          >
            {under !== null && (
              <Box
                component="img"
                src={under}
                alt={below === 'plan' ? 'The new set as planned' : `The newest frame, ${newest?.name}`}
                sx={WHOLE}
                onLoad={() => noteShown(under)}
              />
            )}
            <Box
              component="img"
              src={above}
              alt={frame ? 'The old frame' : 'The old set as planned'}
              sx={{ ...WHOLE, opacity: part / 100 }}
              onLoad={() => noteShown(above)}
            />
          </Box>
          {isComing && (
            <Box role="status" sx={{ fontSize: '0.75rem' }}>
              The pictures are being traced: some ten to thirty seconds.
              <LinearProgress aria-label="The pictures are being traced" />
            </Box>
          )}
          <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', fontSize: '0.75rem', mt: 0.5 }}>
            new
            <Slider
              size="small"
              aria-label="How strongly the old picture is seen"
              value={part}
              onChange={(_, value) => setPart(value as number)}
            />
            old
          </Box>
        </>
      )}
    </Section>
  );
}
