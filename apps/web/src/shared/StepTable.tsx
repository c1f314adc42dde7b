import type { SetCaution } from '@fendrix/core';
import { setCautionWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Checkbox from '@mui/material/Checkbox';
import { PlainTable } from './PlainTable';

export interface TableStep {
  key: string;
  title: string;
  numbers: readonly { label: string; value: string }[];
  notes: readonly string[];
  cautions: readonly SetCaution[];
}

/** Steps that are done one after the other, with a tick each. @param columns heads of them; the first also says what a tick means */
export function StepTable({
  name,
  columns,
  steps,
  isDone,
  onTick,
}: {
  name: string;
  columns: readonly [string, string, string, string];
  steps: readonly TableStep[];
  isDone(key: string): boolean;
  onTick(key: string, done: boolean): void;
}) {
  const [ticked] = columns;
  return (
    <PlainTable name={name}>
      <thead>
        <tr>
          {columns.map((column) => (
            <th key={column} scope="col">
              {column}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {steps.map(({ key, title, numbers, notes, cautions }) => (
          <tr key={key}>
            <td>
              <Checkbox
                size="small"
                sx={{ p: 0 }}
                checked={isDone(key)}
                onChange={(_, checked) => onTick(key, checked)}
                slotProps={{ input: { 'aria-label': `${title}: ${ticked.toLowerCase()}` } }}
              />
            </td>
            <th scope="row" style={{ fontWeight: 650, minWidth: 140 }}>
              {title}
            </th>
            <td>
              {numbers.map(({ label, value }) => (
                <div key={label} style={{ whiteSpace: 'nowrap' }}>
                  <span className="number">{value}</span> {label}
                </div>
              ))}
            </td>
            <td>
              {cautions.map((caution) => (
                <Alert key={caution.code} role="note" severity="warning" sx={{ py: 0, mb: 0.5 }}>
                  {setCautionWords(caution)}
                </Alert>
              ))}
              {notes.join(' ')}
            </td>
          </tr>
        ))}
      </tbody>
    </PlainTable>
  );
}
