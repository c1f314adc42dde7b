import type { Backdrop, Bench, Panel, Room, Vector } from '@fendrix/contract';
import { backdropProfile, benchCorners, type Flat, radians, vector } from '@fendrix/core';
import { type KeyboardEvent, memo } from 'react';
import { setMarks, surround } from '../../../shared/theme';
import { benchActions } from '../state/benchSlice';
import { sameThing, type ThingRef } from '../state/edits';
import { useBench, useBenchDispatch } from '../state/hooks';
import { SURROUNDING_NAMES, surroundingPosition } from '../state/surroundings';
import { Movable } from './Movable';
import type { Plan } from './plan';

// Each is given its own part of the set alone: what is dragged leaves the others as they are drawn.
interface MarkProps {
  plan: Plan;
}

/** A line is taken hold of by as much as this round it, px. */
const GRIP_PX = 10;

/** The table: taken hold of by its edge, so that what stands on it stays within reach. */
export const BenchMark = memo(function BenchMark({ plan, bench }: MarkProps & { bench: Bench | undefined }) {
  const at = surroundingPosition({ bench }, 'bench');
  if (!bench || !at) return null;
  const outline = plan.outline(benchCorners(bench));
  return (
    <Movable plan={plan} thing={{ kind: 'bench', key: '' }} name={SURROUNDING_NAMES.bench} at={at}>
      <path
        d={outline}
        fill={plan.kind === 'above' ? 'none' : setMarks.table}
        stroke={setMarks.room}
        pointerEvents="none"
      />
      <path d={outline} fill="none" stroke="transparent" strokeWidth={GRIP_PX} pointerEvents="stroke" />
    </Movable>
  );
});

export const BackdropMark = memo(function BackdropMark({
  plan,
  backdrop,
}: MarkProps & { backdrop: Backdrop | undefined }) {
  const at = surroundingPosition({ backdrop }, 'backdrop');
  if (!backdrop || !at) return null;
  const line = backdropLine(plan, backdrop);
  return (
    <Movable plan={plan} thing={{ kind: 'backdrop', key: '' }} name={SURROUNDING_NAMES.backdrop} at={at}>
      <path d={line} fill="none" stroke={setMarks.backdrop} strokeWidth={3} pointerEvents="none" />
      {backdrop.kind !== 'panel' && plan.kind === 'above' && (
        <path
          d={plan.outline(floorCorners(backdrop))}
          fill="none"
          stroke={setMarks.handle}
          strokeDasharray="4 4"
          pointerEvents="none"
        />
      )}
      <path d={line} fill="none" stroke="transparent" strokeWidth={GRIP_PX} pointerEvents="stroke" />
    </Movable>
  );
});

/** Walls, floor and ceiling, where they come into the plan. The set moves in the room, not the room. */
export const RoomMark = memo(function RoomMark({
  plan,
  room,
  markHeightM,
}: {
  plan: Plan;
  room: Room | undefined;
  markHeightM: number;
}) {
  const dispatch = useBenchDispatch();
  const thing: ThingRef = { kind: 'room', key: '' };
  const selected = useBench((bench) => sameThing(bench.selected, thing));
  if (!room) return null;
  const select = () => void dispatch(benchActions.selected(thing));
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label="Room. Press to change it"
      data-thing="room:"
      onClick={select}
      onFocus={select}
      onKeyDown={({ key }: KeyboardEvent) => key === 'Enter' && select()}
      style={{ cursor: 'pointer' }}
    >
      <path
        d={plan.outline(roomCorners(room, markHeightM))}
        fill="none"
        stroke={surround.off}
        strokeWidth={6}
        strokeOpacity={0.6}
        pointerEvents="stroke"
      />
    </g>
  );
});

function roomCorners(room: Room, markHeightM: number): Vector[] {
  const [left, front, low] = [-room.markFromLeftM, -room.markFromFrontM, -markHeightM];
  return [left, left + room.widthM].flatMap((x) =>
    [front, front + room.depthM].flatMap((y) => [low, low + room.heightM].map((z): Vector => [x, y, z])),
  );
}

/** The upright of a background; from the side the whole profile of what lies on the table too. */
function backdropLine(plan: Plan, backdrop: Backdrop): string {
  if (backdrop.kind === 'panel') return plan.outline(panelCorners(backdrop));
  if (plan.kind === 'side')
    return plan.path(
      backdropProfile(backdrop).map(([y, z]): Flat => [y, -z]),
      false,
    );
  const { widthM, backM } = backdrop;
  return plan.outline([
    [-widthM / 2, backM, 0],
    [widthM / 2, backM, 0],
  ]);
}

function floorCorners({ widthM, frontM, backM }: Exclude<Backdrop, Panel>): Vector[] {
  return [frontM, backM].flatMap((y) => [-1, 1].map((side): Vector => [(side * widthM) / 2, y, 0]));
}

function panelCorners({ centreM, widthM, heightM, turnDeg }: Panel): Vector[] {
  const across = vector.turnUpright([widthM / 2, 0, 0], radians(turnDeg));
  return [-1, 1].flatMap((side) =>
    [-1, 1].map((end) =>
      vector.add(vector.add(centreM, vector.scale(across, side)), [0, 0, (end * heightM) / 2]),
    ),
  );
}
