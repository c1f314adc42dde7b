import type { SetDocument } from '@fendrix/contract';
import {
  CLIP_STOPS,
  encodeSrgb,
  lightLuminance,
  MID_TONE,
  PAPER_WHITE_STOPS,
  type TargetVerdict,
  targetVerdicts,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, memo, useMemo, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { arrowMove } from '../../../shared/arrowKeys';
import { Choice } from '../../../shared/Choice';
import { svgPoint } from '../../../shared/svgPoint';
import { setMarks, surround } from '../../../shared/theme';
import { useSize } from '../../../shared/useSize';
import { toneWords } from '../spot/toneWords';
import { benchSet, type WithBench } from '../state/benchSlice';
import { useBenchDispatch, useReadings, useSetPart } from '../state/hooks';
import { type ShiftBy, shiftExposure } from '../state/shiftExposure';
import { edit } from '../state/thunks';

const FROM = -7;
const TO = 4;
const FIRST_SIZE = { width: 908, height: 88 };
/** Kept free at both ends of the scale, px. */
const END = 14;
const BAR = { y: 44, height: 18 };
const ROW = 13;
const HEIGHT = 88;
const STEP = 1 / 3;
const WAYS: readonly ShiftBy[] = ['shutter', 'ISO', 'f-stop', 'all powers'];

/** Place of a tone along a scale so many px wide. */
const along = (width: number) => (stops: number) =>
  ((Math.min(TO, Math.max(FROM, stops)) - FROM) / (TO - FROM)) * width;
type Across = (stops: number) => number;

let gestures = 0;

interface RulerSpot {
  name: string;
  stops: number;
  words: string;
}

/**
 * The pinned spots on one scale, black to clipping, in stops from mid-tone, with the tones wanted there. The scale can
 * be slid: that changes the exposure, by a setting of choice.
 */
export const StopRuler = memo(function StopRuler() {
  const store = useStore<WithBench>();
  const pinned = useSetPart((set) => set.spots);
  const flash = useSetPart(({ lights }) =>
    lights.some((light) => light.on && lightLuminance(light).time === 'flash'),
  );
  const readings = useReadings();
  const dispatch = useBenchDispatch();
  const [chosen, setChosen] = useState<ShiftBy | null>(null);
  const by = chosen ?? (flash ? 'all powers' : 'shutter');
  const svg = useRef<SVGSVGElement>(null);
  const width = Math.max(120, useSize(svg, FIRST_SIZE).width - 2 * END);
  const across = useMemo(() => along(width), [width]);
  const start = useRef<{ set: SetDocument; x: number; gesture: string } | null>(null);
  const current = () => benchSet.documentOf(store.getState());
  const spots = readings
    .filter(({ stopsFromMidTone }) => stopsFromMidTone !== null)
    .map((reading) => ({
      name: reading.name,
      stops: reading.stopsFromMidTone ?? 0,
      words: `${reading.name} ${toneWords(reading)}`,
    }))
    .sort((a, b) => a.stops - b.stops);
  const targets = targetVerdicts(pinned, readings);
  const steps = Array.from({ length: (TO - FROM) * 3 }, (_, i) => FROM + i / 3);

  const bind = useDrag(
    ({ first, xy: [clientX, clientY] }) => {
      const point = svgPoint(svg.current, clientX, clientY);
      const set = current();
      if (!point || !set) return;
      if (first) start.current = { set, x: point[0], gesture: `ruler ${++gestures}` };
      const from = start.current;
      if (!from || first) return;
      const stops = ((point[0] - from.x) / width) * (TO - FROM);
      dispatch(edit(shiftExposure(from.set, by, stops), from.gesture));
    },
    { pointer: { keys: false } },
  );
  function onKeyDown(event: KeyboardEvent) {
    const move = arrowMove(event, { plain: STEP, wide: 1 });
    const set = current();
    if (move && set) dispatch(edit(shiftExposure(set, by, move[0] || move[1]), `ruler keys ${by}`));
  }

  return (
    <Box
      component="section"
      aria-label="Stop ruler"
      sx={{ minWidth: 0, flex: '1 1 300px', display: 'flex', gap: 1, alignItems: 'center' }}
    >
      <Box
        component="label"
        sx={{ color: surround.quiet, fontSize: '0.75rem', display: 'grid', gap: 0.25, flex: 'none' }}
      >
        slides
        <Choice label="The ruler slides" onSurround value={by} options={WAYS} onChoose={setChosen} />
      </Box>
      <svg
        ref={svg}
        role="group"
        aria-label="Tones from black to clipping"
        viewBox={`${-END} 0 ${width + 2 * END} ${HEIGHT}`}
        width="100%"
        height={HEIGHT}
        style={{ display: 'block', touchAction: 'none', cursor: 'ew-resize' }}
      >
        <g
          role="slider"
          tabIndex={0}
          aria-label={`Exposure, slid by ${by}`}
          aria-valuemin={FROM}
          aria-valuemax={TO}
          aria-valuenow={Math.round(10 * (spots[0]?.stops ?? 0)) / 10}
          aria-valuetext={inWords(spots)}
          {...bind()}
          onKeyDown={onKeyDown}
        >
          <rect x={-END} y={0} width={width + 2 * END} height={HEIGHT} fill="transparent" />
          {steps.map((stops) => (
            <rect
              key={stops}
              x={across(stops)}
              y={BAR.y}
              width={width / steps.length + 0.5}
              height={BAR.height}
              fill={tone(stops + 1 / 6)}
            />
          ))}
          <rect x={0} y={BAR.y} width={width} height={BAR.height} fill="none" stroke={surround.ink} />
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
          <Limit
            across={across}
            stops={PAPER_WHITE_STOPS}
            name="paper white"
            y={66}
            colour={surround.quiet}
          />
          <Limit across={across} stops={CLIP_STOPS} name="sensor clips" y={66} colour={surround.caution} />
          {targets.map((target) => (
            <TargetBracket key={target.name} across={across} target={target} base={baseOf(target, spots)} />
          ))}
          {placed(spots, across).map(({ name, stops, words, row, leftwards }) => (
            <g key={name} fill={surround.text} stroke="none" pointerEvents="none">
              <path
                d={`M${across(stops)} ${row * ROW + 3} V${BAR.y + BAR.height / 2}`}
                stroke={surround.text}
              />
              <circle
                cx={across(stops)}
                cy={BAR.y + BAR.height / 2}
                r={4}
                fill={surround.accent}
                stroke={setMarks.dark}
              />
              <text
                x={across(stops) + (leftwards ? -4 : 4)}
                y={row * ROW + 11}
                fontSize={11}
                textAnchor={leftwards ? 'end' : 'start'}
              >
                {words}
              </text>
            </g>
          ))}
        </g>
      </svg>
    </Box>
  );
});

/** Tone that a target is counted from; null where its spot is not read. */
function baseOf(
  { against }: TargetVerdict,
  spots: readonly { name: string; stops: number }[],
): number | null {
  return against === null ? 0 : (spots.find(({ name }) => name === against)?.stops ?? null);
}

/** The range of tones wanted at a spot, under the bar. */
function TargetBracket({
  across,
  target,
  base,
}: {
  across: Across;
  target: TargetVerdict;
  base: number | null;
}) {
  if (base === null) return null;
  const [x0, x1] = [across(base + target.from), across(base + target.to)];
  const met = target.missing === 0 && target.stops !== null;
  const colour = met ? surround.accent : surround.caution;
  const y = BAR.y + BAR.height + 2;
  return (
    <path
      d={`M${x0} ${y} v5 H${x1} v-5`}
      fill="none"
      stroke={colour}
      strokeWidth={2}
      strokeDasharray={met ? '' : '4 2'}
      pointerEvents="none"
    >
      <title>{`wanted at ${target.name}`}</title>
    </path>
  );
}

function Limit({
  across,
  stops,
  name,
  y,
  colour,
}: {
  across: Across;
  stops: number;
  name: string;
  y: number;
  colour: string;
}) {
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
        fontSize={11}
        fill={colour}
      >
        {name}
      </text>
    </g>
  );
}

/** Names get a row of their own where they would run into each other, and run leftwards where the ruler ends. */
function placed(spots: RulerSpot[], across: Across) {
  const ends = [-Infinity, -Infinity, -Infinity];
  return spots.map((spot) => {
    const line = across(spot.stops);
    const length = 6.5 * spot.words.length;
    const leftwards = line + length > across(TO);
    const start = leftwards ? line - length : line;
    const lowestFree = [2, 1, 0].find((candidate) => start > (ends[candidate] as number));
    const row = lowestFree ?? ends.indexOf(Math.min(...ends));
    ends[row] = start + length;
    return { ...spot, row, leftwards };
  });
}

function tone(stops: number): string {
  const value = Math.round(255 * encodeSrgb(Math.min(1, MID_TONE * 2 ** stops)));
  return `rgb(${value} ${value} ${value})`;
}

function inWords(spots: RulerSpot[]): string {
  if (spots.length === 0) return 'No spot is pinned';
  return `Stops from mid-tone: ${spots.map(({ words }) => words).join(', ')}`;
}
