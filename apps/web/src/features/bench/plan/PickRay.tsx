import { surround } from '../../../shared/theme';
import { useBench, useSetPart } from '../state/hooks';
import type { Plan } from './plan';

/** From the lens to the spot pointed at, and on to what it mirrors. */
export function PickRay({ plan }: { plan: Plan }) {
  const pick = useBench((bench) => bench.pick);
  const lens = useSetPart((set) => set.camera.positionM);
  if (!pick) return null;
  const points = [lens, pick.pointM, ...(pick.mirroredPointM ? [pick.mirroredPointM] : [])].map(plan.at);
  return (
    <g pointerEvents="none">
      <path
        d={`M${points.map(([x, y]) => `${x} ${y}`).join(' L')}`}
        fill="none"
        stroke={surround.caution}
        strokeWidth={1.4}
        strokeDasharray="5 3"
      />
      {points.slice(1).map(([x, y], i) => (
        <circle key={i === 0 ? 'seen' : 'mirrored'} cx={x} cy={y} r={3} fill={surround.caution} />
      ))}
    </g>
  );
}
