import { formatStops } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import { setMarks, surround } from '../../../shared/theme';
import type { FromDeveloper, ToneLayer } from '../picture/developProtocol';
import type { FrameWindow } from '../picture/frameWindow';
import { placeInWindow } from './placeInWindow';

interface ToneLayerViewProps {
  picture: FromDeveloper;
  tones: ToneLayer;
  window: FrameWindow;
}

/** A label needs this much room in its step, px of the picture. */
const LABEL_ROOM = 7;

/** Tone steps with their labels, or what is lost with how much of each thing. */
export function ToneLayerView({ picture, tones, window }: ToneLayerViewProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = picture;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    context?.putImageData(new ImageData(tones.pixels, width, height), 0, 0);
  }, [tones, width, height]);
  const place = placeInWindow(picture.window, window);
  return (
    <>
      <canvas ref={canvas} width={width} height={height} aria-hidden style={place} />
      {tones.overlay === 'stops' && (
        <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={stepsInWords(tones)} style={place}>
          {tones.labels
            .filter(({ room }) => room >= LABEL_ROOM)
            .map(({ step, x, y }) => (
              <text
                key={step}
                x={x}
                y={y + (4 * width) / 560}
                textAnchor="middle"
                fontSize={(12 * width) / 560}
                fontWeight={650}
                stroke={surround.ink}
                strokeWidth={3}
                paintOrder="stroke"
                fill={setMarks.light}
              >
                {formatStep(step)}
              </text>
            ))}
        </svg>
      )}
      {tones.overlay === 'clipping' && <LostFigures tones={tones} />}
    </>
  );
}

/** A step by the tones it holds. */
const formatStep = (step: number) => (step === 0 ? '0' : step > 0 ? `+${step}` : `−${-step}`);

const stepsInWords = ({ labels }: ToneLayer) =>
  `Tone steps of one stop, from ${formatStops(labels[0]?.step ?? 0)} to ${formatStops((labels.at(-1)?.step ?? 0) + 1)} from mid-tone`;

const percent = (part: number) => `${(100 * part).toFixed(part < 0.1 ? 1 : 0)} %`;

function LostFigures({ tones: { lost, byThing } }: { tones: ToneLayer }) {
  const products = byThing.filter(
    ({ thing, clipped, black, paper }) => thing.kind === 'product' && clipped + black + paper > 0.0005,
  );
  return (
    <Box
      role="status"
      data-testid="lost"
      sx={{
        position: 'absolute',
        left: 8,
        bottom: 8,
        bgcolor: surround.over,
        color: surround.text,
        fontSize: '0.75rem',
        lineHeight: 1.5,
        px: 1,
        py: 0.5,
        pointerEvents: 'none',
      }}
    >
      <div>
        Crossed lines clip: {percent(lost.clipped)}. Rising lines are paper white: {percent(lost.paper)}.
        Falling lines are black: {percent(lost.black)} of the frame.
      </div>
      {products.map(({ thing, clipped, paper, black }) => (
        <div key={thing.key}>
          {thing.name}: clips {percent(clipped)}, paper white {percent(paper)}, black {percent(black)}
        </div>
      ))}
    </Box>
  );
}
