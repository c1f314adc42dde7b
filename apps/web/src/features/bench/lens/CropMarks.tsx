import type { Camera } from '@fendrix/contract';
import { boxInView, type FrameWindow } from '../picture/frameWindow';
import { cropRect } from './cropRect';

interface CropMarksProps {
  camera: Camera;
  window: FrameWindow;
  width: number;
  height: number;
}

/** The formats that are cut from the frame. */
export function CropMarks({ camera, window, width, height }: CropMarksProps) {
  return camera.crops.map((crop, index) => {
    const box = boxInView(window, cropRect(camera, crop), width, height);
    return (
      <g key={crop.name}>
        <rect {...box} fill="none" stroke="#1c1c1c" strokeWidth={3} />
        <rect
          {...box}
          fill="none"
          stroke="#f2efe6"
          strokeWidth={1.4}
          strokeDasharray={index % 2 === 0 ? '6 4' : '2 3'}
        />
        <text
          x={box.x + 6}
          y={box.y + 14 + 14 * index}
          fontSize={11}
          fontWeight={600}
          stroke="#1c1c1c"
          strokeWidth={3}
          paintOrder="stroke"
          fill="#f2efe6"
        >
          {crop.name}
        </text>
      </g>
    );
  });
}
