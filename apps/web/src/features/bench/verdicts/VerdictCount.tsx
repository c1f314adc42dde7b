import Button from '@mui/material/Button';
import { surround } from '../../../shared/theme';
import { benchActions } from '../state/benchSlice';
import { useBenchDispatch } from '../state/hooks';
import { openVerdicts, useJudged } from './verdictsContext';

/** How much is wrong, in the header; pressed, the list is shown. */
export function VerdictCount() {
  const judged = useJudged();
  const dispatch = useBenchDispatch();
  if (!judged) return null;
  const open = openVerdicts(judged).length;
  return (
    <Button
      size="small"
      data-testid="verdict-count"
      onClick={() => dispatch(benchActions.verdictChosen(null))}
      sx={{ color: open > 0 ? surround.caution : surround.quiet, whiteSpace: 'nowrap' }}
    >
      {open === 0 ? 'nothing wrong' : open === 1 ? '1 verdict' : `${open} verdicts`}
    </Button>
  );
}
