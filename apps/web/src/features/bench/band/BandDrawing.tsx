import type { BandLength, BandWish, MirrorBand } from '@fendrix/core';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, useId, useRef } from 'react';
import { arrowMove } from '../../../shared/arrowKeys';
import { svgPoint } from '../../../shared/svgPoint';
import { TagMark } from '../../../shared/Tag';
import { banded, surround } from '../../../shared/theme';
import { useSize } from '../../../shared/useSize';
import { hatchOf } from '../lens/hatch';
import { toView } from '../picture/frameWindow';
import { useBench } from '../state/hooks';
import { useBandPlacing } from './useBandPlacing';
import { useShortName } from './useShortName';

const WIDTH = 560;
const FIRST_SIZE = { width: WIDTH, height: 106 };
const LEAD = 16;
const HEIGHT = 40;
const PERCENT = 16;
const CURVE = 34;
/** Tones that the curve spans, stops from mid-tone. */
const HIGHEST = 4;
const LOWEST = -6;
/** Edges by arrow keys, parts of the width. */
const STEP = 0.005;
const WIDE_STEP = 0.05;
/** An image keeps at least this much of the width. */
const NARROWEST = 0.005;

interface BandDrawingProps {
  band: MirrorBand;
  profile: { part: Float64Array; stops: readonly number[] } | null;
  onLength(length: BandLength): void;
}

/** The lengths of the band lined up with the product, and its luminance across under them. */
export function BandDrawing({ band, profile, onLength }: BandDrawingProps) {
  const prefix = useId();
  const window = useBench((bench) => bench.window);
  const svg = useRef<SVGSVGElement>(null);
  /** Units of the drawing in a CSS px: letters stay as large as they are read. */
  const unit = Math.max(1, WIDTH / useSize(svg, FIRST_SIZE).width);
  // Room for the curve before it is there, so that nothing jumps when it comes.
  const height = LEAD + HEIGHT + PERCENT + CURVE;
  const keys = keysOf(band.lengths);
  const [left] = toView(window, band.left, 0);
  const [right] = toView(window, band.right, 0);
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      role="group"
      aria-label="Lengths of the mirror band"
      style={{ display: 'block', touchAction: 'none' }}
    >
      <path
        d={`M${left * WIDTH} 0 L0.5 ${LEAD} M${right * WIDTH} 0 L${WIDTH - 0.5} ${LEAD}`}
        stroke={surround.quiet}
        strokeWidth={1}
        strokeDasharray="2 3"
      />
      {band.lengths.map((length, index) => (
        <Length
          key={`${length.kind} ${keys[index]}`}
          id={`${prefix}-${index}`}
          length={length}
          unit={unit}
          onOpen={() => onLength(length)}
        />
      ))}
      <rect x={0.5} y={LEAD} width={WIDTH - 1} height={HEIGHT} fill="none" stroke={surround.ink} />
      {band.lengths.flatMap((length, index) =>
        isMovable(length)
          ? (['from', 'to'] as const).map((end) => (
              <Edge key={`${keys[index]} ${end}`} band={band} length={length} end={end} svg={svg} />
            ))
          : [],
      )}
      {profile && <ProfileLine profile={profile} top={LEAD + HEIGHT + PERCENT} unit={unit} />}
    </svg>
  );
}

/** What each length shows and the how manieth of it it is: the same for an edge that is dragged past others. */
function keysOf(lengths: readonly BandLength[]): string[] {
  const met = new Map<string, number>();
  return lengths.map(({ what }) => {
    const before = met.get(what ?? '') ?? 0;
    met.set(what ?? '', before + 1);
    return `${what} ${before}`;
  });
}

/** What makes a drawing a button, for mouse and keyboard. */
const pressed = (label: string, onPress: () => void) => ({
  role: 'button',
  tabIndex: 0,
  'aria-label': label,
  onClick: onPress,
  onKeyDown: (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    onPress();
  },
  style: { cursor: 'pointer' },
});

const isMovable = ({ kind }: BandLength) => kind === 'light' || kind === 'sheet';

