import type { Frame } from '@fendrix/contract';
import { decodeSrgb, differenceStops } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import { useEffect, useRef, useState } from 'react';
import { frameUrl } from '../../../shared/frameUrl';
import { BLINK_MS, differenceWords, paintDifference } from '../../../shared/render/difference';

const MODES = { wipe: 'wipe', blink: 'blink', difference: 'difference in stops' } as const;
type Mode = keyof typeof MODES;

const WHOLE = { position: 'absolute', inset: 0, width: '100%', height: '100%', objectFit: 'fill' } as const;
interface Props {
  frame: Frame;
  /** Of the plan: another one has another picture. */
  setRevision: number;
}

const planUrl = ({ frame, setRevision }: Props): string => `/api/frames/${frame.id}/plan?of=${setRevision}`;

/** The frame and its plan: one wiped over the other, in turn, or as their difference. */
export function FrameBesidePlan({ frame, setRevision }: Props) {
  const [mode, setMode] = useState<Mode>('wipe');
  const [part, setPart] = useState(50);
  const [isPlan, setIsPlan] = useState(false);
  useEffect(() => {
    if (mode !== 'blink') return;
    const timer = setInterval(() => setIsPlan((now) => !now), BLINK_MS);
    return () => clearInterval(timer);
  }, [mode]);
  const shownPart = mode === 'wipe' ? part : isPlan ? 0 : 100;
  return (
    <Box sx={{ mt: 1 }}>
      <Box role="group" aria-label="Frame and plan" sx={{ display: 'flex', gap: 0.5, mb: 0.5 }}>
        {(Object.keys(MODES) as Mode[]).map((own) => (
          <Button key={own} size="small" aria-pressed={own === mode} onClick={() => setMode(own)}>
            {MODES[own]}
          </Button>
        ))}
      </Box>
      {mode === 'difference' ? (
        <Difference frame={frame} setRevision={setRevision} />
      ) : (
        <Box
          sx={{
            position: 'relative',
            aspectRatio: `${frame.widthPx} / ${frame.heightPx}`,
            overflow: 'hidden',
          }}
        >
          <Box component="img" src={planUrl({ frame, setRevision })} alt="The plan" sx={WHOLE} />
          <Box
            component="img"
            src={frameUrl(frame.id, 'large')}
            alt="The frame"
            sx={{ ...WHOLE, clipPath: `inset(0 ${100 - shownPart}% 0 0)` }}
          />
        </Box>
      )}
      {mode === 'wipe' && (
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', fontSize: '0.75rem' }}>
          frame
          <Slider
            size="small"
            aria-label="Frame wiped over its plan"
            value={part}
            onChange={(_, value) => setPart(value as number)}
          />
          plan
        </Box>
      )}
      {mode === 'blink' && (
        <Box role="status" aria-live="off" sx={{ fontSize: '0.75rem' }}>
          {isPlan ? 'plan' : 'frame'}
        </Box>
      )}
    </Box>
  );
}

/** As wide as the plan is traced, px. */
const WIDE = 480;

/** From the plan to the frame, as its set is exposed. */
function Difference({ frame, setRevision }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [words, setWords] = useState('The difference is being worked out.');
  const height = Math.round((WIDE * frame.heightPx) / frame.widthPx);
  useEffect(() => {
    let here = true;
    Promise.all(
      [planUrl({ frame, setRevision }), frameUrl(frame.id, 'large')].map((url) =>
        linearOf(url, WIDE, height),
      ),
    )
      .then(([plan, own]) => {
        if (!here || !plan || !own) return;
        const stops = new Float32Array(WIDE * height);
        differenceStops(stops, plan, own);
        canvas.current?.getContext('2d')?.putImageData(paintDifference(stops, WIDE, height), 0, 0);
        setWords(`From plan to frame: ${differenceWords(stops)}`);
      })
      .catch(() => {
        if (here) setWords('The difference cannot be shown: one of the two pictures is not there.');
      });
    return () => {
      here = false;
    };
  }, [frame, height, setRevision]);
  return (
    <>
      <canvas
        ref={canvas}
        width={WIDE}
        height={height}
        role="img"
        aria-label="Difference of the frame from its plan, in stops"
        style={{ width: '100%', display: 'block' }}
      />
      <Box role="status" sx={{ fontSize: '0.75rem' }}>
        {words}
      </Box>
    </>
  );
}

const LINEAR = Float32Array.from({ length: 256 }, (_, value) => decodeSrgb(value / 255));

/** A picture as linear light of a size, red, green, blue; the curve is taken to be sRGB. */
async function linearOf(url: string, width: number, height: number): Promise<Float32Array> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error('the picture is not there');
  const bitmap = await createImageBitmap(await answer.blob());
  const context = new OffscreenCanvas(width, height).getContext('2d');
  if (!context) throw new Error('pictures cannot be drawn');
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const { data } = context.getImageData(0, 0, width, height);
  return Float32Array.from({ length: width * height * 3 }, (_, i) => {
    const value = data[4 * Math.floor(i / 3) + (i % 3)] as number;
    return LINEAR[value] as number;
  });
}
