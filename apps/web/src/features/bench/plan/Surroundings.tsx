import type { Camera } from '@fendrix/contract';
import { coneOfView } from '@fendrix/core';
import { memo } from 'react';
import { surround } from '../../../shared/theme';
import type { Plan } from './plan';

interface SurroundingsProps {
  plan: Plan;
  width: number;
  height: number;
  camera: Camera;
}

/** How far the camera's cone of view is drawn, m. */
const CONE_M = 6;

/** Rings of distance and rays of bearing, and the camera's cone of view. */
export const Surroundings = memo(function Surroundings({ plan, width, height, camera }: SurroundingsProps) {
  const [x, y] = plan.at([0, 0, 0]);
  const reach = Math.hypot(width, height) / plan.scale;
  const ringM = plan.scale > 260 ? 0.1 : plan.scale > 110 ? 0.25 : 0.5;
  const rings = Array.from({ length: Math.min(12, Math.floor(reach / ringM)) }, (_, i) => (i + 1) * ringM);
  return (
    <g pointerEvents="none">
      {plan.kind === 'above' ? (
        <>
          {rings.map((radius) => (
            <g key={radius}>
              <circle cx={x} cy={y} r={radius * plan.scale} fill="none" stroke={surround.line} />
              <RulerText x={x + 3} y={y - radius * plan.scale - 2} value={radius} />
            </g>
          ))}
          {Array.from({ length: 24 }, (_, i) => i * 15).map((bearing) => {
            const a = (bearing * Math.PI) / 180;
            const near = bearing % 45 === 0 ? 0.06 : 0.96;
            const far = (rings.at(-1) ?? 1) * plan.scale;
            return (
              <path
                key={bearing}
                d={`M${x + near * far * Math.sin(a)} ${y + near * far * Math.cos(a)} L${x + far * Math.sin(a)} ${y + far * Math.cos(a)}`}
                stroke={surround.line}
                strokeWidth={0.8}
              />
            );
          })}
        </>
      ) : (
        [0, ...rings].map((height) => (
          <g key={height}>
            <path
              d={`M0 ${y - height * plan.scale} H${width}`}
              stroke={surround.line}
              strokeWidth={height === 0 ? 1.4 : 0.7}
            />
            <RulerText x={width - 30} y={y - height * plan.scale - 3} value={height} />
          </g>
        ))
      )}
      <path d={plan.path(coneOfView(plan.kind, camera, CONE_M))} fill={surround.accent} fillOpacity={0.1} />
    </g>
  );
});

function RulerText({ x, y, value }: { x: number; y: number; value: number }) {
  return (
    <text x={x} y={y} fontSize={11} fill={surround.quiet} fontFamily='"JetBrains Mono Variable", monospace'>
      {Math.round(value * 100)}
    </text>
  );
}
