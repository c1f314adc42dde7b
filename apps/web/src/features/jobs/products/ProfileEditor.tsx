import type { ProductOf, ProfilePoint } from '@fendrix/contract';
import { formatLength, outlinePieces, parseLengthM } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, type RefObject, useRef, useState } from 'react';
import { arrowMove } from '../../../shared/arrowKeys';
import { FileButton } from '../../../shared/FileButton';
import { QuantityField } from '../../../shared/QuantityField';
import { svgPoint } from '../../../shared/svgPoint';
import { onPage, surround } from '../../../shared/theme';
import { type Limits, within } from '../../../shared/useTyped';
import { insertAfter, movePoint, photoPlace, removePoint, type Tracing } from './profile';
import { TracingMarks } from './TracingMarks';

type TurnedBody = ProductOf<'turned'>;

interface ProfileEditorProps {
  body: TurnedBody;
  /** @param gesture changes of one gesture are undone together */
  onChange(body: TurnedBody, gesture: string | null): void;
}

/** Drawing units in a metre. */
const MM = 1000;
let gestures = 0;

/** The outline of a turned thing over a grid of centimetres: drag its points, move them by arrow keys or type them. */
export function ProfileEditor({ body, onChange }: ProfileEditorProps) {
  const { profile } = body;
  const [selected, setSelected] = useState(0);
  const [tracing, setTracing] = useState<Tracing | null>(null);
  const [marking, setMarking] = useState(false);
  const svg = useRef<SVGSVGElement>(null);
  const set = (next: ProfilePoint[], gesture: string | null = null) =>
    onChange({ ...body, profile: next }, gesture);
  const at = Math.min(selected, profile.length - 1);
  const point = profile[at] as ProfilePoint;

  if (tracing && marking) {
    return <TracingMarks tracing={tracing} onChange={setTracing} onDone={() => setMarking(false)} />;
  }
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { sm: 'minmax(0, 1fr) 200px' }, gap: 2 }}>
      <OutlineDrawing {...{ svg, profile, tracing, at }} onSelect={setSelected} onMove={set} />
      <Box>
        <Box sx={{ fontSize: '0.8125rem', fontWeight: 650 }}>
          Point {at + 1} of {profile.length}
        </Box>
        <QuantityField
          label="from the axis"
          shown={formatLength(point.radiusM)}
          parse={within(parseLengthM, formatLength, { from: 0 })}
          example="3.6 cm"
          onCommit={(radiusM) => set(movePoint(profile, at, { ...point, radiusM }))}
        />
        <QuantityField
          label="above the foot"
          shown={formatLength(point.heightM)}
          parse={within(parseLengthM, formatLength, heightLimits(profile, at))}
          example="12 cm"
          onCommit={(heightM) => set(movePoint(profile, at, { ...point, heightM }))}
        />
        <FormControlLabel
          control={
            <Switch
              size="small"
              checked={point.smooth}
              onChange={(_, smooth) => set(profile.map((old, i) => (i === at ? { ...old, smooth } : old)))}
            />
          }
          label="curves through it"
          slotProps={{ typography: { sx: { fontSize: '0.8125rem' } } }}
        />
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mt: 0.5 }}>
          <Button
            size="small"
            onClick={() => {
              set(insertAfter(profile, at));
              setSelected(at + 1);
            }}
          >
            Add after it
          </Button>
          <Button
            size="small"
            color="inherit"
            disabled={profile.length <= 2}
            onClick={() => {
              set(removePoint(profile, at));
              setSelected(Math.max(0, at - 1));
            }}
          >
            Remove it
          </Button>
        </Box>
        <PhotoButtons
          tracing={tracing}
          onTake={(taken) => {
            setTracing(taken);
            setMarking(true);
          }}
          onMark={() => setMarking(true)}
          onDrop={() => setTracing(null)}
        />
      </Box>
    </Box>
  );
}

/** The foot is at 0; every other point lies between its neighbours. */
const heightLimits = (profile: readonly ProfilePoint[], at: number): Limits =>
  at === 0 ? { from: 0, to: 0 } : { from: profile[at - 1]?.heightM, to: profile[at + 1]?.heightM ?? 10 };

interface OutlineDrawingProps {
  svg: RefObject<SVGSVGElement | null>;
  profile: readonly ProfilePoint[];
  tracing: Tracing | null;
  at: number;
  onSelect(index: number): void;
  onMove(profile: ProfilePoint[], gesture: string): void;
}

function OutlineDrawing({ svg, profile, tracing, at, onSelect, onMove }: OutlineDrawingProps) {
  const height = Math.max(0.02, ...profile.map(({ heightM }) => heightM)) * MM;
  const radius = Math.max(0.01, ...profile.map(({ radiusM }) => radiusM)) * MM;
  const margin = 0.12 * Math.max(height, 2 * radius);
  const half = Math.max(radius + margin, 0.45 * height);
  const view = { left: -half, top: -height - margin, width: 2 * half, height: height + 2 * margin };
  const unit = view.height / 320;
  const outline = outlinePieces(profile, false).flatMap(({ lower, upper }) => [lower, upper]);
  const side = (sign: number) => outline.map(({ r, z }) => `${sign * r * MM},${-z * MM}`);
  const photo = tracing ? photoPlace(tracing) : null;
  return (
    <Box
      component="svg"
      ref={svg}
      viewBox={`${view.left} ${view.top} ${view.width} ${view.height}`}
      role="group"
      aria-label="Outline of the product"
      sx={{
        width: '100%',
        maxHeight: 420,
        bgcolor: 'background.paper',
        touchAction: 'none',
        display: 'block',
      }}
    >
      {tracing && photo && (
        <image
          href={tracing.url}
          x={photo.leftM * MM}
          y={-photo.topM * MM}
          width={photo.widthM * MM}
          height={photo.heightM * MM}
          opacity={0.65}
          preserveAspectRatio="none"
        />
      )}
      <Grid view={view} unit={unit} />
      <polygon
        points={[...side(1), ...side(-1).reverse()].join(' ')}
        fill={tracing ? 'none' : onPage.fill}
        stroke="currentColor"
        strokeWidth={1.5 * unit}
      />
      {profile.map((point, index) => (
        <PointHandle
          key={index}
          {...{ svg, point, index, unit, profile, onSelect, onMove }}
          selected={index === at}
        />
      ))}
    </Box>
  );
}

