import type { Wishes } from '@fendrix/contract';
import { formatLength, parseLengthM } from '@fendrix/core';
import { WISH_FIGURES, type WishFigure } from '@fendrix/words';
import Box from '@mui/material/Box';
import { QuantityField } from '../../../shared/QuantityField';
import { stopsQuantity } from '../desk/stopsQuantity';
import { useBenchDispatch } from '../state/hooks';
import { edit } from '../state/thunks';

const QUANTITIES = {
  stops: stopsQuantity,
  part: {
    format: (part: number) => `${Math.round(100 * part)} %`,
    parse(text: string): number | null {
      const value = Number(text.replace('%', '').replace(',', '.').trim());
      return Number.isFinite(value) && value >= 2 && value <= 100 ? value / 100 : null;
    },
    example: '30 %',
  },
  m: { format: formatLength, parse: (text: string) => parseLengthM(text), example: '3 cm' },
} as const;

/** Wishes that are a figure; those that are empty are as usual. */
export function WishFigures({ wishes }: { wishes: Wishes }) {
  const dispatch = useBenchDispatch();
  const set = (name: WishFigure, value: number | undefined) =>
    dispatch(
      edit((now) => {
        const { [name]: _old, ...rest } = now.wishes;
        return { ...now, wishes: (value === undefined ? rest : { ...rest, [name]: value }) as Wishes };
      }),
    );
  return (
    <Box sx={{ mt: 1 }} data-testid="wish-figures">
      {(Object.keys(WISH_FIGURES) as WishFigure[]).map((name) => {
        const { label, hint, in: unit } = WISH_FIGURES[name];
        const { format, parse, example } = QUANTITIES[unit];
        const value = wishes[name];
        const always = name === 'greyStops' || name === 'darkestStops';
        return (
          <QuantityField
            key={name}
            label={label}
            hint={hint}
            shown={value === undefined ? '' : format(value)}
            parse={parse}
            example={example}
            onCommit={(next) => set(name, next)}
            {...(always ? {} : { none: 'as usual', onClear: () => set(name, undefined) })}
          />
        );
      })}
    </Box>
  );
}
