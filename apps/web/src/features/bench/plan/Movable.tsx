import type { Vector } from '@fendrix/contract';
import { formatBearing, formatLength, shiftInPlan, toStand } from '@fendrix/core';
import { useDrag } from '@use-gesture/react';
import { type KeyboardEvent, type ReactNode, useEffect, useRef } from 'react';
import { arrowMove } from '../../../shared/arrowKeys';
import { aimThing } from '../state/aiming';
import { benchActions } from '../state/benchSlice';
import { beginDrag, dragStep, endDrag } from '../state/drag';
import type { Edit } from '../state/edit';
import { moveThing, sameThing, type ThingRef } from '../state/edits';
import { useBench, useBenchDispatch } from '../state/hooks';
import { edit } from '../state/thunks';
import type { Plan } from './plan';

interface MovableProps {
  plan: Plan;
  thing: ThingRef;
  name: string;
  /** Where the thing stands, or the point that it faces. */
  at: Vector;
  /** What is taken hold of: the thing itself, or the point that it faces. */
  part?: 'itself' | 'aim';
  /** How much further it goes than the pointer. */
  gain?: number;
  children: ReactNode;
}

const STEP_M = 0.01;
const WIDE_STEP_M = 0.1;
const FINE_STEP_M = 0.001;
/** Nudges that follow each other sooner than this are one step of undo, ms. */
const SAME_NUDGE_MS = 1000;

let gestures = 0;
let lastNudge = { thing: '', time: 0, gesture: '' };

const CHANGES: Record<'itself' | 'aim', (thing: ThingRef, to: Vector) => Edit> = {
  itself: moveThing,
  aim: (thing, aimM) => aimThing(thing, { aimM }),
};

/** Makes its drawing selectable, draggable and movable by arrow keys. */
export function Movable({ plan, thing, name, at, part = 'itself', gain = 1, children }: MovableProps) {
  const dispatch = useBenchDispatch();
  const selected = useBench((bench) => sameThing(bench.selected, thing));
  const start = useRef<{ from: Vector; gesture: string } | null>(null);

  useEffect(
    () => () => {
      if (start.current) endDrag();
    },
    [],
  );

  const moveBy = (from: Vector, right: number, down: number, gesture: string) =>
    dispatch(edit(CHANGES[part](thing, rounded(shiftInPlan(plan.kind, from, right, down))), gesture));

  const bind = useDrag(
    ({ first, last, movement: [right, down], event }) => {
      event.stopPropagation();
      if (first) {
        dispatch(benchActions.selected(thing));
        start.current = { from: at, gesture: `drag ${++gestures}` };
        beginDrag();
      }
      const drag = start.current;
      if (drag && !last && (right !== 0 || down !== 0)) {
        const perPixel = gain / plan.scale;
        dragStep(() => moveBy(drag.from, right * perPixel, down * perPixel, drag.gesture));
      }
      if (last) {
        endDrag();
        start.current = null;
      }
    },
    { filterTaps: true, pointer: { keys: false } },
  );

  function onKeyDown(event: KeyboardEvent) {
    if (event.key === 'Enter' || event.key === ' ') dispatch(benchActions.selected(thing));
    const move = arrowMove(event, { plain: STEP_M, wide: WIDE_STEP_M, fine: FINE_STEP_M });
    if (!move) return;
    dispatch(benchActions.selected(thing));
    const nudged = `${plan.kind} ${part} ${thing.kind} ${thing.key}`;
    moveBy(at, move[0], -move[1], nudgeGesture(nudged, event.timeStamp));
  }

  return (
    <g
      {...bind()}
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={`${name}, ${placeInWords(at)}. Arrow keys move it 1 cm, with Shift 10 cm, with Alt 1 mm`}
      {...(part === 'aim'
        ? { 'data-aim': `${thing.kind}:${thing.key}` }
        : { 'data-thing': `${thing.kind}:${thing.key}` })}
      onKeyDown={onKeyDown}
      onFocus={() => dispatch(benchActions.selected(thing))}
      style={{ cursor: 'grab' }}
    >
      {children}
    </g>
  );
}

/** One for keys that follow each other soon; by when they were pressed, which a page that is busy learns later (ms). */
function nudgeGesture(key: string, pressedAt: number): string {
  const goesOn = lastNudge.thing === key && pressedAt - lastNudge.time < SAME_NUDGE_MS;
  lastNudge = { thing: key, time: pressedAt, gesture: goesOn ? lastNudge.gesture : `nudge ${++gestures}` };
  return lastNudge.gesture;
}

/** To a tenth of a millimetre: finer is noise of the mouse. */
const rounded = (point: Vector): Vector => point.map((value) => Math.round(value * 1e4) / 1e4) as Vector;

function placeInWords(position: Vector): string {
  const { bearingDeg, distanceM, heightM } = toStand(position);
  return `${formatBearing(bearingDeg)}, ${formatLength(distanceM)} from the centre, ${formatLength(heightM)} high`;
}
