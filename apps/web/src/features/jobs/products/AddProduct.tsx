import type { JobProduct, Product } from '@fendrix/contract';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import List from '@mui/material/List';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { ImportDialog } from '../../../shared/ImportDialog';
import { MeasuredProduct } from '../../../shared/measured/MeasuredProduct';
import { KitEntryItem, KitReading, kitApi, searchKit } from '../../kit';

/** What a purpose of the kit says about the kind of product. */
const GOODS_OF: Record<string, JobProduct['goods']> = {
  glass: 'glass',
  drink: 'drink',
  metal: 'metal',
  jewelry: 'jewelry',
  garment: 'garment',
  cloth: 'garment',
  food: 'food',
};

/** A form to start from: out of the kit, by its measures, or from a file. */
export function AddProduct({
  onTake,
  onClose,
}: {
  onTake(body: Product, goods: JobProduct['goods']): void;
  onClose(): void;
}) {
  const [search, setSearch] = useState('');
  const [importing, setImporting] = useState(false);
  const [measuring, setMeasuring] = useState(false);
  const { data } = kitApi.useReadKitQuery();
  const found = searchKit(data?.document.entries ?? [], search).flatMap((entry) =>
    entry.what === 'product' ? [entry] : [],
  );
  if (measuring) {
    return (
      <MeasuredProduct
        takeWords="Add it"
        onTake={(body) => {
          onTake(body, 'other');
          return true;
        }}
        onClose={onClose}
      />
    );
  }
  if (importing) {
    return (
      <ImportDialog
        onClose={onClose}
        onTake={(imported) => {
          if (imported.what === 'product') onTake(imported.thing, 'other');
        }}
      />
    );
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="add-product-title">
      <DialogTitle id="add-product-title">Add a product</DialogTitle>
      <DialogContent sx={{ height: 460, display: 'flex', flexDirection: 'column', gap: 1.5 }}>
        <Stack direction="row" spacing={1}>
          <TextField
            autoFocus
            sx={{ mt: 0.5 }}
            fullWidth
            size="small"
            label="A form that comes near: bottle, ring, dish, cloth"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <Button onClick={() => setMeasuring(true)} sx={{ whiteSpace: 'nowrap' }}>
            By measures
          </Button>
          <Button onClick={() => setImporting(true)} sx={{ whiteSpace: 'nowrap' }}>
            From a file
          </Button>
        </Stack>
        <KitReading />
        {data && found.length === 0 && (
          <Typography sx={{ color: 'text.secondary' }}>
            No form in the kit is called or good for “{search}”. Take one that comes near, or give its
            measures.
          </Typography>
        )}
        <List dense disablePadding sx={{ overflow: 'auto', flex: 1 }}>
          {found.map((entry) => (
            <KitEntryItem
              key={entry.id}
              entry={entry}
              onChoose={() => {
                const word = entry.purposes.find((purpose) => purpose in GOODS_OF) ?? '';
                onTake(entry.thing, GOODS_OF[word] ?? 'other');
              }}
            />
          ))}
        </List>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}
