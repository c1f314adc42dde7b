import type { Reference } from '@fendrix/contract';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useState } from 'react';
import { FileButton } from '../../../shared/FileButton';
import { WordsField } from '../../../shared/form/WordsField';
import { Section } from '../../../shared/Section';
import { surround } from '../../../shared/theme';
import { useAttempt } from '../../../shared/useAttempt';
import { jobsApi, pictureUrl } from '../api';
import { useEditJob, useJob } from '../state/openJob';

/** Pictures whose look is wanted, dropped in or chosen; kept by their content. */
export function References() {
  const { references } = useJob().brief;
  const edit = useEditJob();
  const attempt = useAttempt();
  const [keep, { isLoading }] = jobsApi.useKeepPictureMutation();
  const [over, setOver] = useState(false);
  const set = (work: (rows: Reference[]) => Reference[], gesture: string | null = null) =>
    edit((job) => ({ ...job, brief: { ...job.brief, references: work(job.brief.references) } }), gesture);

  const take = (files: Iterable<File>) =>
    attempt(async () => {
      for (const one of files) {
        const { sha256 } = await keep(one).unwrap();
        const name = one.name.replace(/\.\w+$/, '').slice(0, 80) || 'Reference';
        set((rows) =>
          rows.some((row) => row.sha256 === sha256) ? rows : [...rows, { sha256, name, note: '' }],
        );
      }
    });

  return (
    <Section
      title="Reference pictures"
      action={
        <FileButton
          size="small"
          words="Choose"
          label="Reference pictures to keep"
          accept="image/jpeg,image/png,image/webp"
          multiple
          onFiles={take}
        />
      }
    >
      <Box
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          take([...event.dataTransfer.files]);
        }}
        sx={{
          border: '1px dashed',
          borderColor: over ? 'primary.main' : 'divider',
          p: 1.5,
          fontSize: '0.8125rem',
          color: 'text.secondary',
        }}
      >
        {isLoading && <LinearProgress aria-label="The picture is being kept" />}
        {references.length === 0 &&
          'Drop pictures here that come near to what is wanted. They stay beside the work.'}
        {references.map(({ sha256, name, note }) => (
          <Box key={sha256} sx={{ mb: 1.5 }}>
            <Box
              component="img"
              src={pictureUrl(sha256)}
              alt={name}
              sx={{
                display: 'block',
                width: '100%',
                maxHeight: 220,
                objectFit: 'contain',
                bgcolor: surround.reference,
              }}
            />
            <WordsField
              label="name"
              value={name}
              wide
              onCommit={(text, gesture) =>
                set((rows) => rows.map((r) => (r.sha256 === sha256 ? { ...r, name: text } : r)), gesture)
              }
            />
            <WordsField
              label="what of it is wanted"
              multiline
              value={note}
              onCommit={(text, gesture) =>
                set((rows) => rows.map((r) => (r.sha256 === sha256 ? { ...r, note: text } : r)), gesture)
              }
            />
            <Button
              size="small"
              color="inherit"
              aria-label={`Remove ${name}`}
              onClick={() => set((rows) => rows.filter((r) => r.sha256 !== sha256))}
            >
              Remove
            </Button>
          </Box>
        ))}
      </Box>
    </Section>
  );
}
