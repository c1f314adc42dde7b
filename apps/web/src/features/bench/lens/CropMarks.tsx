import type { Camera } from '@fendrix/contract';
import { cropRect, type FrameRect, wordsRect } from '@fendrix/core';
import { stackedLabels } from '../../../shared/stackedLabels';
import { surround } from '../../../shared/theme';
import { boxInView, type FrameWindow } from '../picture/frameWindow';

interface CropMarksProps {
  camera: Camera;
  window: FrameWindow;
  width: number;
  height: number;
  /** Name of the one format that is looked at; all if null. */
  only: string | null;
}

/** The formats that are cut from the frame, with their places for words; one alone is shown without what it cuts off. */
export function CropMarks({ camera, window, width, height, only }: CropMarksProps) {
  const boxOf = (rect: FrameRect) => boxInView(window, rect, width, height);
  const shown = camera.crops.filter((crop) => only === null || crop.name === only);
  const tops = shown.map((crop) => Math.max(0, boxOf(cropRect(camera, crop)).y) + 4);
  // Below each other, over all lines: crops often share a corner.
  const labels = stackedLabels(tops, 17);
  return (
    <>
      <defs>
        <pattern
          id="bench-words"
          width={8}
          height={8}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1={0} x2={0} y1={0} y2={8} stroke={surround.ink} strokeWidth={2.2} opacity={0.5} />
          <line x1={0} x2={0} y1={0} y2={8} stroke={surround.paper} strokeWidth={1} />
        </pattern>
      </defs>
      {shown.map((crop, index) => {
        const rect = cropRect(camera, crop);
        const box = boxOf(rect);
        const words = wordsRect(rect, crop);
        const [right, bottom] = [box.x + box.width, box.y + box.height];
        return (
          <g key={crop.name}>
            {only !== null && (
              <path
                d={`M0 0H${width}V${height}H0ZM${box.x} ${box.y}V${bottom}H${right}V${box.y}Z`}
                fill={surround.seam}
                opacity={0.86}
                fillRule="evenodd"
              />
            )}
            {words && (
              <rect {...boxOf(words)} fill="url(#bench-words)" opacity={only === null ? 0.35 : 0.6} />
            )}
            <rect {...box} fill="none" stroke={surround.ink} strokeWidth={3} />
            <rect
              {...box}
              fill="none"
              stroke={surround.paper}
              strokeWidth={1.4}
              strokeDasharray={index % 2 === 0 ? '6 4' : '2 3'}
            />
          </g>
        );
      })}
      {shown.map((crop, index) => {
        const box = boxOf(cropRect(camera, crop));
        const y = labels[index] as number;
        return (
          <g key={crop.name}>
            <rect
              x={Math.max(0, box.x) + 4}
              y={y}
              width={6.2 * crop.name.length + 10}
              height={15}
              fill={surround.seam}
              opacity={0.8}
            />
            <text x={Math.max(0, box.x) + 9} y={y + 11} fontSize={11} fontWeight={600} fill={surround.paper}>
              {crop.name}
            </text>
          </g>
        );
      })}
    </>
  );
}
