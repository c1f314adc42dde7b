import type { Frame } from '@fendrix/contract';
import Box from '@mui/material/Box';
import { FrameThumbnail } from '../../../shared/FrameThumbnail';

const MARKS: Readonly<Record<Frame['state'], string>> = { new: '', kept: 'kept', rejected: 'not kept' };

/** Frames of one picture, small. */
export function FrameGrid({
  name,
  frames,
  chosen,
  onChoose,
}: {
  name: string;
  frames: readonly Frame[];
  chosen: string | null;
  onChoose(id: string): void;
}) {
  return (
    <Box component="section" aria-label={name} sx={{ mb: 2 }}>
      <Box component="h3" sx={{ fontSize: '0.875rem', m: 0, mb: 0.5 }}>
        {name} <span className="number">{frames.length}</span>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(128px, 1fr))', gap: 0.75 }}>
        {frames.map((frame) => {
          const { id, state, starred, gone } = frame;
          const isChosen = id === chosen;
          return (
            <Box
              key={id}
              component="button"
              type="button"
              aria-pressed={isChosen}
              aria-label={`${frame.name}${MARKS[state] && `, ${MARKS[state]}`}${starred ? ', starred' : ''}`}
              onClick={() => onChoose(id)}
              sx={{
                p: 0.25,
                font: 'inherit',
                color: 'inherit',
                textAlign: 'left',
                bgcolor: 'transparent',
                border: 2,
                borderColor: isChosen ? 'primary.main' : 'transparent',
                cursor: 'pointer',
              }}
            >
              <FrameThumbnail id={id} faint={state === 'rejected'} />
              <Box
                sx={{
                  fontSize: '0.6875rem',
                  overflow: 'hidden',
                  textOverflow: 'ellipsis',
                  whiteSpace: 'nowrap',
                }}
              >
                {starred && '★ '}
                {state !== 'new' && <strong>{MARKS[state]} </strong>}
                {frame.name.split('/').at(-1)}
                {gone && ' (file gone)'}
              </Box>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
