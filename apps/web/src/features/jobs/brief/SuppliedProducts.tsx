import type { Brief } from '@fendrix/contract';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { EditableGrid, type GridColumn } from '../../../shared/EditableGrid';
import { Section } from '../../../shared/Section';
import { useEditJob, useJob } from '../state/openJob';

type Supplied = Brief['supplied'][number] & { id: string };

const COLUMNS: readonly GridColumn<Supplied>[] = [
  { field: 'name', title: 'What the client sends', flex: 1, minWidth: 160 },
  { field: 'count', title: 'Pieces', kind: 'number', width: 76 },
  { field: 'arrived', title: 'Here', kind: 'yes-no', width: 70 },
  { field: 'goesBack', title: 'Goes back', kind: 'yes-no', width: 92 },
];

/** Products that the client sends: how many, whether they are here, whether they go back. */
export function SuppliedProducts() {
  const { supplied } = useJob().brief;
  const edit = useEditJob();
  // Rows have no name of their own; their place is one.
  const rows = useMemo(
    () => supplied.map((products, index) => ({ ...products, id: String(index) })),
    [supplied],
  );
  const set = (work: (products: Brief['supplied']) => Brief['supplied']) =>
    edit((job) => ({ ...job, brief: { ...job.brief, supplied: work(job.brief.supplied) } }));
  return (
    <Section
      title="Products from the client"
      action={
        <Button
          size="small"
          onClick={() =>
            set((products) => [
              ...products,
              { name: 'New product', count: 1, arrived: false, goesBack: true },
            ])
          }
        >
          Add a product
        </Button>
      }
    >
      <EditableGrid
        label="Products from the client"
        rows={rows}
        columns={COLUMNS}
        onChange={({ id, ...changed }) =>
          set((products) => products.map((old, i) => (String(i) === id ? changed : old)))
        }
        onRemove={({ id }) => set((products) => products.filter((_, i) => String(i) !== id))}
        empty="None yet. What comes from the client, how many pieces, and does it go back?"
      />
    </Section>
  );
}
