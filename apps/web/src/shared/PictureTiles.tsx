import Box from '@mui/material/Box';
import { type ReactNode, useId } from 'react';

/** One of a few, each by its picture over its words. */
export function PictureTiles<T extends string>({
  label,
  value,
  options,
  leastWidth = 76,
  onChoose,
}: {
  label: string;
  value: T;
  options: readonly { value: T; words: string; picture: ReactNode }[];
  /** Of a tile, px. */
  leastWidth?: number;
  onChoose(value: T): void;
}) {
  const group = useId();
  return (
    <Box
      role="radiogroup"
      aria-label={label}
      sx={{
        gridColumn: '1 / -1',
        display: 'grid',
        gridTemplateColumns: `repeat(auto-fill, minmax(${leastWidth}px, 1fr))`,
        gap: 0.5,
        maxHeight: 330,
        overflow: 'auto',
      }}
    >
      {options.map((option) => (
        <Box
          key={option.value}
          component="label"
          sx={{
            position: 'relative',
            p: '2px',
            fontSize: '0.75rem',
            lineHeight: 1.3,
            textAlign: 'center',
            cursor: 'pointer',
            border: 2,
            borderColor: option.value === value ? 'primary.main' : 'transparent',
            '&:has(:focus-visible)': { outline: '2px solid currentColor', outlineOffset: -2 },
          }}
        >
          <input
            type="radio"
            name={group}
            checked={option.value === value}
            onChange={() => onChoose(option.value)}
            style={{ position: 'absolute', opacity: 0 }}
          />
          <Box sx={{ display: 'grid', justifyItems: 'center' }}>{option.picture}</Box>
          {option.words}
        </Box>
      ))}
    </Box>
  );
}
