import type { FormatFit, FrameRect } from '@fendrix/core';
import { stackedLabels } from '../../../shared/stackedLabels';
import { framed, surround } from '../../../shared/theme';

interface FrameOverlayProps {
  width: number;
  height: number;
  fits: readonly (FormatFit & { id: string; name: string })[];
  /** The format whose crop is drawn strongly. */
  shown: string | null;
  lines: boolean;
}

/** Crops, places for words, thirds and the middle, drawn over a picture. */
export function FrameOverlay({ width, height, fits, shown, lines }: FrameOverlayProps) {
  const box = ({ left, top, right, bottom }: FrameRect) => ({
    x: left * width,
    y: top * height,
    width: (right - left) * width,
    height: (bottom - top) * height,
  });
  // Counted upwards from the lower edge of the picture.
  const labels = stackedLabels(
    fits.map(({ crop }) => (crop ? (1 - crop.bottom) * height + 6 : -height)),
    15,
  );
  return (
    <>
      <defs>
        <pattern id="words" width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={7} height={7} fill={framed.shade} />
          <line x1={0} x2={0} y1={0} y2={7} stroke={framed.stripe} strokeWidth={1.4} />
        </pattern>
      </defs>
      {lines && (
        <g stroke={framed.thirds} strokeWidth={1}>
          {[1 / 3, 2 / 3].map((part) => (
            <g key={part}>
              <line x1={part * width} x2={part * width} y1={0} y2={height} />
              <line y1={part * height} y2={part * height} x1={0} x2={width} />
            </g>
          ))}
          <line
            y1={height / 2}
            y2={height / 2}
            x1={0}
            x2={width}
            stroke={framed.limit}
            strokeDasharray="5 4"
          />
          <line
            x1={width / 2}
            x2={width / 2}
            y1={0}
            y2={height}
            stroke={framed.limit}
            strokeDasharray="5 4"
          />
        </g>
      )}
      {fits.map(({ id, name, crop, copy }, index) =>
        crop ? (
          <g key={id} opacity={shown === null || shown === id ? 1 : 0.25}>
            {copy && (shown === null || shown === id) && (
              <rect {...box(copy)} fill="url(#words)" opacity={shown === null ? 0.5 : 1} />
            )}
            <rect {...box(crop)} fill="none" stroke={surround.ink} strokeWidth={2.5} />
            <rect {...box(crop)} fill="none" stroke={surround.paper} strokeWidth={1.2} />
            <text
              x={crop.left * width + 5}
              y={height - (labels[index] as number)}
              fontSize={12}
              fill={surround.paper}
              stroke={surround.ink}
              strokeWidth={3}
              paintOrder="stroke"
            >
              {name}
            </text>
          </g>
        ) : null,
      )}
    </>
  );
}
