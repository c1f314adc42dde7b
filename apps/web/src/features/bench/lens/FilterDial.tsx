import { isSure } from '@fendrix/core';
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import { memo } from 'react';
import { surround } from '../../../shared/theme';
import { changeCamera } from '../state/edits';
import { useBenchDispatch, useReadings, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';

/** A filter turned by half a round is as before. */
const HALF_TURN = 180;
const QUARTER = 45;

/** The ring of the polariser on the lens: turned, the picture follows without a ray; beside it what it takes from each spot. */
export const FilterDial = memo(function FilterDial() {
  const filter = useSetPart((set) => set.camera.polariser);
  const readings = useReadings();
  const dispatch = useBenchDispatch();
  if (!filter) return null;
  const turned = upright(filter.axisDeg);
  const turn = (axisDeg: number) =>
    dispatch(edit(changeCamera({ polariser: { ...filter, axisDeg: upright(axisDeg) } }), 'filter'));
  const taken = readings.flatMap((reading) =>
    reading.filterStops === null
      ? []
      : [`${reading.name} ${isSure(reading) ? '' : '≈'}${reading.filterStops.toFixed(1)}`],
  );
  return (
    <Box
      role="group"
      aria-label="Polariser on the lens"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        pt: 0.5,
        fontSize: '0.75rem',
        color: surround.text,
      }}
    >
      <Box sx={{ whiteSpace: 'nowrap' }}>polariser, turned</Box>
      <Slider
        size="small"
        aria-label="Polariser turned from upright"
        value={turned}
        min={-HALF_TURN / 2}
        max={HALF_TURN / 2}
        step={1}
        marks={[-2, -1, 0, 1, 2].map((part) => ({ value: QUARTER * part }))}
        valueLabelDisplay="off"
        getAriaValueText={degrees}
        onChange={(_, value) => turn(value as number)}
        sx={{ width: 160, color: surround.accent }}
      />
      <Box className="number" data-testid="filter-turned" sx={{ width: 40 }}>
        {degrees(turned)}
      </Box>
      <Box role="status" data-testid="filter-takes" sx={{ minWidth: 0 }}>
        {taken.length > 0
          ? `takes, in stops: ${taken.join(', ')}`
          : 'Pin a spot on the glare (P): what the polariser takes from it is told here.'}
      </Box>
    </Box>
  );
});

const degrees = (deg: number): string => `${Math.round(deg)}°`.replace('-', '−');

/** The same turn, from a quarter to the left to a quarter to the right. */
function upright(deg: number): number {
  const turned = ((deg % HALF_TURN) + HALF_TURN) % HALF_TURN;
  return turned > HALF_TURN / 2 ? turned - HALF_TURN : turned;
}
