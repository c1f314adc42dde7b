import InputBase from '@mui/material/InputBase';
import { useId, useState } from 'react';
import { usePending } from '../../../shared/pending';
import { Row } from '../../../shared/Row';

/** A day, by the browser's own calendar or typed; emptied, there is none. */
export function DayField({
  label,
  value,
  onCommit,
}: {
  label: string;
  value: string | undefined;
  onCommit(day: string | null): void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const id = useId();
  const commit = () => {
    if (draft !== null && draft !== (value ?? '')) onCommit(draft === '' ? null : draft);
    setDraft(null);
  };
  usePending(draft === null ? null : commit);
  return (
    <Row label={label} htmlFor={id}>
      <InputBase
        id={id}
        type="date"
        value={draft ?? value ?? ''}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          event.stopPropagation();
        }}
        sx={{ fontSize: '0.8125rem', '& input': { p: 0, height: 26 } }}
      />
    </Row>
  );
}
