import type { SetDocument } from '@fendrix/contract';
import { type PlanKind, planExtent } from '@fendrix/core';
import Box from '@mui/material/Box';
import { memo, useMemo, useRef } from 'react';
import { surround } from '../../../shared/theme';
import { useSize } from '../../../shared/useSize';
import { useDragging } from '../state/drag';
import { useSet } from '../state/hooks';
import { AimHandle } from './AimHandle';
import { CameraMark, LightMark, PersonMark, ProductMark, SheetMark, StandMark } from './marks';
import { PickRay } from './PickRay';
import { ProposedMarks } from './ProposedMarks';
import { type Fit, makePlan } from './plan';
import { planNames } from './planNames';
import { Surroundings } from './Surroundings';
import { BackdropMark, BenchMark, RoomMark } from './surroundingMarks';
import { ZoneLayer } from './ZoneLayer';

const MARGIN = 34;
const FIRST_SIZE = { above: { width: 400, height: 380 }, side: { width: 400, height: 240 } };

/** The set from above or from the side: drag things, or focus one and use the arrow keys. */
export const PlanView = memo(function PlanView({ kind }: { kind: PlanKind }) {
  const set = useSet();
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame, FIRST_SIZE[kind]);
  const { scale, originX, originY } = useSteadyFit(kind, set, size, useDragging());
  const plan = useMemo(() => makePlan(kind, { scale, originX, originY }), [kind, scale, originX, originY]);

  return (
    <Box
      ref={frame}
      sx={{
        position: 'absolute',
        inset: 0,
        '& [aria-pressed="true"] > :is(path, circle, rect):not([stroke="transparent"])': {
          stroke: surround.accent,
        },
      }}
    >
      <svg
        width={size.width}
        height={size.height}
        role="group"
        aria-label={planNames[kind]}
        data-px-per-m={scale}
        style={{ display: 'block', touchAction: 'none' }}
      >
        <Surroundings plan={plan} width={size.width} height={size.height} camera={set.camera} />
        <RoomMark plan={plan} room={set.room} markHeightM={set.mark.heightAboveFloorM} />
        <BenchMark plan={plan} bench={set.bench} />
        <BackdropMark plan={plan} backdrop={set.backdrop} />
        <ZoneLayer plan={plan} />
        <PickRay plan={plan} />
        {[...set.lights, ...set.sheets].map((held) => (
          <StandMark key={held.tag} plan={plan} held={held} set={set} />
        ))}
        {set.lights.map((light) => (
          <LightMark key={light.tag} plan={plan} light={light} />
        ))}
        {set.sheets.map((sheet) => (
          <SheetMark key={sheet.tag} plan={plan} sheet={sheet} />
        ))}
        {set.products.map((product) => (
          <ProductMark key={product.id} plan={plan} product={product} />
        ))}
        {set.people.map((person) => (
          <PersonMark key={person.name} plan={plan} person={person} mark={set.mark} />
        ))}
        <CameraMark plan={plan} set={set} />
        <ProposedMarks plan={plan} />
        <AimHandle plan={plan} />
      </svg>
    </Box>
  );
});

/** Fits the set into the plan, and holds still while something is dragged. */
function useSteadyFit(
  kind: PlanKind,
  set: SetDocument,
  size: { width: number; height: number },
  hold: boolean,
): Fit {
  const held = useRef<Fit | null>(null);
  if (hold && held.current) return held.current;
  const { min, max } = planExtent(kind, set);
  const scale = Math.max(
    20,
    Math.min(
      (size.width - 2 * MARGIN) / Math.max(0.3, max[0] - min[0]),
      (size.height - 2 * MARGIN) / Math.max(0.3, max[1] - min[1]),
    ),
  );
  held.current = {
    scale,
    originX: size.width / 2 - (scale * (min[0] + max[0])) / 2,
    originY: size.height / 2 - (scale * (min[1] + max[1])) / 2,
  };
  return held.current;
}
