import type { SetChange } from '@fendrix/core';
import Button from '@mui/material/Button';
import { benchActions } from '../state/benchSlice';
import { useBenchDispatch } from '../state/hooks';

/** Shows what a change would make of the picture, wiped over it, and dashed in the plans, before it is taken. */
export function ShowChange({ change, words }: { change: SetChange; words: string }) {
  const dispatch = useBenchDispatch();
  const against = { kind: 'change' as const, change, words };
  return (
    <Button
      size="small"
      color="inherit"
      aria-label={`Show: ${words}`}
      onClick={() => dispatch(benchActions.compared({ against, mode: 'wipe' }))}
    >
      Show it
    </Button>
  );
}
