import type { Light, Plate } from '@fendrix/contract';
import { formatPower, onDial } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Switch from '@mui/material/Switch';
import type { KeyboardEvent } from 'react';
import { Tag } from '../../../shared/Tag';
import { useBenchDispatch } from '../state/hooks';
import { LOWEST_ON_SLIDER } from '../state/lightPower';
import { setPlateLight } from '../state/plates';
import { edit } from '../state/thunks';

/** Which lights are on for a plate, and how strong; those that are not touched are as the set has them. */
export function PlateLights({ plate, lights }: { plate: Plate; lights: readonly Light[] }) {
  const dispatch = useBenchDispatch();
  if (lights.length === 0) return <Box>No light stands there.</Box>;
  return (
    <>
      {lights.map((light) => {
        const { tag, name, on, powerStops, dial } = light;
        const isOwn = plate.lights.some((own) => own.tag === tag);
        const give = (changes: { on?: boolean; powerStops?: number }, gesture: string | null = null) =>
          dispatch(edit(setPlateLight(plate.id, tag, { on, powerStops, ...changes }), gesture));
        return (
          <Box key={tag} sx={{ display: 'flex', alignItems: 'center', gap: 0.75, minHeight: 28 }}>
            <Tag>{tag}</Tag>
            <Box
              className="number"
              title={name}
              sx={{ width: 76, whiteSpace: 'nowrap', color: on ? 'text.primary' : 'text.secondary' }}
            >
              {on ? formatPower(powerStops) : 'off'}
            </Box>
            <Box
              component="input"
              type="range"
              aria-label={`Power of ${tag} for this plate`}
              aria-valuetext={formatPower(powerStops)}
              min={dial?.leastStops ?? LOWEST_ON_SLIDER}
              max={0}
              step={dial?.stepStops ?? 0.1}
              value={powerStops}
              disabled={!on}
              onChange={({ currentTarget }: { currentTarget: HTMLInputElement }) =>
                give({ powerStops: onDial(light, Number(currentTarget.value)) }, `plate power ${tag}`)
              }
              onKeyDown={(event: KeyboardEvent) => event.stopPropagation()}
              sx={{ flex: 1, minWidth: 60, accentColor: (theme) => theme.palette.primary.main }}
            />
            <Switch
              size="small"
              checked={on}
              onChange={() => give({ on: !on })}
              slotProps={{ input: { 'aria-label': `${tag} on for this plate` } }}
            />
            <Button
              size="small"
              color="inherit"
              disabled={!isOwn}
              aria-label={`${tag} as the set has it`}
              onClick={() => dispatch(edit(setPlateLight(plate.id, tag, null)))}
              sx={{ minWidth: 0, px: 0.5 }}
            >
              as set
            </Button>
          </Box>
        );
      })}
    </>
  );
}
