import { setMarks, surround } from '../../../shared/theme';
import { AIM_GAIN, aimHandleM } from '../state/aimHandle';
import { aimedOf } from '../state/aiming';
import { nameOf } from '../state/edits';
import { useBench, useSet } from '../state/hooks';
import { Movable } from './Movable';
import type { Plan } from './plan';

const HANDLE_PX = 5.5;
const GRIP_PX = 11;
const CROSS_PX = 4;

/** The line from the selected thing to the point that it faces, with a handle that aims it and stays under the pointer. */
export function AimHandle({ plan }: { plan: Plan }) {
  const set = useSet();
  const selected = useBench((bench) => bench.selected);
  const aimed = selected && aimedOf(set, selected);
  if (!selected || !aimed) return null;
  const { positionM, aimM } = aimed;
  const [fromX, fromY] = plan.at(positionM);
  const [toX, toY] = plan.at(aimM);
  const [x, y] = plan.at(aimHandleM(aimed));
  return (
    <>
      <path
        d={`M${fromX} ${fromY} L${toX} ${toY} M${toX - CROSS_PX} ${toY} h${2 * CROSS_PX} M${toX} ${toY - CROSS_PX} v${2 * CROSS_PX}`}
        fill="none"
        stroke={surround.accent}
        strokeWidth={1.2}
        pointerEvents="none"
      />
      <Movable
        plan={plan}
        thing={selected}
        part="aim"
        name={`Point that ${nameOf(set, selected)} faces`}
        at={aimM}
        gain={AIM_GAIN}
      >
        <circle cx={x} cy={y} r={GRIP_PX} fill="transparent" stroke="transparent" />
        <circle cx={x} cy={y} r={HANDLE_PX} fill={setMarks.lens} stroke={surround.accent} strokeWidth={2} />
      </Movable>
    </>
  );
}
