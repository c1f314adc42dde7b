import type { Brief } from '@fendrix/contract';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { EditableGrid, type GridColumn } from '../../../shared/EditableGrid';
import { Section } from '../../../shared/Section';
import { useEditJob, useJob } from '../state/openJob';

type Goods = Brief['supplied'][number] & { id: string };

const COLUMNS: readonly GridColumn<Goods>[] = [
  { field: 'name', title: 'What the client sends', flex: 1, minWidth: 160 },
  { field: 'count', title: 'Pieces', kind: 'number', width: 76 },
  { field: 'arrived', title: 'Here', kind: 'yes-no', width: 70 },
  { field: 'goesBack', title: 'Goes back', kind: 'yes-no', width: 92 },
];

/** Goods that the client sends: how many, whether they are here, whether they go back. */
export function SuppliedGoods() {
  const { supplied } = useJob().brief;
  const edit = useEditJob();
  // Rows have no name of their own; their place is one.
  const rows = useMemo(() => supplied.map((goods, index) => ({ ...goods, id: String(index) })), [supplied]);
  const set = (work: (goods: Brief['supplied']) => Brief['supplied']) =>
    edit((job) => ({ ...job, brief: { ...job.brief, supplied: work(job.brief.supplied) } }));
  return (
    <Section
      title="Supplied goods"
      action={
        <Button
          size="small"
          onClick={() =>
            set((goods) => [...goods, { name: 'New goods', count: 1, arrived: false, goesBack: true }])
          }
        >
          Add goods
        </Button>
      }
    >
      <EditableGrid
        label="Supplied goods"
        rows={rows}
        columns={COLUMNS}
        onChange={({ id, ...changed }) =>
          set((goods) => goods.map((old, i) => (String(i) === id ? changed : old)))
        }
        onRemove={({ id }) => set((goods) => goods.filter((_, i) => String(i) !== id))}
        empty="None yet. What comes from the client, how many pieces, and does it go back?"
      />
    </Section>
  );
}
