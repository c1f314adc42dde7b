import type { SetDocument, Vector } from '@fendrix/contract';
import {
  type AimTarget,
  aimTargetOf,
  aimTargets,
  aimTowards,
  type Facing,
  facingOf,
  formatBearing,
  formatLength,
  formatTilt,
  parseBearingDeg,
  parseLengthM,
  parseTiltDeg,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import { Choice } from '../../../../shared/Choice';
import { QuantityField } from '../../../../shared/QuantityField';
import { within } from '../../../../shared/useTyped';
import { aimAlong, aimedOf, aimThing, faceThing } from '../../state/aiming';
import type { ThingRef } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { edit } from '../../state/thunks';

/** What a thing faces or stands parallel to, in words. */
function targetWords({ sheets }: SetDocument, target: AimTarget): string {
  if (target === 'product') return 'the nearest product';
  if (target === 'lens') return 'the lens';
  if (target === 'background' || target === 'table') return `parallel to the ${target}`;
  const sheet = sheets.find(({ tag }) => target === `sheet ${tag}`);
  return `parallel to ${sheet?.tag} ${sheet?.name}`;
}

const OWN = 'own' as const;

/** Which way something faces: at a thing, as bearing and tilt, or as a point; and whether it keeps that when moved. */
export function AimFields({ set, thing }: { set: SetDocument; thing: ThingRef }) {
  const dispatch = useBenchDispatch();
  const aimed = aimedOf(set, thing);
  if (!aimed) return null;
  const { positionM, aimM } = aimed;
  const aim = (to: Vector) => dispatch(edit(aimThing(thing, { aimM: to })));
  const facing = facingOf(positionM, aimM);
  const face = (changes: Partial<Facing>) => dispatch(edit(faceThing(thing, changes)));
  const now = aimTargetOf(set, positionM, aimM);
  const possible = aimTargets(set, positionM, aimM);
  const coordinate = (axis: 0 | 1 | 2, value: number) => dispatch(edit(aimAlong(thing, axis, value)));
  return (
    <>
      <Choice
        shown
        label="faces"
        value={now ?? OWN}
        options={[
          ...(now === null ? [{ value: OWN, words: 'a point of its own' } as const] : []),
          ...possible.map((target) => ({ value: target, words: targetWords(set, target) })),
        ]}
        onChoose={(target) => {
          const to = target === OWN ? null : aimTowards(set, positionM, aimM, target as AimTarget);
          if (to) aim(to);
        }}
      />
      <QuantityField
        label="turned to"
        shown={formatBearing(facing.bearingDeg)}
        parse={within(parseBearingDeg, (deg) => `${deg}°`, { from: -360, to: 360 })}
        example="30 right, or behind"
        onCommit={(bearingDeg) => face({ bearingDeg })}
      />
      <QuantityField
        label="tilted"
        shown={formatTilt(facing.tiltDeg)}
        parse={within(parseTiltDeg, (deg) => `${deg}°`, { from: -90, to: 90 })}
        example="30 down, or level"
        onCommit={(tiltDeg) => face({ tiltDeg })}
      />
      <QuantityField
        label="aims at height"
        shown={formatLength(aimM[2])}
        parse={(text) => parseLengthM(text)}
        example="9 cm"
        onCommit={(height) => coordinate(2, height)}
      />
      <Box component="details">
        <Box component="summary" sx={{ cursor: 'pointer', fontSize: '0.8125rem', py: 0.5 }}>
          Its point from above
        </Box>
        <QuantityField
          label="right of centre"
          shown={formatLength(aimM[0])}
          parse={(text) => parseLengthM(text)}
          example="-12 cm"
          onCommit={(x) => coordinate(0, x)}
        />
        <QuantityField
          label="behind centre"
          shown={formatLength(aimM[1])}
          parse={(text) => parseLengthM(text)}
          example="20 cm"
          onCommit={(y) => coordinate(1, y)}
        />
      </Box>
      <FormControlLabel
        control={
          <Switch
            size="small"
            checked={aimed.keepsDirection === true}
            onChange={(_, on) => dispatch(edit(aimThing(thing, { keepsDirection: on ? true : undefined })))}
          />
        }
        label="Keeps its direction when moved"
        slotProps={{ typography: { sx: { fontSize: '0.8125rem' } } }}
      />
    </>
  );
}