function Length({
  id,
  length,
  unit,
  onOpen,
}: {
  id: string;
  length: BandLength;
  unit: number;
  onOpen(): void;
}) {
  const nameOf = useShortName();
  const { tone, angleDeg, gapPx } = hatchOf(length.kind, length.what);
  const x = length.from * WIDTH;
  const width = (length.to - length.from) * WIDTH;
  const tagged = isMovable(length);
  const percent = Math.round(100 * (length.to - length.from));
  const dark = ['dark', 'matte', 'hidden', 'camera', 'person', 'stand'].includes(length.kind);
  return (
    <g {...(tagged ? pressed(`What ${length.what} makes`, onOpen) : {})}>
      {angleDeg !== null && (
        <pattern
          id={id}
          width={gapPx}
          height={gapPx}
          patternUnits="userSpaceOnUse"
          patternTransform={`rotate(${angleDeg})`}
        >
          <rect width={1.4} height={gapPx} fill={banded.hatch} />
        </pattern>
      )}
      <rect x={x} y={LEAD} width={width} height={HEIGHT} fill={tone} />
      {angleDeg !== null && <rect x={x} y={LEAD} width={width} height={HEIGHT} fill={`url(#${id})`} />}
      {tagged && width > 12 && length.what && (
        <TagMark x={x + width / 2} y={LEAD + HEIGHT / 2}>
          {length.what}
        </TagMark>
      )}
      {!tagged && width > 44 * unit && (
        <text
          x={x + width / 2}
          y={LEAD + HEIGHT / 2 + 4}
          textAnchor="middle"
          fontSize={11 * unit}
          fill={dark ? banded.onDark : surround.ink}
        >
          {nameOf(length.kind, length.what)}
        </text>
      )}
      {width > 26 * unit && (
        <text
          x={x + width / 2}
          y={LEAD + HEIGHT + 12}
          textAnchor="middle"
          fontSize={11 * unit}
          fontFamily='"JetBrains Mono Variable", monospace'
          fill={tagged ? surround.text : surround.quiet}
        >
          {percent} %
        </text>
      )}
    </g>
  );
}

interface EdgeProps {
  band: MirrorBand;
  length: BandLength;
  end: 'from' | 'to';
  svg: React.RefObject<SVGSVGElement | null>;
}

/** One edge of a light's or sheet's image: dragging it moves the thing so that the other edge stays where it is. */
function Edge({ band, length, end, svg }: EdgeProps) {
  const { follow } = useBandPlacing();
  const start = useRef(length);
  const x = length[end] * WIDTH;
  const wishFor = (of: BandLength, to: number): BandWish => {
    const [from, until] =
      end === 'from'
        ? [Math.max(0, Math.min(of.to - NARROWEST, to)), of.to]
        : [of.from, Math.min(1, Math.max(of.from + NARROWEST, to))];
    return {
      product: band.product,
      heightM: band.heightM,
      kind: of.kind as 'light' | 'sheet',
      key: of.what ?? '',
      from,
      to: until,
      by: 'move',
    };
  };
  const bind = useDrag(
    ({ first, xy: [clientX, clientY], event }) => {
      event.stopPropagation();
      if (first) start.current = length;
      const point = svgPoint(svg.current, clientX, clientY);
      if (point && !first) follow(wishFor(start.current, point[0] / WIDTH), false);
      else if (first) follow(wishFor(length, length[end]), true);
    },
    { pointer: { keys: false } },
  );
  function onKeyDown(event: KeyboardEvent) {
    const move = arrowMove(event, { plain: STEP, wide: WIDE_STEP });
    if (move) follow(wishFor(length, length[end] + move[0]), true);
  }
  return (
    <g
      {...bind()}
      role="slider"
      tabIndex={0}
      aria-label={`${end === 'from' ? 'Left' : 'Right'} edge of ${length.what}. Arrow keys move what makes it`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(1000 * length[end]) / 10}
      aria-valuetext={`${(100 * length[end]).toFixed(1)} % of the width`}
      data-edge={`${length.what} ${end}`}
      onKeyDown={onKeyDown}
      style={{ cursor: 'ew-resize', outlineOffset: -2 }}
    >
      <rect x={x - 8} y={LEAD - 4} width={16} height={HEIGHT + 8} fill="transparent" />
      <path d={`M${x} ${LEAD - 2} v${HEIGHT + 4}`} stroke={surround.accent} strokeWidth={3} />
    </g>
  );
}

function ProfileLine({
  profile,
  top,
  unit,
}: {
  profile: { part: Float64Array; stops: readonly number[] };
  top: number;
  unit: number;
}) {
  const y = (stops: number) =>
    top + 4 + ((HIGHEST - Math.max(LOWEST, Math.min(HIGHEST, stops))) / (HIGHEST - LOWEST)) * (CURVE - 8);
  const line = profile.stops
    .map((stops, i) => `${((profile.part[i] as number) * WIDTH).toFixed(1)} ${y(stops).toFixed(1)}`)
    .join(' L');
  return (
    <g pointerEvents="none">
      <path d={`M0 ${y(0)} H${WIDTH}`} stroke={surround.line} strokeDasharray="2 4" />
      <path d={`M${line}`} fill="none" stroke={surround.text} strokeWidth={1.4} />
      {[HIGHEST, LOWEST].map((stops) => (
        <text
          key={stops}
          x={2}
          y={y(stops) + 3}
          fontSize={11 * unit}
          fill={surround.quiet}
          fontFamily='"JetBrains Mono Variable", monospace'
        >
          {stops > 0 ? `+${stops}` : stops < 0 ? `−${-stops}` : '0'}
        </text>
      ))}
    </g>
  );
}
