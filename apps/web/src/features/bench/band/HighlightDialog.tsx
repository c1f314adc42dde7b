import type { BandLength, BandWish, MirrorBand } from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTyped, within } from '../../../shared/useTyped';
import { benchActions } from '../state/benchSlice';
import { dropHighlight, keepHighlight } from '../state/edits';
import { useBenchDispatch, useSet } from '../state/hooks';
import { edit } from '../state/thunks';
import { useBandPlacing } from './useBandPlacing';

interface HighlightDialogProps {
  band: MirrorBand;
  length: BandLength;
  onClose(): void;
}

/** What can be done with one image in the band: keep it, or make it as wide as wanted. */
export function HighlightDialog({ band, length, onClose }: HighlightDialogProps) {
  const dispatch = useBenchDispatch();
  const set = useSet();
  const { once } = useBandPlacing();
  const key = length.what ?? '';
  const kind = length.kind as 'light' | 'sheet';
  const [from, setFrom] = useState((100 * length.from).toFixed(1));
  const [to, setTo] = useState((100 * length.to).toFixed(1));
  const [busy, setBusy] = useState(false);
  const [left, right] = [Number(from.replace(',', '.')) / 100, Number(to.replace(',', '.')) / 100];
  const valid = left >= 0 && right <= 1 && right - left >= 0.005;
  const kept = set.highlights.find(
    (own) => own.product === band.product && own.kind === kind && own.key === key,
  );
  const name =
    kind === 'light'
      ? set.lights.find(({ tag }) => tag === key)?.name
      : set.sheets.find(({ tag }) => tag === key)?.name;

  function widthTo(percent: number) {
    const width = percent / 100;
    const middle = (left + right) / 2;
    const start = Math.max(0, Math.min(1 - width, middle - width / 2));
    setFrom((100 * start).toFixed(1));
    setTo((100 * (start + width)).toFixed(1));
  }
  const width = useTyped(valid ? (100 * (right - left)).toFixed(1) : '', percentOf, widthTo, '20');

  async function make(by: BandWish['by']) {
    setBusy(true);
    await once({ product: band.product, heightM: band.heightM, kind, key, from: left, to: right, by });
    onClose();
  }

  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth aria-labelledby="highlight-title">
      <DialogTitle id="highlight-title">
        The image of {key}
        {name ? `, ${name}` : ''}
      </DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1.5, fontSize: '0.875rem' }}>
        <div>
          It takes {(100 * (length.to - length.from)).toFixed(1)} % of the visible width, from{' '}
          {(100 * length.from).toFixed(1)} to {(100 * length.to).toFixed(1)} % counted from camera left.
        </div>
        <Box
          sx={{ display: 'flex', gap: 1, mt: 1 }}
          onKeyDown={(event) => event.key !== 'Escape' && event.stopPropagation()}
        >
          <TextField
            label="Width, %"
            size="small"
            slotProps={{ htmlInput: width.input }}
            error={width.wrong !== null}
          />
          <TextField
            label="From, %"
            size="small"
            value={from}
            onChange={(event) => setFrom(event.target.value)}
          />
          <TextField label="To, %" size="small" value={to} onChange={(event) => setTo(event.target.value)} />
        </Box>
        {width.wrong && (
          <Box role="alert" sx={{ color: 'error.main' }}>
            {width.wrong}
          </Box>
        )}
        {!valid && (
          <Box role="alert" sx={{ color: 'error.main' }}>
            Give from and to between 0 and 100 %, to above from.
          </Box>
        )}
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          By moving it is turned round the product and brought nearer or farther, still facing its aim. By
          size it stays at its distance and becomes as wide as it takes: choose a card or light of that width.
          Both are measured in the whole set, and can be undone.
        </Box>
      </DialogContent>
      <DialogActions sx={{ flexWrap: 'wrap', gap: 1 }}>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          onClick={() => {
            if (kept) dispatch(edit(dropHighlight(kept)));
            else
              dispatch(
                edit(
                  keepHighlight({
                    product: band.product,
                    heightM: band.heightM,
                    kind,
                    key,
                    from: length.from,
                    to: length.to,
                  }),
                ),
              );
            onClose();
          }}
        >
          {kept ? 'Keep it no longer' : 'Keep this highlight'}
        </Button>
        <Button
          onClick={() => {
            dispatch(benchActions.selected({ kind, key }));
            onClose();
          }}
        >
          Select it
        </Button>
        <Button variant="outlined" disabled={!valid || busy} onClick={() => void make('size')}>
          By size
        </Button>
        <Button variant="contained" disabled={!valid || busy} onClick={() => void make('move')}>
          By moving
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** A part of the visible width as typed, %. */
const percentOf = within(
  (text) => {
    const percent = Number(text.replace('%', '').replace(',', '.'));
    return Number.isFinite(percent) ? percent : null;
  },
  (percent) => `${percent} %`,
  { from: 0.5, to: 100 },
);
