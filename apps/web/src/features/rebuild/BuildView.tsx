import type { SetDocument, StoredSet } from '@fendrix/contract';
import { buildList } from '@fendrix/core';
import { buildWords, sheetMarks } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { failureMessage } from '../../shared/api';
import { Choice } from '../../shared/Choice';
import { Page } from '../../shared/Page';
import { Section } from '../../shared/Section';
import { StepTable } from '../../shared/StepTable';
import { useEquipment } from '../kit';
import { setsApi } from '../sets';
import { LaidOver } from './LaidOver';
import { useTicks } from './useTicks';

/** A set built step by step, the picture it is to stand beside laid over what the camera sees. */
export function BuildView() {
  const { id = '' } = useParams();
  const [query] = useSearchParams();
  const from = query.get('from') ?? '';
  const set = setsApi.useReadSetQuery(id, { refetchOnMountOrArgChange: true });
  const old = setsApi.useReadSetQuery(from, { skip: from === '' });
  useEffect(() => {
    document.title = 'Build · Fendrix';
  }, []);
  return (
    <Page title={set.data ? `Build “${set.data.name}”` : 'Build'} wide>
      <Box sx={{ mb: 2 }}>
        <Button component={Link} to={`/sets/${id}`} size="small" variant="outlined" color="inherit">
          To its bench
        </Button>
      </Box>
      {set.error ? (
        <Alert severity="error">{failureMessage(set.error)}</Alert>
      ) : !set.data || (from !== '' && old.isLoading) ? (
        <LinearProgress aria-label="The set is being read" />
      ) : (
        <Building stored={set.data} before={old.data ?? null} frame={query.get('frame')} />
      )}
    </Page>
  );
}

/** Without table and room there is nothing to lay tapes from but the centre: things are told by distance and bearing then. */
const NO_MARKS = ['centre', 'centre'] as const;

function Building({
  stored,
  before,
  frame,
}: {
  stored: StoredSet;
  before: StoredSet | null;
  frame: string | null;
}) {
  const [stands, setStands] = useState<'nothing' | 'old'>('nothing');
  const from: SetDocument | null = stands === 'old' ? (before?.document ?? null) : null;
  const studio = useEquipment()?.studio;
  const { document: set } = stored;
  const marks = sheetMarks(set) ?? NO_MARKS;
  const steps = useMemo(
    () =>
      buildList(from, set, marks, studio).map((step) => ({
        ...step,
        ...buildWords(step, set, marks),
      })),
    [from, set, marks, studio],
  );
  const { isDone, tick } = useTicks(stored.id);
  const done = steps.filter(({ key }) => isDone(key)).length;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { md: '3fr 2fr' }, gap: 4, alignItems: 'start' }}>
      <Section title={steps.length === 0 ? 'It stands already' : `${done} of ${steps.length} done`}>
        {before && (
          <Box sx={{ maxWidth: 420, mb: 1 }}>
            <Choice
              shown
              label="There stands"
              value={stands}
              options={[
                { value: 'nothing', words: 'nothing: an empty table' },
                { value: 'old', words: `“${before.name}”` },
              ]}
              onChoose={setStands}
            />
          </Box>
        )}
        <StepTable
          name="build"
          columns={['Done', 'What', 'Where', 'How']}
          steps={steps}
          isDone={isDone}
          onTick={tick}
        />
      </Section>
      <Box sx={{ position: { md: 'sticky' }, top: 16 }}>
        <LaidOver set={stored} old={before} frame={frame} />
      </Box>
    </Box>
  );
}
