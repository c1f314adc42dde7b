import { formatPower, onDial } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Switch from '@mui/material/Switch';
import { memo } from 'react';
import { Tag } from '../../../shared/Tag';
import { surround } from '../../../shared/theme';
import { changeLight } from '../state/edits';
import { useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';

const THIRD = 1 / 3;
const LOWEST = -20;
/** Of a light whose dial is not known. */
const SLIDER_LOWEST = -8;

/** Power and switch of each light, a third of a stop at a time. */
export const LightPowers = memo(function LightPowers() {
  const lights = useSetPart((set) => set.lights);
  const dispatch = useBenchDispatch();
  const step = (tag: string, by: number) =>
    dispatch(
      edit(
        changeLight(tag, (light) => ({
          ...light,
          powerStops: Math.max(LOWEST, Math.min(0, Math.round((light.powerStops + by) * 3) / 3)),
        })),
      ),
    );
  /** One run of the slider is one step of undo. */
  const slide = (tag: string, powerStops: number) =>
    dispatch(
      edit(
        changeLight(tag, (light) => ({ ...light, powerStops: onDial(light, powerStops) })),
        `power ${tag}`,
      ),
    );
  if (lights.length === 0) {
    return <Box sx={{ color: surround.quiet }}>No light yet: add one with the button over the plan.</Box>;
  }
  return (
    <Box
      component="section"
      aria-label="Power of the lights"
      sx={{ display: 'grid', gap: 0.25, alignContent: 'start' }}
    >
      {lights.map((light) => (
        <Box key={light.tag} sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
          <Tag>{light.tag}</Tag>
          <Box className="number" sx={{ width: 74, color: light.on ? surround.text : surround.quiet }}>
            {formatPower(light.powerStops)}
          </Box>
          <Box
            component="input"
            type="range"
            aria-label={`Power of ${light.tag}`}
            aria-valuetext={formatPower(light.powerStops)}
            min={light.dial?.leastStops ?? SLIDER_LOWEST}
            max={0}
            step={light.dial?.stepStops ?? 0.1}
            value={light.powerStops}
            onChange={(event: { currentTarget: { value: string } }) =>
              slide(light.tag, Number(event.currentTarget.value))
            }
            onKeyDown={(event: { stopPropagation(): void }) => event.stopPropagation()}
            sx={{ width: 84, accentColor: surround.accent }}
          />
          <PowerButton label={`${light.tag} a third of a stop down`} onClick={() => step(light.tag, -THIRD)}>
            −⅓
          </PowerButton>
          <PowerButton
            label={`${light.tag} a third of a stop up`}
            onClick={() => step(light.tag, THIRD)}
            disabled={light.powerStops >= 0}
          >
            +⅓
          </PowerButton>
          <Switch
            size="small"
            checked={light.on}
            onChange={() => dispatch(edit(changeLight(light.tag, (old) => ({ ...old, on: !old.on }))))}
            slotProps={{ input: { 'aria-label': `${light.tag} on` } }}
          />
        </Box>
      ))}
    </Box>
  );
});

interface PowerButtonProps {
  label: string;
  disabled?: boolean;
  onClick(): void;
  children: string;
}

function PowerButton({ label, disabled = false, onClick, children }: PowerButtonProps) {
  return (
    <Button
      size="small"
      aria-label={label}
      disabled={disabled}
      onClick={onClick}
      className="number"
      sx={{
        minWidth: 34,
        p: 0,
        color: surround.text,
        bgcolor: '#4d4d4d',
        '&.Mui-disabled': { color: '#8a8a8a' },
      }}
    >
      {children}
    </Button>
  );
}
