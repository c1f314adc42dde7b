import type { Deliverable } from '@fendrix/contract';
import { freeEdges, wordsRect } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useId } from 'react';

/** Side of the square that the longest format fills, px. */
const LONGEST = 116;

/** Width to height in small whole numbers, as near as they come within half a percent. */
export function ratioWords({ widthPx, heightPx }: Pick<Deliverable, 'widthPx' | 'heightPx'>): string {
  const ratio = widthPx / heightPx;
  for (let down = 1; down <= 20; down++) {
    const across = Math.round(ratio * down);
    if (across > 0 && Math.abs(across / down / ratio - 1) < 0.005) return `${across} : ${down}`;
  }
  return `${ratio.toFixed(2)} : 1`;
}

/** Each format as it is cut: its frame, where the product may be (dashed), and the place that words take (hatched). */
export function FormatDrawings({ formats }: { formats: readonly Deliverable[] }) {
  if (formats.length === 0) return null;
  return (
    <Box
      component="ul"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'flex-end',
        gap: 2,
        p: 0,
        m: 0,
        mb: 1.5,
        listStyle: 'none',
      }}
    >
      {formats.map((format) => (
        <Box component="li" key={format.id} sx={{ fontSize: '0.75rem' }}>
          <FormatDrawing format={format} />
          <Box sx={{ fontWeight: 600 }}>{format.name}</Box>
          <Box sx={{ color: 'text.secondary' }}>{ratioWords(format)}</Box>
        </Box>
      ))}
    </Box>
  );
}

const WHOLE = { left: 0, top: 0, right: 1, bottom: 1 };

function FormatDrawing({ format }: { format: Deliverable }) {
  const hatch = useId();
  const { widthPx, heightPx } = format;
  const scale = LONGEST / Math.max(widthPx, heightPx);
  const [width, height] = [widthPx * scale, heightPx * scale];
  const free = freeEdges(format);
  const words = wordsRect(WHOLE, format);
  return (
    <svg
      width={width + 2}
      height={height + 2}
      viewBox={`-1 -1 ${width + 2} ${height + 2}`}
      aria-hidden
      style={{ display: 'block' }}
    >
      <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V5" stroke="currentColor" strokeWidth="1" opacity="0.5" />
      </pattern>
      {words && (
        <rect
          x={words.left * width}
          y={words.top * height}
          width={(words.right - words.left) * width}
          height={(words.bottom - words.top) * height}
          fill={`url(#${hatch})`}
        />
      )}
      <rect width={width} height={height} fill="none" stroke="currentColor" strokeWidth="1.5" />
      <rect
        x={free.left * width}
        y={free.top * height}
        width={Math.max(0, 1 - free.left - free.right) * width}
        height={Math.max(0, 1 - free.top - free.bottom) * height}
        fill="none"
        stroke="currentColor"
        strokeDasharray="3 3"
      />
    </svg>
  );
}
