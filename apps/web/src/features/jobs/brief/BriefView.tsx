import type { Brief, Job } from '@fendrix/contract';
import { jobProgress, openQuestions } from '@fendrix/core';
import { progressWords, questionWords } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { WordsField } from '../../../shared/form/WordsField';
import { QuantityField } from '../../../shared/QuantityField';
import { Section } from '../../../shared/Section';
import { useEditJob, useJob } from '../state/openJob';
import { DayField } from './DayField';
import { Formats } from './Formats';
import { References } from './References';
import { SuppliedProducts } from './SuppliedProducts';

/** What the client wants: need, mood, formats, deadline, references, products; what is still to be asked. */
export function BriefView() {
  const job = useJob();
  const edit = useEditJob();
  const { brief } = job;
  const set = (changes: Partial<Job>, gesture: string | null = null) =>
    edit((now) => ({ ...now, ...changes }), gesture);
  const setBrief = (changes: Partial<Brief>, gesture: string | null = null) =>
    edit((now) => ({ ...now, brief: { ...now.brief, ...changes } }), gesture);
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) 320px' }, gap: 4 }}>
      <Box sx={{ minWidth: 0 }}>
        <Section
          title="Brief"
          action={
            <Button size="small" onClick={() => window.print()}>
              Print
            </Button>
          }
        >
          <WordsField
            label="name of the job"
            value={job.name}
            onCommit={(name, gesture) => set({ name }, gesture)}
            wide
          />
          <WordsField
            label="client"
            value={job.client}
            onCommit={(client, gesture) => set({ client }, gesture)}
            wide
          />
          <DayField
            label="due on"
            value={job.dueOn}
            onCommit={(dueOn) => edit((now) => withDay(now, dueOn))}
          />
          <QuantityField
            label="pictures agreed"
            shown={brief.pictures === undefined ? '' : String(brief.pictures)}
            parse={parseCount}
            example="12"
            onCommit={(pictures) => setBrief({ pictures })}
            onClear={() => setBrief({ pictures: undefined })}
          />
          <WordsField
            label="what is sold, to whom, and what the pictures must do"
            multiline
            value={brief.need}
            onCommit={(need, gesture) => setBrief({ need }, gesture)}
          />
          <WordsField
            label="mood: bright and airy, dark and moody, seasonal"
            multiline
            value={brief.mood}
            onCommit={(mood, gesture) => setBrief({ mood }, gesture)}
          />
          <WordsField
            label="notes"
            multiline
            value={brief.notes}
            onCommit={(notes, gesture) => setBrief({ notes }, gesture)}
          />
        </Section>
        <Formats />
        <SuppliedProducts />
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <NextStep job={job} onDelivered={(delivered) => set({ delivered })} />
        <Questions job={job} />
        <References />
      </Box>
    </Box>
  );
}

function NextStep({ job, onDelivered }: { job: Job; onDelivered(delivered: boolean): void }) {
  return (
    <Section title="Next">
      <Typography variant="body2">{progressWords(jobProgress(job))}.</Typography>
      <FormControlLabel
        control={<Switch size="small" checked={job.delivered} onChange={(_, on) => onDelivered(on)} />}
        label="The pictures are delivered"
        sx={{ mt: 0.5 }}
      />
    </Section>
  );
}

function Questions({ job }: { job: Job }) {
  const questions = openQuestions(job).map(questionWords);
  return (
    <Section title={questions.length > 0 ? `To ask the client (${questions.length})` : 'To ask the client'}>
      {questions.length === 0 ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Nothing: the brief answers what the work needs.
        </Typography>
      ) : (
        <Box component="ul" sx={{ m: 0, pl: 2.25, fontSize: '0.8125rem', lineHeight: 1.6 }}>
          {questions.map((question) => (
            <li key={question}>{question}</li>
          ))}
        </Box>
      )}
    </Section>
  );
}

function withDay({ dueOn: _dueOn, ...job }: Job, day: string | null): Job {
  return day === null ? job : { ...job, dueOn: day };
}

function parseCount(text: string): number | null {
  const value = Number(text);
  return Number.isInteger(value) && value > 0 ? value : null;
}
