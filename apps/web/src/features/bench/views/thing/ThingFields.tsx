import type { SetDocument, Vector } from '@fendrix/contract';
import {
  apparentAngleRad,
  degrees,
  formatBearing,
  formatLength,
  parseBearingDeg,
  parseLengthM,
  toStand,
  vector,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type ReactNode, type SyntheticEvent, useState } from 'react';
import { Explained } from '../../../../shared/Explained';
import { SchemaForm } from '../../../../shared/form/SchemaForm';
import type { Schema } from '../../../../shared/form/schema';
import { QuantityField } from '../../../../shared/QuantityField';
import { Tag } from '../../../../shared/Tag';
import { within } from '../../../../shared/useTyped';
import { benchActions } from '../../state/benchSlice';
import { positionOf, removeThing, standThing, type ThingRef } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { type BenchThunk, edit } from '../../state/thunks';

export interface PanelProps {
  set: SetDocument;
  thing: ThingRef;
}

export function Title({ tag, name, kind }: { tag?: string; name: string; kind: string }) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start', mb: 0.75 }}>
      {tag && <Tag>{tag}</Tag>}
      <Box sx={{ minWidth: 0 }}>
        <Box component="h2" sx={{ m: 0, fontSize: '0.9375rem', fontWeight: 650 }}>
          {name}
        </Box>
        <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>{kind}</Box>
      </Box>
    </Box>
  );
}

export function StandFields({
  set,
  thing,
  heightLabel,
  onFloor = false,
}: PanelProps & { heightLabel?: string; onFloor?: boolean }) {
  const dispatch = useBenchDispatch();
  const position = positionOf(set, thing);
  if (!position) return null;
  const stand = toStand(position);
  const put = (changes: Partial<typeof stand>): BenchThunk<boolean> => edit(standThing(thing, changes));
  return (
    <>
      <QuantityField
        label="position"
        shown={formatBearing(stand.bearingDeg)}
        parse={within(parseBearingDeg, (deg) => `${deg}°`, { from: -360, to: 360 })}
        example="72 left"
        onCommit={(bearingDeg) => dispatch(put({ bearingDeg }))}
      />
      <QuantityField
        label="distance from centre"
        shown={formatLength(stand.distanceM)}
        parse={within(parseLengthM, formatLength, { from: 0 })}
        example="78 cm or 18 in"
        onCommit={(distanceM) => dispatch(put({ distanceM }))}
      />
      {!onFloor && (
        <QuantityField
          label={heightLabel ?? 'height above table'}
          shown={formatLength(stand.heightM)}
          parse={(text) => parseLengthM(text)}
          example="46 cm"
          onCommit={(heightM) => dispatch(put({ heightM }))}
        />
      )}
    </>
  );
}

export function ApparentSize({ positionM, sizeM }: { positionM: Vector; sizeM: number }) {
  const away = vector.length(positionM);
  if (!(away > 1e-6)) return null;
  const angle = degrees(apparentAngleRad(sizeM, away));
  return (
    <Explained label="apparent width" value={`${angle.toFixed(0)}°`}>
      2 atan(size / 2d) with its longer side {formatLength(sizeM)} and d = {formatLength(away)}. The wider it
      looks, the softer its shadows and the broader its mirror image. Further away it looks smaller: harder,
      not because of the fall-off.
    </Explained>
  );
}

export function RemoveButton({ thing }: { thing: ThingRef }): ReactNode {
  const dispatch = useBenchDispatch();
  return (
    <Button
      size="small"
      color="inherit"
      sx={{ mt: 0.5, px: 0 }}
      onClick={() => {
        dispatch(edit(removeThing(thing)));
        dispatch(benchActions.selected(null));
      }}
    >
      Remove from the set
    </Button>
  );
}

/** Every other figure of a thing, folded away until asked for. */
export function AllFigures({
  schema,
  value,
  hidden,
  onChange,
}: {
  schema: Schema;
  value: object;
  hidden: ReadonlySet<string>;
  onChange(value: object): void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Box
      component="details"
      sx={{ mt: 1 }}
      onToggle={(event: SyntheticEvent<HTMLDetailsElement>) => setOpen(event.currentTarget.open)}
    >
      <Box component="summary" sx={{ cursor: 'pointer', fontSize: '0.8125rem', fontWeight: 650, py: 0.5 }}>
        All figures
      </Box>
      {/* Some forty fields: not while a drag changes the thing sixty times a second. */}
      {open && (
        <SchemaForm
          schema={schema}
          value={value as Record<string, unknown>}
          hidden={hidden}
          onChange={onChange}
        />
      )}
    </Box>
  );
}
