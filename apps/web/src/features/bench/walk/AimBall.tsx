import { useMemo } from 'react';
import { BufferGeometry, Vector3 } from 'three';
import { surround } from '../../../shared/theme';
import { AIM_GAIN, aimHandleM } from '../state/aimHandle';
import { aimedOf } from '../state/aiming';
import { useBench, useSet } from '../state/hooks';
import { Grabbed } from './Grabbed';

const RADIUS_M = 0.018;

/** The line from the selected thing to the point that it faces, with a ball that aims it. */
export function AimBall() {
  const set = useSet();
  const selected = useBench((bench) => bench.selected);
  const aimed = selected && aimedOf(set, selected);
  const line = useMemo(
    () =>
      aimed &&
      new BufferGeometry().setFromPoints([new Vector3(...aimed.positionM), new Vector3(...aimed.aimM)]),
    [aimed],
  );
  if (!selected || !aimed || !line) return null;
  return (
    <>
      <lineSegments geometry={line}>
        <lineBasicMaterial color={surround.accent} />
      </lineSegments>
      <Grabbed thing={selected} part="aim" gain={AIM_GAIN}>
        <mesh position={aimHandleM(aimed)} renderOrder={1}>
          <sphereGeometry args={[RADIUS_M, 20, 12]} />
          <meshBasicMaterial color={surround.accent} depthTest={false} />
        </mesh>
      </Grabbed>
    </>
  );
}
