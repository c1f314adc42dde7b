import { traceKey } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useRef, useState } from 'react';
import { renderSmall } from '../../../shared/render/smallRender';
import { surround } from '../../../shared/theme';
import { useBench, useSet } from '../state/hooks';
import { tellFailure } from '../state/tellFailure';

const WIDTH = 208;
const HEIGHT = 132;
const SAMPLES = 24;
const REST_MS = 500;

/** The pixels of the sensor round the spot pointed at, one by one, with the blur of focus and f-stop. */
export function Loupe() {
  const at = useBench((bench) => bench.pickAt);
  const whole = useSet();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [shown, setShown] = useState(false);
  const set = useMemo(
    () => ({ ...whole, takes: [], camera: { ...whole.camera, depthOfField: true } }),
    [whole],
  );
  const key = useMemo(() => traceKey(set), [set]);
  const latest = useRef(set);
  latest.current = set;
  const { pixelsWide, pixelsHigh } = set.camera.body;

  useEffect(() => {
    if (!at) return;
    setShown(false);
    const abort = new AbortController();
    const timer = setTimeout(() => {
      const start = (size: number, room: number, part: number) =>
        Math.round(Math.max(0, Math.min(room - size, part * room - size / 2)));
      const part = {
        x: start(WIDTH, pixelsWide, at[0]),
        y: start(HEIGHT, pixelsHigh, at[1]),
        width: WIDTH,
        height: HEIGHT,
      };
      renderSmall(latest.current, {
        width: pixelsWide,
        height: pixelsHigh,
        part,
        samples: SAMPLES,
        signal: abort.signal,
        levelled: false,
        onPicture: (picture) => {
          canvas.current?.getContext('2d')?.putImageData(picture, 0, 0);
          setShown(true);
        },
      }).catch((error: unknown) => {
        if (!abort.signal.aborted) tellFailure('The picture at full size', error);
      });
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [at, key, pixelsWide, pixelsHigh]);

  if (!at) return null;
  return (
    <Box component="figure" sx={{ m: 0, mt: 1 }} data-testid="loupe" data-shown={shown ? 'yes' : 'no'}>
      <Box
        component="canvas"
        ref={canvas}
        width={WIDTH}
        height={HEIGHT}
        role="img"
        aria-label="Loupe: pixels of the sensor round the spot"
        sx={{
          width: WIDTH,
          height: HEIGHT,
          display: 'block',
          bgcolor: surround.sunken,
          opacity: shown ? 1 : 0.4,
        }}
      />
      <Box component="figcaption" sx={{ color: 'text.secondary', fontSize: '0.6875rem' }}>
        Pixels of the sensor, 1 : 1, with the blur of this focus and f-stop
      </Box>
    </Box>
  );
}
