import type { Frame, FrameFigures } from '@fendrix/contract';
import Box from '@mui/material/Box';
import { frameUrl } from '../../../shared/frameUrl';

const percent = (part: number) => `${100 * part}%`;
const WHOLE = { position: 'absolute', inset: 0, width: '100%', height: '100%', objectFit: 'fill' } as const;

/**
 * A frame with the base line and the height of the picture that it is to be like drawn over it; as it was taken, or laid so that foot,
 * middle and height of both products agree.
 */
export function RegisteredFrame({
  frame,
  own,
  there,
  isRegistered,
}: {
  frame: Frame;
  own: FrameFigures | null;
  there: FrameFigures;
  isRegistered: boolean;
}) {
  const line = there.outline;
  const transform = isRegistered && own?.outline && line ? laidOver(own.outline, line) : undefined;
  return (
    <Box
      sx={{
        position: 'relative',
        aspectRatio: `${frame.widthPx} / ${frame.heightPx}`,
        overflow: 'hidden',
        bgcolor: 'action.hover',
        mb: 0.5,
      }}
    >
      <Box
        component="img"
        src={frameUrl(frame.id, 'large')}
        alt={`${frame.name}${transform ? ', laid over the one it is to be like' : ''}`}
        sx={{ ...WHOLE, transformOrigin: '0 0' }}
        style={{ transform }}
      />
      {line &&
        [line.top, line.bottom].map((at) => (
          <Box
            key={at}
            aria-hidden
            sx={{
              position: 'absolute',
              left: 0,
              right: 0,
              top: percent(at),
              borderTop: '1px dashed',
              borderColor: 'warning.main',
            }}
          />
        ))}
    </Box>
  );
}

type Outline = NonNullable<FrameFigures['outline']>;

/** The transform that brings one box onto the foot, middle and height of another, parts of the frame. */
export function laidOver(own: Outline, there: Outline): string {
  const scale = (there.bottom - there.top) / (own.bottom - own.top);
  const middle = ({ left, right }: Outline) => (left + right) / 2;
  const right = middle(there) - scale * middle(own);
  const down = there.bottom - scale * own.bottom;
  return `translate(${percent(right)}, ${percent(down)}) scale(${scale})`;
}
