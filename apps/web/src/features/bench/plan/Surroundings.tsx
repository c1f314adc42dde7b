import type { Backdrop, Bench, Camera, Panel, Room, Sweep, Vector } from '@fendrix/contract';
import { radians, vector } from '@fendrix/core';
import { memo } from 'react';
import type { Flat } from '../../../shared/hull';
import { surround } from '../../../shared/theme';
import type { Plan } from './plan';
import { coneOfView } from './planGeometry';

interface SurroundingsProps {
  plan: Plan;
  width: number;
  height: number;
  camera: Camera;
  bench: Bench | undefined;
  backdrop: Backdrop | undefined;
  room: Room | undefined;
  markHeightM: number;
}

/** How far the camera's cone of view is drawn, m. */
const CONE_M = 6;

/** Rings of distance and rays of bearing, bench, backdrop and the camera's cone of view. */
export const Surroundings = memo(function Surroundings({
  plan,
  width,
  height,
  camera,
  bench,
  backdrop,
  room,
  markHeightM,
}: SurroundingsProps) {
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
      {room && <RoomMark plan={plan} room={room} markHeightM={markHeightM} />}
      {bench && <BenchMark plan={plan} bench={bench} />}
      {backdrop && <BackdropMark plan={plan} backdrop={backdrop} />}
    </g>
  );
});

function RulerText({ x, y, value }: { x: number; y: number; value: number }) {
  return (
    <text x={x} y={y} fontSize={10} fill={surround.quiet} fontFamily='"JetBrains Mono Variable", monospace'>
      {Math.round(value * 100)}
    </text>
  );
}

function BenchMark({ plan, bench }: { plan: Plan; bench: Bench }) {
  const [x, y] = bench.centreM;
  const corners = [-1, 1].flatMap((sx) =>
    [-1, 1].flatMap((sy) =>
      [0, -bench.thicknessM].map(
        (z): Vector => [x + (sx * bench.widthM) / 2, y + (sy * bench.depthM) / 2, z],
      ),
    ),
  );
  return (
    <path d={plan.outline(corners)} fill={plan.kind === 'above' ? 'none' : '#6b6258'} stroke="#9a9a9a" />
  );
}

/** Walls, floor and ceiling, where they come into the plan. */
function RoomMark({ plan, room, markHeightM }: { plan: Plan; room: Room; markHeightM: number }) {
  const [left, front, low] = [-room.markFromLeftM, -room.markFromFrontM, -markHeightM];
  const corners = [left, left + room.widthM].flatMap((x) =>
    [front, front + room.depthM].flatMap((y) => [low, low + room.heightM].map((z): Vector => [x, y, z])),
  );
  return <path d={plan.outline(corners)} fill="none" stroke="#8a8a8a" strokeWidth={6} strokeOpacity={0.6} />;
}

function BackdropMark({ plan, backdrop }: { plan: Plan; backdrop: Backdrop }) {
  if (backdrop.kind === 'panel') {
    return <path d={plan.outline(panelCorners(backdrop))} fill="none" stroke="#e8e8e8" strokeWidth={3} />;
  }
  if (plan.kind === 'side') {
    return <path d={plan.path(sweepProfile(backdrop), false)} fill="none" stroke="#e8e8e8" strokeWidth={3} />;
  }
  const { widthM, frontM, backM } = backdrop;
  const at = (side: number, y: number): Vector => [(side * widthM) / 2, y, 0];
  return (
    <>
      <path
        d={plan.outline([at(-1, frontM), at(1, frontM), at(1, backM), at(-1, backM)])}
        fill="none"
        stroke="#bdbdbd"
        strokeDasharray="4 4"
      />
      <path d={plan.outline([at(-1, backM), at(1, backM)])} fill="none" stroke="#e8e8e8" strokeWidth={3} />
    </>
  );
}

function panelCorners({ centreM, widthM, heightM, turnDeg }: Panel): Vector[] {
  const across = vector.turnUpright([widthM / 2, 0, 0], radians(turnDeg));
  return [-1, 1].flatMap((side) =>
    [-1, 1].map((end) =>
      vector.add(vector.add(centreM, vector.scale(across, side)), [0, 0, (end * heightM) / 2]),
    ),
  );
}

/** A sweep from the side, m right and down. */
function sweepProfile({ frontM, backM, radiusM, heightM }: Sweep): Flat[] {
  const bend = Array.from({ length: 13 }, (_, i): Flat => {
    const angle = (i / 12) * (Math.PI / 2);
    return [backM - radiusM + radiusM * Math.sin(angle), -(radiusM - radiusM * Math.cos(angle))];
  });
  return [[frontM, 0], ...bend, [backM, -heightM]];
}
