import { formatLength, parseLengthM } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, type RefObject, useRef } from 'react';
import { arrowMove } from '../../../shared/arrowKeys';
import { QuantityField } from '../../../shared/QuantityField';
import { svgPoint } from '../../../shared/svgPoint';
import { onPage, surround } from '../../../shared/theme';
import type { Tracing } from './profile';

type Mark = 'foot' | 'from' | 'to';

const NAMES: Record<Mark, string> = {
  foot: 'Middle of the foot',
  from: 'Lower end of the known length',
  to: 'Upper end of the known length',
};

/** Marks foot and one known length on a photograph, so that the outline can be drawn over it at true size. */
export function TracingMarks({
  tracing,
  onChange,
  onDone,
}: {
  tracing: Tracing;
  onChange(tracing: Tracing): void;
  onDone(): void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const unit = Math.max(tracing.widthPx, tracing.heightPx) / 400;
  const { from, to } = tracing;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { sm: 'minmax(0, 1fr) 200px' }, gap: 2 }}>
      <Box
        component="svg"
        ref={svg}
        viewBox={`0 0 ${tracing.widthPx} ${tracing.heightPx}`}
        role="group"
        aria-label="Photograph to trace over"
        sx={{ width: '100%', maxHeight: 420, touchAction: 'none', bgcolor: surround.reference }}
      >
        <image href={tracing.url} width={tracing.widthPx} height={tracing.heightPx} />
        <line
          x1={from[0]}
          y1={from[1]}
          x2={to[0]}
          y2={to[1]}
          stroke={surround.accent}
          strokeWidth={2 * unit}
          strokeDasharray={`${6 * unit} ${4 * unit}`}
        />
        {(['from', 'to', 'foot'] as const).map((mark) => (
          <MarkHandle
            key={mark}
            svg={svg}
            name={NAMES[mark]}
            at={tracing[mark]}
            unit={unit}
            round={mark !== 'foot'}
            onMove={(place) => onChange({ ...tracing, [mark]: place })}
          />
        ))}
      </Box>
      <Box>
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
          Move the square to the middle of the foot, the two rings to the ends of a length you have measured,
          and type that length. The picture should be taken level and from far.
        </Typography>
        <QuantityField
          label="known length"
          shown={formatLength(tracing.lengthM)}
          parse={(text) => parseLengthM(text)}
          example="25 cm"
          onCommit={(lengthM) => {
            if (lengthM > 0) onChange({ ...tracing, lengthM });
          }}
        />
        <Button variant="contained" size="small" sx={{ mt: 1 }} onClick={onDone}>
          Trace over it
        </Button>
      </Box>
    </Box>
  );
}

function MarkHandle({
  svg,
  name,
  at,
  unit,
  round,
  onMove,
}: {
  svg: RefObject<SVGSVGElement | null>;
  name: string;
  at: [number, number];
  unit: number;
  round: boolean;
  onMove(place: [number, number]): void;
}) {
  const bind = useDrag(
    ({ xy: [x, y] }) => {
      const place = svgPoint(svg.current, x, y);
      if (place) onMove(place);
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  function onKeyDown(event: KeyboardEvent) {
    const move = arrowMove(event, { plain: unit, wide: 10 * unit });
    if (move) onMove([at[0] + move[0], at[1] - move[1]]);
  }
  const size = 8 * unit;
  const shared = {
    fill: onPage.fillOver,
    stroke: surround.paper,
    strokeWidth: 2 * unit,
    tabIndex: 0,
    role: 'button',
    'aria-label': name,
    onKeyDown,
    style: { cursor: 'grab', touchAction: 'none' },
  } as const;
  return round ? (
    <circle {...bind()} {...shared} cx={at[0]} cy={at[1]} r={size} />
  ) : (
    <rect {...bind()} {...shared} x={at[0] - size} y={at[1] - size} width={2 * size} height={2 * size} />
  );
}
