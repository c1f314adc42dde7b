import type { Wishes } from '@fendrix/contract';
import { formatLength, parseLengthM } from '@fendrix/core';
import { WISH_FIGURES, type WishFigure } from '@fendrix/words';
import Box from '@mui/material/Box';
import { QuantityField } from '../../../shared/QuantityField';
import { stopsQuantity } from '../desk/stopsQuantity';
import { useBenchDispatch, useSetPart } from '../state/hooks';
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
  finePart: {
    format: (part: number) => `${Number((100 * part).toFixed(2))} %`,
    parse(text: string): number | null {
      const value = Number(text.replace('%', '').replace(',', '.').trim());
      return Number.isFinite(value) && value >= 0.05 && value <= 20 ? value / 100 : null;
    },
    example: '0.5 %',
  },
  m: { format: formatLength, parse: (text: string) => parseLengthM(text), example: '3 cm' },
} as const;

/** Those that always have a figure. */
const ALWAYS: ReadonlySet<WishFigure> = new Set([
  'greyStops',
  'darkestStops',
  'gradientFromStops',
  'gradientToStops',
]);

/** Wishes that are a figure; those that are empty are as usual. */
export function WishFigures({ wishes }: { wishes: Wishes }) {
  const dispatch = useBenchDispatch();
  const products = useSetPart((set) => set.products);
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
        const always = ALWAYS.has(name);
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
      {products.length > 1 &&
        products.map(({ id, name }) => <HeldTones key={id} id={id} name={name} wishes={wishes} />)}
    </Box>
  );
}

const HELD = { darkestStops: 'Darkest', brightestStops: 'Brightest' } as const;

/** Tones of one product of several that are to hold detail. */
function HeldTones({ id, name, wishes }: { id: string; name: string; wishes: Wishes }) {
  const dispatch = useBenchDispatch();
  const own = wishes.held.find(({ product }) => product === id);
  const set = (tone: keyof typeof HELD, value: number | undefined) =>
    dispatch(
      edit((now) => {
        const { [tone]: _old, ...rest } = now.wishes.held.find(({ product }) => product === id) ?? {
          product: id,
        };
        const kept = value === undefined ? rest : { ...rest, [tone]: value };
        const others = now.wishes.held.filter(({ product }) => product !== id);
        const held = Object.keys(kept).length > 1 ? [...others, kept] : others;
        return { ...now, wishes: { ...now.wishes, held } };
      }),
    );
  return (Object.keys(HELD) as (keyof typeof HELD)[]).map((tone) => (
    <QuantityField
      key={tone}
      label={`${HELD[tone]}, ${name}`}
      hint={WISH_FIGURES[tone].hint}
      shown={own?.[tone] === undefined ? '' : stopsQuantity.format(own[tone])}
      parse={stopsQuantity.parse}
      example={stopsQuantity.example}
      none="as the others"
      onCommit={(next) => set(tone, next)}
      onClear={() => set(tone, undefined)}
    />
  ));
}
