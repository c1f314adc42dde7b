import type { Vector } from '@fendrix/contract';
import type { ThreeEvent } from '@react-three/fiber';
import { createContext, type ReactNode, useContext, useRef } from 'react';
import { Plane, Vector3 } from 'three';
import { aimedOf, aimThing } from '../state/aiming';
import { benchActions } from '../state/benchSlice';
import { beginDrag, dragStep, endDrag } from '../state/drag';
import { moveThing, positionOf, type ThingRef } from '../state/edits';
import { useBenchDispatch, useSet } from '../state/hooks';
import { edit } from '../state/thunks';

/** Lets a grabbed thing hold the walk still. */
export const HoldContext = createContext<(still: boolean) => void>(() => undefined);

/** A press that wanders farther than this turns the view, px. */
const MOST_WANDER_PX = 4;

/** Selects its thing when pressed; it is too large to be dragged where one walks round. */
export function Pressed({ thing, children }: { thing: ThingRef; children: ReactNode }) {
  const dispatch = useBenchDispatch();
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a group of the third dimension is no element of the page; by keyboard it is selected in the plans
    <group
      onClick={(event) => {
        if (event.delta > MOST_WANDER_PX) return;
        event.stopPropagation();
        dispatch(benchActions.selected(thing));
      }}
    >
      {children}
    </group>
  );
}

let gestures = 0;

interface GrabbedProps {
  thing: ThingRef;
  /** What is taken hold of: the thing itself, or the point that it faces. */
  part?: 'itself' | 'aim';
  /** How much further it goes than the pointer. */
  gain?: number;
  children: ReactNode;
}

/** Selects its thing when pressed and moves it, or the point that it faces, along its own level when dragged. */
export function Grabbed({ thing, part = 'itself', gain = 1, children }: GrabbedProps) {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const hold = useContext(HoldContext);
  const drag = useRef<{ plane: Plane; start: Vector3; from: Vector; gesture: string } | null>(null);
  const at = (event: ThreeEvent<PointerEvent>, plane: Plane) =>
    event.ray.intersectPlane(plane, new Vector3());

  function down(event: ThreeEvent<PointerEvent>) {
    event.stopPropagation();
    dispatch(benchActions.selected(thing));
    const from = part === 'aim' ? (aimedOf(set, thing)?.aimM ?? null) : positionOf(set, thing);
    if (!from) return;
    // Level with where it was pressed, so that it stays under the finger.
    const plane = new Plane(new Vector3(0, 0, 1), -event.point.z);
    const start = at(event, plane);
    if (!start) return;
    drag.current = { plane, start, from, gesture: `space ${++gestures}` };
    hold(true);
    beginDrag();
    (event.target as Element).setPointerCapture(event.pointerId);
  }
  function move(event: ThreeEvent<PointerEvent>) {
    const own = drag.current;
    if (!own) return;
    event.stopPropagation();
    const to = at(event, own.plane);
    if (!to) return;
    const round = (value: number) => Math.round(value * 1e4) / 1e4;
    const position: Vector = [
      round(own.from[0] + gain * (to.x - own.start.x)),
      round(own.from[1] + gain * (to.y - own.start.y)),
      own.from[2],
    ];
    const change = part === 'aim' ? aimThing(thing, { aimM: position }) : moveThing(thing, position);
    dragStep(() => dispatch(edit(change, own.gesture)));
  }
  function up(event: ThreeEvent<PointerEvent>) {
    if (!drag.current) return;
    event.stopPropagation();
    endDrag();
    drag.current = null;
    hold(false);
  }
  return (
    <group onPointerDown={down} onPointerMove={move} onPointerUp={up} onPointerCancel={up}>
      {children}
    </group>
  );
}
