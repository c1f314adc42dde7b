import { setCautions } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { memo, useDeferredValue, useMemo } from 'react';
import { useUnchanged } from '../../../shared/useUnchanged';
import { useSet } from '../state/hooks';

/** Cautions that apply to the set as it stands. */
export const BenchCautions = memo(function BenchCautions() {
  const set = useDeferredValue(useSet());
  const cautions = useMemo(() => setCautions(set), [set]);
  return <CautionList cautions={useUnchanged(cautions)} />;
});

const CautionList = memo(function CautionList({ cautions }: { cautions: string[] }) {
  if (cautions.length === 0) return null;
  return (
    <Box component="section" aria-label="Cautions" sx={{ display: 'grid', gap: 0.5 }}>
      {cautions.map((words) => (
        <Alert key={words} role="note" severity="warning" sx={{ py: 0, px: 1, fontSize: '0.75rem' }}>
          {words}
        </Alert>
      ))}
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>
        Usual practice. Your local codes and qualified people come first.
      </Box>
    </Box>
  );
});
