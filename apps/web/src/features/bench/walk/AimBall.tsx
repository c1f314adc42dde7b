import { vector } from '@fendrix/core';
import { useMemo } from 'react';
import { BufferGeometry, Vector3 } from 'three';
import { surround } from '../../../shared/theme';
import { aimedOf } from '../state/edits';
import { useBench, useSet } from '../state/hooks';
import { Grabbed } from './Grabbed';

/** Where on the way to its point the handle sits: at the point itself it would lie within the product. */
const ON_THE_WAY = 0.55;
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
  const way = vector.subtract(aimed.aimM, aimed.positionM);
  const at = vector.add(aimed.positionM, vector.scale(way, ON_THE_WAY));
  return (
    <>
      <lineSegments geometry={line}>
        <lineBasicMaterial color={surround.accent} />
      </lineSegments>
      <Grabbed thing={selected} part="aim" gain={1 / ON_THE_WAY}>
        <mesh position={at} renderOrder={1}>
          <sphereGeometry args={[RADIUS_M, 20, 12]} />
          <meshBasicMaterial color={surround.accent} depthTest={false} />
        </mesh>
      </Grabbed>
    </>
  );
}
