import { CLIP_STOPS, encodeSrgb, formatStops, MID_TONE, PAPER_WHITE_STOPS } from '@fendrix/core';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { surround } from '../../../shared/theme';
import { useReadings } from '../state/hooks';

const FROM = -7;
const TO = 4;
const WIDTH = 880;
const BAR = { y: 44, height: 18 };
const ROW = 13;

const across = (stops: number) => ((Math.min(TO, Math.max(FROM, stops)) - FROM) / (TO - FROM)) * WIDTH;

/** The pinned spots on one scale, black to clipping, in stops from mid-tone. */
export const StopRuler = memo(function StopRuler() {
  const spots = useReadings()
    .filter(({ stopsFromMidTone }) => stopsFromMidTone !== null)
    .map(({ name, stopsFromMidTone }) => ({ name, stops: stopsFromMidTone ?? 0 }))
    .sort((a, b) => a.stops - b.stops);
  const steps = Array.from({ length: (TO - FROM) * 3 }, (_, i) => FROM + i / 3);
  return (
    <Box component="section" aria-label="Stop ruler" sx={{ minWidth: 0, flex: '1 1 300px' }}>
      <svg
        viewBox={`-14 0 ${WIDTH + 28} 88`}
        width="100%"
        style={{ maxHeight: 88, display: 'block' }}
        role="img"
        aria-label={inWords(spots)}
      >
        {steps.map((stops) => (
          <rect
            key={stops}
            x={across(stops)}
            y={BAR.y}
            width={WIDTH / steps.length + 0.5}
            height={BAR.height}
            fill={tone(stops + 1 / 6)}
          />
        ))}
        <rect x={0} y={BAR.y} width={WIDTH} height={BAR.height} fill="none" stroke="#1a1a1a" />
        {Array.from({ length: TO - FROM + 1 }, (_, i) => FROM + i).map((stops) => (
          <text
            key={stops}
            x={across(stops)}
            y={82}
            textAnchor="middle"
            fontSize={11}
            fontFamily='"JetBrains Mono Variable", monospace'
            fill={surround.quiet}
          >
            {stops > 0 ? `+${stops}` : stops < 0 ? `−${-stops}` : '0'}
          </text>
        ))}
        <Limit stops={PAPER_WHITE_STOPS} name="paper white" y={66} colour={surround.quiet} />
        <Limit stops={CLIP_STOPS} name="sensor clips" y={66} colour={surround.caution} />
        {placed(spots).map(({ name, stops, row }) => (
          <g key={name} fill={surround.text} stroke="none">
            <path
              d={`M${across(stops)} ${row * ROW + 3} V${BAR.y + BAR.height / 2}`}
              stroke={surround.text}
            />
            <circle
              cx={across(stops)}
              cy={BAR.y + BAR.height / 2}
              r={4}
              fill={surround.accent}
              stroke="#111"
            />
            <text x={across(stops) + 4} y={row * ROW + 11} fontSize={11}>
              {name} {formatStops(stops)}
            </text>
          </g>
        ))}
      </svg>
    </Box>
  );
});

function Limit({ stops, name, y, colour }: { stops: number; name: string; y: number; colour: string }) {
  const right = stops > 3;
  return (
    <g>
      <path
        d={`M${across(stops)} ${BAR.y - 3} V${y + 4}`}
        stroke={colour}
        strokeWidth={1.5}
        strokeDasharray={right ? '' : '3 2'}
      />
      <text
        x={across(stops) + (right ? 4 : -4)}
        y={y + 5}
        textAnchor={right ? 'start' : 'end'}
        fontSize={10}
        fill={colour}
      >
        {name}
      </text>
    </g>
  );
}

/** Names get a row of their own where they would run into each other. */
function placed(spots: { name: string; stops: number }[]) {
  const ends = [-Infinity, -Infinity, -Infinity];
  return spots.map((spot) => {
    const start = across(spot.stops);
    const lowestFree = [2, 1, 0].find((candidate) => start > (ends[candidate] as number));
    const row = lowestFree ?? ends.indexOf(Math.min(...ends));
    ends[row] = start + 6.5 * (spot.name.length + 5);
    return { ...spot, row };
  });
}

function tone(stops: number): string {
  const value = Math.round(255 * encodeSrgb(Math.min(1, MID_TONE * 2 ** stops)));
  return `rgb(${value} ${value} ${value})`;
}

function inWords(spots: { name: string; stops: number }[]): string {
  if (spots.length === 0) return 'No spot is pinned';
  return `Stops from mid-tone: ${spots.map(({ name, stops }) => `${name} ${formatStops(stops)}`).join(', ')}`;
}
