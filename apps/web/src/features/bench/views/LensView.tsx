import { formatStops, projectPoint, viewOf } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type KeyboardEvent, type MouseEvent, memo, useEffect, useMemo, useRef, useState } from 'react';
import { surround } from '../../../shared/theme';
import { useSession } from '../picture/useSession';
import { benchActions } from '../state/benchSlice';
import { pinSpot } from '../state/edits';
import { useBench, useBenchDispatch, useReadings, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';
import { MirrorOverlayCanvas } from './MirrorOverlayCanvas';
import { MirrorTags } from './MirrorTags';
import { regionTags } from './regionTags';

/** Steps of the pointer by keyboard, parts of the frame. */
const STEP = 0.01;
const WIDE_STEP = 0.05;

/** What the camera would record with these settings, with spots and mirrors on it. */
export const LensView = memo(function LensView() {
  const camera = useSetPart((set) => set.camera);
  const spots = useSetPart((set) => set.spots);
  const dispatch = useBenchDispatch();
  const { session, picture, mirrors } = useSession();
  const showMirrors = useBench((bench) => bench.showMirrors);
  const pinning = useBench((bench) => bench.pinning);
  const pick = useBench((bench) => bench.pick);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(560);
  const [pointer, setPointer] = useState<[number, number] | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const { sensorWidthM, sensorHeightM } = camera.body;
  const height = Math.round((width * sensorHeightM) / sensorWidthM);
  const view = useMemo(() => viewOf(camera), [camera]);
  const tags = useMemo(() => (showMirrors && mirrors ? regionTags(mirrors) : []), [showMirrors, mirrors]);

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      const across = entry ? Math.round(entry.contentRect.width) : 0;
      if (across > 0) setWidth(across);
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  useEffect(() => session?.resize(width), [session, width]);

  useEffect(() => {
    const element = canvas.current;
    if (!picture || !element) return;
    element.width = picture.width;
    element.height = picture.height;
    const context = element.getContext('2d');
    context?.putImageData(new ImageData(picture.pixels, picture.width, picture.height), 0, 0);
  }, [picture]);

  async function pointAt(across: number, down: number) {
    const found = await session?.pick(across, down);
    if (!found) return;
    dispatch(benchActions.picked(found));
    const { kind, key } = found.thing;
    if (pinning) {
      const { pointM, normal } = found;
      dispatch(edit(pinSpot({ name: freeSpotName(spots.map(({ name }) => name)), pointM, normal })));
      dispatch(benchActions.pinningChanged(false));
    } else if (kind === 'light' || kind === 'sheet' || kind === 'product') {
      dispatch(benchActions.selected({ kind, key }));
    }
  }

  function onClick(event: MouseEvent<HTMLElement>) {
    const box = event.currentTarget.getBoundingClientRect();
    void pointAt((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
  }

  function onKeyDown(event: KeyboardEvent) {
    const [across, down] = pointer ?? [0.5, 0.5];
    const step = event.shiftKey ? WIDE_STEP : STEP;
    const kept = (value: number) => Math.min(1, Math.max(0, value));
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [across - step, down],
      ArrowRight: [across + step, down],
      ArrowUp: [across, down - step],
      ArrowDown: [across, down + step],
    };
    const to = moves[event.key];
    if (to) setPointer([kept(to[0]), kept(to[1])]);
    else if (event.key === 'Enter') void pointAt(across, down);
    else return;
    event.preventDefault();
  }

  const place = (point: [number, number, number]) => {
    const at = projectPoint(view, point);
    return at && at[0] >= 0 && at[0] <= 1 && at[1] >= 0 && at[1] <= 1
      ? { x: at[0] * width, y: at[1] * height }
      : null;
  };
  const pickPlace = pick ? place(pick.pointM) : null;

  return (
    <Box ref={frame} sx={{ width: '100%' }}>
      <Box
        data-testid="lens"
        role="application"
        tabIndex={0}
        aria-label="Lens view. Arrow keys move the pointer, with Shift in wide steps; Enter points at the spot"
        onClick={onClick}
        onKeyDown={onKeyDown}
        onBlur={() => setPointer(null)}
        sx={{
          position: 'relative',
          width: '100%',
          height,
          bgcolor: '#3a3a3a',
          cursor: pinning ? 'crosshair' : 'pointer',
          overflow: 'hidden',
        }}
      >
        <canvas
          ref={canvas}
          role="img"
          aria-label="Picture as the camera would record it"
          style={{ width: '100%', height: '100%', display: 'block' }}
        />
        {!picture && (
          <Box
            sx={{
              position: 'absolute',
              inset: 0,
              display: 'grid',
              placeItems: 'center',
              color: surround.quiet,
            }}
          >
            First picture on its way
          </Box>
        )}
        {showMirrors && mirrors && <MirrorOverlayCanvas overlay={mirrors} width={width} height={height} />}
        <svg
          width={width}
          height={height}
          aria-hidden
          style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
        >
          {spots.map((spot) => {
            const at = place(spot.pointM);
            return (
              at && <SpotMark key={spot.name} name={spot.name} x={at.x} y={at.y} flip={at.x > width - 110} />
            );
          })}
          <MirrorTags tags={tags} width={width} height={height} />
          {pointer && <Crosshair x={pointer[0] * width} y={pointer[1] * height} />}
          {pickPlace && (
            <circle
              cx={pickPlace.x}
              cy={pickPlace.y}
              r={7}
              fill="none"
              stroke={surround.accent}
              strokeWidth={2}
            />
          )}
        </svg>
      </Box>
    </Box>
  );
});

/** The pointer of the keyboard. */
function Crosshair({ x, y }: { x: number; y: number }) {
  const lines = `M${x - 12} ${y} h9 M${x + 3} ${y} h9 M${x} ${y - 12} v9 M${x} ${y + 3} v9`;
  return (
    <>
      <path d={lines} stroke="#fff" strokeWidth={4} />
      <path d={lines} stroke="#111" strokeWidth={1.6} />
    </>
  );
}

function SpotMark({ name, x, y, flip }: { name: string; x: number; y: number; flip: boolean }) {
  const readings = useReadings();
  const stops = readings.find((reading) => reading.name === name)?.stopsFromMidTone;
  const text = stops === null || stops === undefined ? name : `${name} ${formatStops(stops)}`;
  return (
    <g transform={`translate(${x} ${y})`}>
      <circle r={4.5} fill="none" stroke="#fff" strokeWidth={3.5} />
      <circle r={4.5} fill="none" stroke="#111" strokeWidth={1.5} />
      <circle r={1.2} fill="#111" />
      <text
        x={flip ? -9 : 9}
        y={4}
        textAnchor={flip ? 'end' : 'start'}
        fontSize={11}
        fontWeight={600}
        stroke="#fff"
        strokeWidth={3}
        paintOrder="stroke"
        fill="#111"
      >
        {text}
      </text>
    </g>
  );
}

function freeSpotName(taken: readonly string[]): string {
  for (let i = 1; ; i++) if (!taken.includes(`spot ${i}`)) return `spot ${i}`;
}

/** Overlays and tools of the lens view, each with its key. */
export const LensTools = memo(function LensTools() {
  const dispatch = useBenchDispatch();
  const showMirrors = useBench((bench) => bench.showMirrors);
  const pinning = useBench((bench) => bench.pinning);
  const { session } = useSession();
  const toggleMirrors = () => {
    dispatch(benchActions.mirrorsToggled());
    session?.showMirrors(!showMirrors);
  };
  return (
    <Box sx={{ display: 'flex', gap: 1 }}>
      <ToolButton letter="M" pressed={showMirrors} onClick={toggleMirrors}>
        mirrors
      </ToolButton>
      <ToolButton
        letter="P"
        pressed={pinning}
        onClick={() => dispatch(benchActions.pinningChanged(!pinning))}
      >
        {pinning ? 'now point at the picture' : 'pin a spot'}
      </ToolButton>
    </Box>
  );
});

interface ToolButtonProps {
  letter: string;
  pressed: boolean;
  onClick(): void;
  children: string;
}

function ToolButton({ letter, pressed, onClick, children }: ToolButtonProps) {
  return (
    <Button
      size="small"
      onClick={onClick}
      aria-pressed={pressed}
      sx={{
        color: pressed ? '#1c1c1c' : surround.text,
        bgcolor: pressed ? surround.paper : '#5a5a5a',
        '&:hover': { bgcolor: pressed ? '#fff' : '#686868' },
        px: 1.25,
        py: 0.25,
      }}
    >
      <Box component="span" className="number" sx={{ mr: 1, color: pressed ? '#17665f' : surround.accent }}>
        {letter}
      </Box>
      {children}
    </Button>
  );
}
