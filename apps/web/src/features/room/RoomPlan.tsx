import type { Studio } from '@fendrix/contract';
import { formatLength } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, useRef, useState } from 'react';
import { arrowMove } from '../../shared/arrowKeys';
import { svgPoint } from '../../shared/svgPoint';
import { onPage, surround } from '../../shared/theme';

type Centre = [number, number];
type Window = Studio['windows'][number];

const STEP_M = 0.05;

/** The room from above: walls, windows with where they face, the centre, the table, which can be moved. */
export function RoomPlan({ studio, onMoveTable }: { studio: Studio; onMoveTable(centreM: Centre): void }) {
  const { room, bench, windows } = studio;
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<Centre | null>(null);
  const centre = held ?? bench.centreM;
  const left = -room.markFromLeftM;
  const top = -(room.depthM - room.markFromFrontM);
  const margin = 0.35;
  const line = room.widthM / 300;

  const within = ([x, y]: Centre): Centre => [
    round(Math.min(left + room.widthM - bench.widthM / 2, Math.max(left + bench.widthM / 2, x))),
    round(
      Math.min(
        room.depthM - room.markFromFrontM - bench.depthM / 2,
        Math.max(-room.markFromFrontM + bench.depthM / 2, y),
      ),
    ),
  ];
  const bind = useDrag(
    ({ xy: [x, y], last }) => {
      const at = svgPoint(svg.current, x, y);
      if (!at) return;
      const next = within([at[0], -at[1]]);
      setHeld(last ? null : next);
      if (last) onMoveTable(next);
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  function onKeyDown(event: KeyboardEvent) {
    const move = arrowMove(event, { plain: STEP_M });
    if (!move) return;
    onMoveTable(within([centre[0] + move[0], centre[1] + move[1]]));
  }

  return (
    <Box
      component="svg"
      ref={svg}
      viewBox={`${left - margin} ${top - margin} ${room.widthM + 2 * margin} ${room.depthM + 2 * margin}`}
      role="group"
      aria-label="The room from above"
      sx={{
        width: '100%',
        maxHeight: 460,
        bgcolor: 'background.paper',
        display: 'block',
        mb: 2,
        touchAction: 'none',
      }}
    >
      <rect
        x={left}
        y={top}
        width={room.widthM}
        height={room.depthM}
        fill="none"
        stroke="currentColor"
        strokeWidth={4 * line}
      />
      {windows.map((window) => (
        <WindowMark key={window.name} window={window} studio={studio} line={line} />
      ))}
      <rect
        {...bind()}
        x={centre[0] - bench.widthM / 2}
        y={-centre[1] - bench.depthM / 2}
        width={bench.widthM}
        height={bench.depthM}
        fill={onPage.floor}
        stroke="currentColor"
        strokeWidth={2 * line}
        tabIndex={0}
        role="button"
        aria-label={`Table, ${formatLength(bench.widthM)} by ${formatLength(bench.depthM)}: drag it or move it by arrow keys`}
        onKeyDown={onKeyDown}
        style={{ cursor: 'grab' }}
      />
      <path d={`M-0.06 0 H0.06 M0 -0.06 V0.06`} stroke="currentColor" strokeWidth={2.5 * line} />
      <Words at={[0.08, -0.05]} line={line}>
        centre
      </Words>
      <Words at={[left + 0.06, top - 0.1]} line={line}>
        behind the set
      </Words>
      <Words at={[left + 0.06, top + room.depthM + 0.2]} line={line}>
        {`behind the camera · ${formatLength(room.widthM)} by ${formatLength(room.depthM)}, ${formatLength(room.heightM)} high`}
      </Words>
    </Box>
  );
}

function Words({ at, line, children }: { at: Centre; line: number; children: string }) {
  return (
    <text x={at[0]} y={at[1]} fontSize={11 * line} fill="currentColor" style={{ pointerEvents: 'none' }}>
      {children}
    </text>
  );
}

const COMPASS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'];

/** A window on its wall, with where it faces. */
function WindowMark({ window, studio: { room }, line }: { window: Window; studio: Studio; line: number }) {
  const left = -room.markFromLeftM;
  const right = left + room.widthM;
  const back = -(room.depthM - room.markFromFrontM);
  const front = room.markFromFrontM;
  const { fromLeftM: from, widthM } = window;
  // Left and right as seen by who looks at the wall from within.
  const ends: Record<Window['wall'], [Centre, Centre]> = {
    back: [
      [left + from, back],
      [left + from + widthM, back],
    ],
    front: [
      [right - from, front],
      [right - from - widthM, front],
    ],
    left: [
      [left, front - from],
      [left, front - from - widthM],
    ],
    right: [
      [right, back + from],
      [right, back + from + widthM],
    ],
  };
  const [a, b] = ends[window.wall];
  const inward: Record<Window['wall'], Centre> = {
    back: [0, 0.2],
    front: [0, -0.1],
    left: [0.08, 0],
    right: [-0.6, 0],
  };
  const [dx, dy] = inward[window.wall];
  return (
    <g>
      <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke={onPage.ground} strokeWidth={7 * line} />
      <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke={surround.strong} strokeWidth={3 * line} />
      <Words at={[(a[0] + b[0]) / 2 + dx, (a[1] + b[1]) / 2 + dy]} line={line}>
        {`${window.name}, ${COMPASS[Math.round(window.facesDeg / 45) % 8]}`}
      </Words>
    </g>
  );
}

const round = (m: number): number => Math.round(100 * m) / 100;
