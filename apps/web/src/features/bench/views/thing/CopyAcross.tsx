import Button from '@mui/material/Button';
import { benchActions } from '../../state/benchSlice';
import { useBenchDispatch } from '../../state/hooks';
import { copyKey, copyToOtherSide } from '../../state/placing';
import { edit } from '../../state/thunks';
import type { PanelProps } from './ThingFields';

/** Puts the same on the other side of the mark, and takes hold of it. */
export function CopyAcross({ set, thing }: PanelProps) {
  const dispatch = useBenchDispatch();
  const ref = copyKey(set, thing);
  if (!ref) return null;
  return (
    <Button
      size="small"
      color="inherit"
      sx={{ px: 0, display: 'block' }}
      onClick={() => {
        if (dispatch(edit(copyToOtherSide(thing, ref.key)))) dispatch(benchActions.selected(ref));
      }}
    >
      Put the same on the other side
    </Button>
  );
}
