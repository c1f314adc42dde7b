import { surround } from '../../../shared/theme';
import { useBench, useSetPart } from '../state/hooks';
import type { Plan } from './plan';

/** From the lens to the spot pointed at, and on to what it mirrors and to what is seen through it. */
export function PickRay({ plan }: { plan: Plan }) {
  const pick = useBench((bench) => bench.pick);
  const lens = useSetPart((set) => set.camera.positionM);
  const stale = useBench((bench) => bench.pickStale);
  if (!pick || stale) return null;
  const toMirror = [lens, pick.pointM, ...(pick.mirroredPointM ? [pick.mirroredPointM] : [])].map(plan.at);
  const through = pick.throughPointM ? [pick.pointM, pick.throughPointM].map(plan.at) : null;
  const points = through ? [...toMirror, through[1] as (typeof toMirror)[0]] : toMirror;
  return (
    <g pointerEvents="none">
      <path
        d={[toMirror, through]
          .map((line) => line && `M${line.map(([x, y]) => `${x} ${y}`).join(' L')}`)
          .filter(Boolean)
          .join(' ')}
        fill="none"
        stroke={surround.caution}
        strokeWidth={1.4}
        strokeDasharray="5 3"
      />
      {points.slice(1).map(([x, y], i) => (
        <circle key={`${i}`} cx={x} cy={y} r={3} fill={surround.caution} />
      ))}
    </g>
  );
}
