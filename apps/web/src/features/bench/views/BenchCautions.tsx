import type { SetDocument } from '@fendrix/contract';
import { setCautions } from '@fendrix/core';
import { setCautionWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import { memo, useDeferredValue, useMemo } from 'react';
import { useUnchanged } from '../../../shared/useUnchanged';
import { useEquipment } from '../../kit';
import { toggleHazard } from '../state/edits';
import { useBenchDispatch, useSet } from '../state/hooks';
import { edit } from '../state/thunks';

type Hazard = SetDocument['hazards'][number];

const HAZARDS: Record<Hazard, string> = {
  flame: 'open flame',
  'dry-ice': 'dry ice',
  spray: 'sprays, dulling spray',
  photosensitive: 'someone whom flashes harm',
};

/** Cautions that apply to the set as it stands, and what else calls for care that cannot be seen from it. */
export const BenchCautions = memo(function BenchCautions() {
  const set = useDeferredValue(useSet());
  const studio = useEquipment()?.studio;
  const cautions = useMemo(() => setCautions(set, studio).map(setCautionWords), [set, studio]);
  return (
    <Box component="section" aria-label="Cautions" sx={{ display: 'grid', gap: 0.5 }}>
      <CautionList cautions={useUnchanged(cautions)} />
      <Hazards present={set.hazards} />
    </Box>
  );
});

const CautionList = memo(function CautionList({ cautions }: { cautions: string[] }) {
  if (cautions.length === 0) return null;
  return (
    <>
      {cautions.map((words) => (
        <Alert key={words} role="note" severity="warning" sx={{ py: 0, px: 1, fontSize: '0.75rem' }}>
          {words}
        </Alert>
      ))}
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>
        Usual practice. Your local codes and qualified people come first.
      </Box>
    </>
  );
});

const Hazards = memo(function Hazards({ present }: { present: readonly Hazard[] }) {
  const dispatch = useBenchDispatch();
  return (
    <Box component="details" open={present.length > 0}>
      <Box component="summary" sx={{ cursor: 'pointer', fontSize: '0.75rem', color: 'text.secondary' }}>
        What else calls for care today?
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, py: 0.5 }}>
        {(Object.keys(HAZARDS) as Hazard[]).map((hazard) => (
          <Chip
            key={hazard}
            size="small"
            label={HAZARDS[hazard]}
            aria-pressed={present.includes(hazard)}
            color={present.includes(hazard) ? 'warning' : 'default'}
            onClick={() => dispatch(edit(toggleHazard(hazard)))}
          />
        ))}
      </Box>
    </Box>
  );
});
