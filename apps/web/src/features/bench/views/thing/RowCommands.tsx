import type { SetDocument } from '@fendrix/contract';
import { labelsToLens, linedUp, spacedEvenly } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { useBenchDispatch } from '../../state/hooks';
import { edit } from '../../state/thunks';

const COMMANDS: readonly { words: string; make(set: SetDocument): SetDocument | null }[] = [
  { words: 'Space evenly', make: spacedEvenly },
  { words: 'Line up', make: linedUp },
  { words: 'Turn labels to the lens', make: labelsToLens },
];

/** What puts products in order, each by one press; those that would change nothing are not there. */
export function RowCommands({ set }: { set: SetDocument }) {
  const dispatch = useBenchDispatch();
  const { products, camera } = set;
  const open = useMemo(() => COMMANDS.filter(({ make }) => make(set) !== null), [products, camera]);
  if (open.length === 0) return null;
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, my: 0.5 }}>
      {open.map(({ words, make }) => (
        <Button
          key={words}
          size="small"
          variant="outlined"
          sx={{ py: 0 }}
          onClick={() => dispatch(edit((now) => make(now) ?? now))}
        >
          {words}
        </Button>
      ))}
    </Box>
  );
}
