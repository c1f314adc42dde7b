import { type FieldTrace, fieldFigures, fieldStops, formatStops, traceKey } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import { Explained } from '../../../shared/Explained';
import { useSession } from '../picture/useSession';
import { benchActions } from '../state/benchSlice';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';
import { tellFailure } from '../state/tellFailure';

const PLACES = { across: 12, down: 8, samples: 128 };
const REST_MS = 300;

/** How even the field marked in the picture is, path-traced at 96 places, not read off the screen. */
export function FieldEvenness() {
  const set = useSet();
  const rect = useBench((bench) => bench.field);
  const session = useSession();
  const dispatch = useBenchDispatch();
  const [read, setRead] = useState<{ key: string; field: FieldTrace | null } | null>(null);
  const key = useMemo(() => (rect ? traceKey(set) : ''), [set, rect]);

  useEffect(() => {
    if (!rect || !session) return;
    let current = true;
    const timer = setTimeout(() => {
      session
        .ask({ kind: 'field', rect, ...PLACES })
        .then((found) => {
          if (current) setRead({ key, field: found });
        })
        .catch((error: unknown) => {
          if (current) tellFailure('The evenness of the field', error);
        });
    }, REST_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [rect, session, key]);

  if (!rect) return null;
  // Of a set that has moved since, the figures are those from before.
  const field = read?.key === key ? read.field : null;
  const figures = field ? fieldFigures(field, fieldStops(set, field)) : null;
  return (
    <Box component="section" aria-label="Marked field" sx={{ mt: 1.5 }} data-testid="field">
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Box component="h2" sx={{ m: 0, flex: 1, fontSize: '0.8125rem', fontWeight: 650 }}>
          Marked field
        </Box>
        <Button size="small" sx={{ py: 0 }} onClick={() => dispatch(benchActions.fieldMarked(null))}>
          Clear
        </Button>
      </Box>
      {!figures && <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>Being read</Box>}
      {figures && (
        <>
          <Explained label="mean" value={formatStops(figures.meanStops)}>
            Mean luminance of {PLACES.across * PLACES.down} places, {PLACES.samples} paths each, from
            mid-tone.
          </Explained>
          <Explained label="brightest over darkest" value={`${figures.rangeStops.toFixed(2)} stops`}>
            Means of blocks of four places, from {formatStops(figures.leastStops)} to{' '}
            {formatStops(figures.mostStops)}. Up to a third of a stop looks even; a dark background shows
            less.
          </Explained>
          <Explained
            label="left · right"
            value={`${stopsOf(figures.halves.left)} · ${stopsOf(figures.halves.right)}`}
          >
            Means of the two halves. Turn the light to the dark side, or put a white card there.
          </Explained>
          <Explained
            label="top · bottom"
            value={`${stopsOf(figures.halves.top)} · ${stopsOf(figures.halves.bottom)}`}
          >
            Means of the two halves.
          </Explained>
        </>
      )}
    </Box>
  );
}

const stopsOf = (stops: number | null) => (stops === null ? '–' : formatStops(stops));