function Grid({
  view,
  unit,
}: {
  view: { left: number; top: number; width: number; height: number };
  unit: number;
}) {
  const step = view.height > 400 ? 50 : view.height > 60 ? 10 : 1;
  const lines = (from: number, size: number) => {
    const list: number[] = [];
    for (let i = Math.ceil(from / step); i * step <= from + size; i++) list.push(i * step);
    return list;
  };
  return (
    <>
      <g stroke="currentColor" opacity={0.16} strokeWidth={unit}>
        {lines(view.left, view.width).map((x) => (
          <line key={`x${x}`} x1={x} x2={x} y1={view.top} y2={view.top + view.height} />
        ))}
        {lines(view.top, view.height).map((y) => (
          <line key={`y${y}`} y1={y} y2={y} x1={view.left} x2={view.left + view.width} />
        ))}
        <line x1={0} x2={0} y1={view.top} y2={view.top + view.height} strokeDasharray={`${4 * unit}`} />
      </g>
      <text
        x={view.left + 4 * unit}
        y={view.top + view.height - 5 * unit}
        fontSize={11 * unit}
        fill="currentColor"
      >
        {step >= 10 ? `${step / 10} cm` : `${step} mm`} a square
      </text>
    </>
  );
}

const STEP_M = 0.001;

function PointHandle({
  svg,
  point,
  index,
  unit,
  profile,
  selected,
  onSelect,
  onMove,
}: {
  svg: RefObject<SVGSVGElement | null>;
  point: ProfilePoint;
  index: number;
  unit: number;
  profile: readonly ProfilePoint[];
  selected: boolean;
  onSelect(index: number): void;
  onMove(profile: ProfilePoint[], gesture: string): void;
}) {
  const gesture = useRef('');
  const bind = useDrag(
    ({ first, xy: [x, y] }) => {
      if (first) {
        gesture.current = `profile ${++gestures}`;
        onSelect(index);
      }
      const to = svgPoint(svg.current, x, y);
      if (to)
        onMove(movePoint(profile, index, { radiusM: to[0] / MM, heightM: -to[1] / MM }), gesture.current);
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  function onKeyDown(event: KeyboardEvent) {
    const move = arrowMove(event, { plain: STEP_M, wide: 10 * STEP_M, fine: STEP_M / 10 });
    if (!move) return;
    const to = { radiusM: point.radiusM + move[0], heightM: point.heightM + move[1] };
    onMove(movePoint(profile, index, to), `nudge ${index} ${Math.floor(Date.now() / 1000)}`);
  }
  return (
    <circle
      {...bind()}
      cx={point.radiusM * MM}
      cy={-point.heightM * MM}
      r={(selected ? 7 : 5.5) * unit}
      fill={point.smooth ? surround.paper : surround.strong}
      stroke={selected ? surround.strong : onPage.ink}
      strokeWidth={(selected ? 3 : 1.5) * unit}
      tabIndex={0}
      role="button"
      aria-pressed={selected}
      aria-label={`Point ${index + 1}: ${formatLength(point.radiusM)} from the axis, ${formatLength(point.heightM)} above the foot`}
      onFocus={() => onSelect(index)}
      onKeyDown={onKeyDown}
      style={{ cursor: 'grab', touchAction: 'none' }}
    />
  );
}

function PhotoButtons({
  tracing,
  onTake,
  onMark,
  onDrop,
}: {
  tracing: Tracing | null;
  onTake(tracing: Tracing): void;
  onMark(): void;
  onDrop(): void;
}) {
  function read(chosen: File) {
    const url = URL.createObjectURL(chosen);
    const image = new Image();
    image.onload = () => {
      const { naturalWidth: widthPx, naturalHeight: heightPx } = image;
      onTake({
        url,
        widthPx,
        heightPx,
        foot: [widthPx / 2, 0.9 * heightPx],
        from: [widthPx / 2, 0.9 * heightPx],
        to: [widthPx / 2, 0.1 * heightPx],
        lengthM: 0.2,
      });
    };
    image.src = url;
  }
  return (
    <Box sx={{ mt: 1 }}>
      <FileButton
        size="small"
        words={tracing ? 'Another photograph' : 'Trace over a photograph'}
        label="Photograph to trace over"
        accept="image/jpeg,image/png,image/webp"
        onFiles={([chosen]) => chosen && read(chosen)}
      />
      {tracing && (
        <>
          <Button size="small" color="inherit" onClick={onMark}>
            Mark it again
          </Button>
          <Button size="small" color="inherit" onClick={onDrop}>
            Remove it
          </Button>
        </>
      )}
    </Box>
  );
}
