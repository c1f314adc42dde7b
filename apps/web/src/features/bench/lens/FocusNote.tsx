import { formatLength, outOfFocus } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo, useDeferredValue, useMemo } from 'react';
import { surround } from '../../../shared/theme';
import { changeCamera } from '../state/edits';
import { useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';

/** Tells which product is out of focus by more than the depth, with the way to focus on it. */
export const FocusNote = memo(function FocusNote() {
  // A note that waits does not slow a drag.
  const camera = useDeferredValue(useSetPart((set) => set.camera));
  const products = useDeferredValue(useSetPart((set) => set.products));
  const dispatch = useBenchDispatch();
  const [first] = useMemo(
    () => outOfFocus({ camera, products }).sort((a, b) => b.byM - a.byM),
    [camera, products],
  );
  if (!first) return null;
  const { name, byM, focusIs, nearM } = first;
  return (
    <Box role="status" data-testid="focus-note" sx={{ color: surround.caution, fontSize: '0.75rem' }}>
      {name} is out of focus: it lies {formatLength(byM)} {focusIs === 'before' ? 'behind' : 'before'} what is
      sharp.
      <Button
        size="small"
        sx={{ color: surround.caution, py: 0 }}
        onClick={() => dispatch(edit(changeCamera({ focusM: nearM, focusOn: undefined })))}
      >
        Focus on it
      </Button>
    </Box>
  );
});
