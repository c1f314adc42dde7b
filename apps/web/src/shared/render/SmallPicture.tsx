import type { SetDocument } from '@fendrix/contract';
import { exposureWeights, traceKey } from '@fendrix/core';
import Box from '@mui/material/Box';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { surround } from '../theme';
import { renderSmall } from './smallRender';

interface SmallPictureProps {
  set: SetDocument;
  /** What it shows; empty where the words beside it say so. */
  label: string;
  /** Pixels across; the height follows from the sensor. */
  width: number;
  samples?: number;
  /** Shown as bright as fits, not as recorded. */
  levelled?: boolean;
  /** See `SmallRenderOptions.kept`. */
  kept?: boolean;
  /** Drawn over the picture, in parts of the frame. */
  children?: ReactNode;
}

/** Time without a change before a picture is begun, ms. */
const REST_MS = 120;

/** A small true picture of a set; the last one stays, dimmed, until the next is there. */
export function SmallPicture({
  set,
  label,
  width,
  samples = 12,
  levelled = true,
  kept = false,
  children,
}: SmallPictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  // What the picture depends on: words and names of the set may change without a new one.
  const key = useMemo(() => `${traceKey(set)} ${exposureWeights(set).join()}`, [set]);
  const latest = useRef(set);
  latest.current = set;
  const [state, setState] = useState<'working' | 'shown' | 'done' | 'failed'>('working');
  const { sensorWidthM, sensorHeightM } = set.camera.body;
  const height = Math.max(1, Math.round((width * sensorHeightM) / sensorWidthM));

  useEffect(() => {
    const abort = new AbortController();
    setState('working');
    const timer = setTimeout(() => {
      const onPicture = (picture: ImageData) => {
        canvas.current?.getContext('2d')?.putImageData(picture, 0, 0);
        setState('shown');
      };
      renderSmall(latest.current, { width, height, samples, signal: abort.signal, levelled, kept, onPicture })
        .then(() => setState('done'))
        .catch(() => {
          if (!abort.signal.aborted) setState('failed');
        });
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [key, width, height, samples, levelled, kept]);

  return (
    <Box
      sx={{
        position: 'relative',
        bgcolor: surround.page,
        lineHeight: 0,
        aspectRatio: `${width} / ${height}`,
      }}
      data-testid="small-picture"
      data-state={state}
    >
      <Box
        component="canvas"
        ref={canvas}
        width={width}
        height={height}
        {...(label === '' ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
        sx={{ width: '100%', opacity: state === 'working' ? 0.45 : 1, transition: 'opacity 120ms' }}
      />
      {children && (
        <Box
          component="svg"
          viewBox={`0 0 ${width} ${height}`}
          sx={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
          aria-hidden
        >
          {children}
        </Box>
      )}
      {state === 'failed' && (
        <Box role="alert" sx={{ position: 'absolute', inset: 8, color: surround.text, lineHeight: 1.4 }}>
          This picture could not be made.
        </Box>
      )}
    </Box>
  );
}
