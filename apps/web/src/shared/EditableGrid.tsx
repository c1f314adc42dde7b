import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { DataGrid, type GridColDef, type GridRowParams, type GridValidRowModel } from '@mui/x-data-grid';
import { useMemo, useState } from 'react';

export interface GridColumn<R> {
  /** Field of the row; of what is derived any name of its own. */
  field: (keyof R & string) | `derived ${string}`;
  title: string;
  hint?: string;
  /** Share of the width that is left, or px. */
  flex?: number;
  width?: number;
  kind?: 'words' | 'number' | 'choice' | 'yes-no' | 'day';
  options?: readonly { value: string; label: string }[];
  /** How a number is shown and read, where it is not plain. */
  quantity?: { format(value: number): string; parse(text: string): number | null };
  readOnly?: boolean;
  /** Rows without this figure show nothing here and cannot be given one. */
  onlyIfThere?: boolean;
  /** Shows something worked out of the row instead of a field of it. */
  derived?(row: R): string;
  minWidth?: number;
  /** Seldom changed: shown when *Advanced* is pressed. */
  advanced?: boolean;
}

interface EditableGridProps<R extends { id: string }> {
  label: string;
  rows: readonly R[];
  columns: readonly GridColumn<R>[];
  /** @returns whether the change was taken; if not, the row stays as it was */
  onChange(row: R): boolean | Promise<boolean>;
  onRemove?(row: R): void;
  onOpen?(row: R): void;
  selected?: string | undefined;
  empty: string;
}

/** Rows that are edited where they stand: Enter or a double click starts, Enter or Tab takes it, Escape leaves it. */
export function EditableGrid<R extends { id: string; name: string }>({
  label,
  rows,
  columns,
  onChange,
  onRemove,
  onOpen,
  selected,
  empty,
}: EditableGridProps<R>) {
  const [advanced, setAdvanced] = useState(false);
  const seldom = columns.some((column) => column.advanced);
  const shown = useMemo(() => {
    const list = columns
      .filter((column) => advanced || !column.advanced)
      .map((column): GridColDef => gridColumn(column));
    if (onRemove) {
      list.push({
        field: 'actions',
        headerName: '',
        width: 84,
        sortable: false,
        disableColumnMenu: true,
        renderCell: ({ row, tabIndex }) => (
          <Button
            size="small"
            color="inherit"
            tabIndex={tabIndex}
            aria-label={`Remove ${row.name}`}
            onClick={() => onRemove(row as R)}
          >
            Remove
          </Button>
        ),
      });
    }
    return list;
  }, [columns, onRemove, advanced]);

  const guarded = useMemo(
    () => new Set(columns.filter(({ onlyIfThere }) => onlyIfThere).map(({ field }) => field as string)),
    [columns],
  );
  if (rows.length === 0) return <Box sx={{ color: 'text.secondary', py: 1 }}>{empty}</Box>;
  return (
    <>
      <DataGrid
        aria-label={label}
        rows={rows as readonly GridValidRowModel[]}
        columns={shown}
        density="compact"
        autoHeight
        hideFooter={rows.length <= 100}
        disableColumnMenu
        disableRowSelectionOnClick
        rowSelectionModel={{ type: 'include', ids: new Set(selected ? [selected] : []) }}
        {...(onOpen ? { onRowClick: ({ row }: GridRowParams) => onOpen(row as R) } : {})}
        isCellEditable={({ field, row }) =>
          !guarded.has(field) || (row as Record<string, unknown>)[field] !== undefined
        }
        processRowUpdate={async (row, old) => ((await onChange(row as R)) ? row : old)}
        sx={{
          border: 0,
          '--DataGrid-containerBackground': 'transparent',
          '& .MuiDataGrid-cell': { fontSize: '0.8125rem' },
          '& .MuiDataGrid-columnHeaderTitle': { fontWeight: 650 },
        }}
      />
      {seldom && (
        <Button size="small" color="inherit" aria-pressed={advanced} onClick={() => setAdvanced(!advanced)}>
          {advanced ? 'Without advanced figures' : 'Advanced'}
        </Button>
      )}
    </>
  );
}

function gridColumn<R>({
  field,
  title,
  hint,
  flex,
  width,
  minWidth,
  kind = 'words',
  options,
  quantity,
  readOnly,
  derived,
}: GridColumn<R>): GridColDef {
  const base: GridColDef = {
    field,
    headerName: title,
    editable: !readOnly && !derived,
    sortable: false,
    ...(hint ? { description: hint } : {}),
    ...(flex ? { flex } : {}),
    ...(width ? { width } : {}),
    ...(minWidth ? { minWidth } : {}),
  };
  if (derived) return { ...base, valueGetter: (_value, row) => derived(row as R) };
  if (kind === 'choice') {
    return { ...base, type: 'singleSelect', valueOptions: [...(options ?? [])] } as GridColDef;
  }
  if (kind === 'yes-no') return { ...base, type: 'boolean' };
  if (kind !== 'number') return base;
  if (!quantity) return { ...base, type: 'number', valueFormatter: (value) => String(value ?? '') };
  // Shown and typed as words, kept as a number; what is not understood is no number, which is refused in words.
  return {
    ...base,
    align: 'right',
    headerAlign: 'right',
    valueGetter: (value: number | undefined) => (value === undefined ? '' : quantity.format(value)),
    valueSetter: (text: string, row: Record<string, unknown>) => {
      return { ...row, [field]: quantity.parse(String(text)) ?? Number.NaN };
    },
  };
}
