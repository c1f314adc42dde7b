import type { SetDocument } from '@fendrix/contract';
import { formatPower, onDial } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Switch from '@mui/material/Switch';
import { memo } from 'react';
import { Tag } from '../../../shared/Tag';
import { surround } from '../../../shared/theme';
import { benchActions } from '../state/benchSlice';
import { changeLight } from '../state/edits';
import { useBench, useBenchDispatch, useSetPart } from '../state/hooks';
import { LOWEST_ON_SLIDER } from '../state/lightPower';
import { edit } from '../state/thunks';

const THIRD = 1 / 3;
const LOWEST = -20;

/** Power and switch of each light, a third of a stop at a time or by a slider. */
export const LightPowers = memo(function LightPowers() {
  const tags = useSetPart((set) => set.lights.map(({ tag }) => tag).join(''));
  if (tags === '') {
    return <Box sx={{ color: surround.quiet }}>No light yet: add one with the button over the plan.</Box>;
  }
  return (
    <Box
      component="section"
      aria-label="Power of the lights"
      sx={{ display: 'grid', gap: 0.25, alignContent: 'start' }}
    >
      {[...tags].map((tag) => (
        <PowerRow key={tag} tag={tag} />
      ))}
    </Box>
  );
});

/** One light's power; a light that moves leaves it alone. */
const PowerRow = memo(function PowerRow({ tag }: { tag: string }) {
  const dispatch = useBenchDispatch();
  const power = useSetPart((set) => lightOf(set, tag)?.powerStops ?? 0);
  const on = useSetPart((set) => lightOf(set, tag)?.on ?? false);
  const dial = useSetPart((set) => lightOf(set, tag)?.dial);
  const alone = useBench((bench) => bench.alone === tag);
  const step = (by: number) =>
    dispatch(
      edit(
        changeLight(tag, (light) => ({
          ...light,
          powerStops: Math.max(LOWEST, Math.min(0, Math.round((light.powerStops + by) * 3) / 3)),
        })),
      ),
    );
  /** One run of the slider is one step of undo. */
  const slide = (powerStops: number) =>
    dispatch(
      edit(
        changeLight(tag, (light) => ({ ...light, powerStops: onDial(light, powerStops) })),
        `power ${tag}`,
      ),
    );
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75, height: 26 }}>
      <Tag>{tag}</Tag>
      <Box
        className="number"
        sx={{ width: 74, whiteSpace: 'nowrap', color: on ? surround.text : surround.quiet }}
      >
        {formatPower(power)}
      </Box>
      <Box
        component="input"
        type="range"
        aria-label={`Power of ${tag}`}
        aria-valuetext={formatPower(power)}
        min={dial?.leastStops ?? LOWEST_ON_SLIDER}
        max={0}
        step={dial?.stepStops ?? 0.1}
        value={power}
        onChange={(event: { currentTarget: { value: string } }) => slide(Number(event.currentTarget.value))}
        onKeyDown={(event: { stopPropagation(): void }) => event.stopPropagation()}
        sx={{ width: 56, accentColor: surround.accent }}
      />
      <PowerButton label={`${tag} a third of a stop down`} onClick={() => step(-THIRD)}>
        −⅓
      </PowerButton>
      <PowerButton label={`${tag} a third of a stop up`} onClick={() => step(THIRD)} disabled={power >= 0}>
        +⅓
      </PowerButton>
      <PowerButton
        label={`Only ${tag}`}
        pressed={alone}
        onClick={() => dispatch(benchActions.aloneToggled(tag))}
      >
        only
      </PowerButton>
      <Switch
        size="small"
        checked={on}
        onChange={() => dispatch(edit(changeLight(tag, (old) => ({ ...old, on: !old.on }))))}
        slotProps={{ input: { 'aria-label': `${tag} on` } }}
      />
    </Box>
  );
});

const lightOf = (set: SetDocument, tag: string) => set.lights.find((light) => light.tag === tag);

interface PowerButtonProps {
  label: string;
  disabled?: boolean;
  /** Of one that stays pressed. */
  pressed?: boolean;
  onClick(): void;
  children: string;
}

function PowerButton({ label, disabled = false, pressed, onClick, children }: PowerButtonProps) {
  return (
    <Button
      size="small"
      aria-label={label}
      aria-pressed={pressed}
      disabled={disabled}
      onClick={onClick}
      className="number"
      sx={{
        minWidth: 34,
        p: 0,
        color: pressed ? surround.ink : surround.text,
        bgcolor: pressed ? surround.accent : surround.raised,
        '&.Mui-disabled': { color: surround.off },
      }}
    >
      {children}
    </Button>
  );
}
