import type { Plate } from '@fendrix/contract';
import { plateFindings } from '@fendrix/core';
import { PLATE_GIVES, plateChangeWords } from '@fendrix/words';
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Checkbox from '@mui/material/Checkbox';
import IconButton from '@mui/material/IconButton';
import { useMemo } from 'react';
import { benchActions } from '../state/benchSlice';
import { useBenchDispatch, useSet } from '../state/hooks';
import { changePlate, movePlate } from '../state/plates';
import { edit } from '../state/thunks';

/** The plates in the order in which they are laid; pressing one opens it. */
export function PlateRows({ plates, chosen }: { plates: readonly Plate[]; chosen: string | null }) {
  return (
    <Box component="ol" aria-label="Plates, lowest first" sx={{ m: 0, p: 0, listStyle: 'none' }}>
      {plates.map((plate, index) => (
        <PlateRow
          key={plate.id}
          plate={plate}
          chosen={plate.id === chosen}
          first={index === 0}
          last={index === plates.length - 1}
        />
      ))}
    </Box>
  );
}

function PlateRow({
  plate,
  chosen,
  first,
  last,
}: {
  plate: Plate;
  chosen: boolean;
  first: boolean;
  last: boolean;
}) {
  const set = useSet();
  const dispatch = useBenchDispatch();
  const findings = useMemo(() => plateFindings(set, plate).length, [set, plate]);
  const other = useMemo(() => plateChangeWords(set, plate, 3), [set, plate]);
  const { id, name, gives, laid } = plate;
  return (
    <Box
      component="li"
      sx={{
        display: 'flex',
        alignItems: 'center',
        borderLeft: '3px solid',
        borderLeftColor: chosen ? 'primary.main' : 'transparent',
        borderBottom: '1px solid',
        borderBottomColor: 'divider',
      }}
    >
      <Checkbox
        size="small"
        checked={laid}
        slotProps={{ input: { 'aria-label': `Lay ${name} into the picture` } }}
        onChange={() => dispatch(edit(changePlate(id, () => ({ laid: !laid }))))}
      />
      <ButtonBase
        aria-expanded={chosen}
        onClick={() =>
          dispatch(
            benchActions.platesChanged({
              chosen: chosen ? null : id,
              pointing: null,
              ...(chosen ? { maskShown: false } : {}),
            }),
          )
        }
        sx={{ flex: 1, minWidth: 0, display: 'block', textAlign: 'left', py: 0.5, fontSize: '0.8125rem' }}
      >
        <Box component="span" sx={{ fontWeight: 650 }}>
          {name}
        </Box>
        {gives !== 'other' &&
          !name.toLowerCase().startsWith(PLATE_GIVES[gives]) &&
          ` · ${PLATE_GIVES[gives]}`}
        {findings > 0 && (
          <Box component="span" sx={{ color: 'warning.main' }}>
            {` · ${findings} to mend`}
          </Box>
        )}
        <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>{other}</Box>
      </ButtonBase>
      <IconButton
        size="small"
        aria-label={`Lay ${name} lower`}
        disabled={first}
        onClick={() => dispatch(edit(movePlate(id, -1)))}
      >
        <ArrowUpwardIcon fontSize="small" />
      </IconButton>
      <IconButton
        size="small"
        aria-label={`Lay ${name} higher`}
        disabled={last}
        onClick={() => dispatch(edit(movePlate(id, 1)))}
      >
        <ArrowDownwardIcon fontSize="small" />
      </IconButton>
    </Box>
  );
}
