import type { Deliverable } from '@fendrix/contract';
import Button from '@mui/material/Button';
import { useCallback, useMemo } from 'react';
import { EditableGrid, type GridColumn } from '../../../shared/EditableGrid';
import { changeRow, freeId, withoutRow } from '../../../shared/rows';
import { Section } from '../../../shared/Section';
import { partQuantity } from '../quantities';
import { useEditJob, useJob } from '../state/openJob';
import { FormatDrawings } from './FormatDrawings';

const choices = (words: Record<string, string>) =>
  Object.entries(words).map(([value, label]) => ({ value, label }));

const COLUMNS: readonly GridColumn<Deliverable>[] = [
  { field: 'name', title: 'Where it runs', flex: 1, minWidth: 104 },
  { field: 'widthPx', title: 'Width, px', kind: 'number', width: 88 },
  { field: 'heightPx', title: 'Height, px', kind: 'number', width: 92 },
  {
    field: 'marginPart',
    title: 'Margin',
    hint: 'Kept free all round the product, part of the width',
    kind: 'number',
    quantity: partQuantity,
    width: 72,
  },
  {
    field: 'copySide',
    title: 'Words',
    kind: 'choice',
    width: 82,
    options: choices({ none: 'none', left: 'left', right: 'right', top: 'top', bottom: 'bottom' }),
  },
  {
    field: 'copyPart',
    title: 'Words take',
    hint: 'Part of the picture kept free for words',
    kind: 'number',
    quantity: partQuantity,
    width: 96,
  },
  {
    field: 'background',
    title: 'Background',
    kind: 'choice',
    width: 100,
    options: choices({ 'as-set': 'as set', white: 'white', black: 'black', 'cut-out': 'cut out' }),
  },
  {
    field: 'fileType',
    title: 'File',
    kind: 'choice',
    width: 66,
    options: choices({ jpeg: 'JPEG', png: 'PNG', tiff: 'TIFF' }),
  },
];

/** Formats that the work meets most, to start from. */
const USUAL: readonly Omit<Deliverable, 'id'>[] = [
  format('Shop page', 2000, 2000),
  format('Square post', 1080, 1080),
  format('Upright post', 1080, 1350),
  format('Upright story', 1080, 1920, 'top', 0.25),
  format('Wide banner', 2560, 1080, 'right', 0.5),
];

function format(
  name: string,
  widthPx: number,
  heightPx: number,
  copySide: Deliverable['copySide'] = 'none',
  copyPart = 0,
): Omit<Deliverable, 'id'> {
  return {
    name,
    widthPx,
    heightPx,
    copySide,
    copyPart,
    marginPart: 0.06,
    background: 'as-set',
    fileType: 'jpeg',
  };
}

/** The picture formats that the client gets. */
export function Formats() {
  const { deliverables } = useJob().brief;
  const edit = useEditJob();
  const setRows = useCallback(
    (work: (rows: Deliverable[]) => Deliverable[]) =>
      edit((job) => ({ ...job, brief: { ...job.brief, deliverables: work(job.brief.deliverables) } })),
    [edit],
  );
  const next = useMemo(
    () =>
      USUAL.find(({ name }) => !deliverables.some((row) => row.name === name)) ??
      format('New format', 2000, 2000),
    [deliverables],
  );
  return (
    <Section
      title="Formats"
      action={
        <Button
          size="small"
          onClick={() => setRows((rows) => [...rows, { ...next, id: freeId(rows, next.name, 'format') }])}
        >
          Add a format
        </Button>
      }
    >
      <FormatDrawings formats={deliverables} />
      <EditableGrid
        label="Formats"
        rows={deliverables}
        columns={COLUMNS}
        onChange={(row) => setRows((rows) => changeRow(rows, row.id, row))}
        onRemove={({ id }) =>
          edit((job) => ({
            ...job,
            brief: { ...job.brief, deliverables: withoutRow(job.brief.deliverables, id) },
            shots: job.shots.map((shot) => ({
              ...shot,
              deliverables: shot.deliverables.filter((own) => own !== id),
            })),
          }))
        }
        empty="None yet. Where will the pictures run? Each format brings its crop and its place for words into the camera's frame."
      />
    </Section>
  );
}
