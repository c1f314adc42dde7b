import type { Product } from '@fendrix/contract';
import { formatLength, hull, productBounds, productShape } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useMemo } from 'react';
import { onPage } from '../../../shared/theme';

/** A product from the front and from above, to one scale, with its size. */
export function BodyDrawing({ body }: { body: Product }) {
  const drawn = useMemo(() => {
    try {
      const own = { ...body, positionM: [0, 0, 0] as [number, number, number] };
      return { shape: productShape(own), bounds: productBounds(own) };
    } catch {
      return null;
    }
  }, [body]);
  if (!drawn)
    return <Box sx={{ color: 'text.secondary' }}>This body cannot be drawn: it has no surface.</Box>;
  const { low, high } = drawn.bounds;
  const [width, depth, height] = [high[0] - low[0], high[1] - low[1], high[2] - low[2]];
  const gap = 0.12 * Math.max(width, depth, height);
  const view = [low[0] - gap, -high[2] - gap, width + 2 * gap, height + depth + 3 * gap];
  const line = ((view[3] as number) / 400) * 0.8;
  const fronts = drawn.shape.map((piece) => hull(piece.map(([x, , z]) => [x, -z])));
  const tops = drawn.shape.map((piece) => hull(piece.map(([x, y]) => [x, -y + high[1] + gap - low[2]])));
  return (
    <Box>
      <Box
        component="svg"
        viewBox={view.join(' ')}
        role="img"
        aria-label={`${body.name} from the front and from above`}
        sx={{ width: '100%', maxHeight: 360, bgcolor: 'background.paper', display: 'block' }}
      >
        {[...fronts, ...tops].map((outline, index) => (
          <polygon
            key={index}
            points={outline.map((point) => point.join(',')).join(' ')}
            fill={onPage.body}
            stroke="currentColor"
            strokeOpacity={0.3}
            strokeWidth={line}
          />
        ))}
      </Box>
      <Box className="number" sx={{ color: 'text.secondary', pt: 0.5 }}>
        {formatLength(width)} wide, {formatLength(depth)} deep, {formatLength(height)} tall
      </Box>
    </Box>
  );
}
