import { type BandLength, type MirrorBand, projectPoint, viewOf } from '@fendrix/core';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { HighlightDialog } from '../band/HighlightDialog';
import { useSession } from '../picture/useSession';
import { changeProduct } from '../state/edits';
import { useBench, useBenchDispatch, useSet } from '../state/hooks';
import { tellFailure } from '../state/tellFailure';
import { edit } from '../state/thunks';

/** Takes the band to the height of the spot and opens the image that the spot shows: to keep it or set its width. */
export function WidenHighlight() {
  const set = useSet();
  const pick = useBench((bench) => bench.pick);
  const session = useSession();
  const dispatch = useBenchDispatch();
  const { enqueueSnackbar } = useSnackbar();
  const [open, setOpen] = useState<{ band: MirrorBand; length: BandLength } | null>(null);
  const thing = pick?.mirrored;
  const product = set.products.find(({ id }) => pick?.thing.kind === 'product' && id === pick.thing.key);
  if (!pick || !product || !thing || (thing.kind !== 'light' && thing.kind !== 'sheet')) return null;
  if (product.kind !== 'turned' && product.kind !== 'box') return null;

  async function find() {
    if (!pick || !product) return;
    const bandHeightM = Math.max(0.001, pick.pointM[2] - product.positionM[2]);
    const change = changeProduct(product.id, (old) => ({ ...old, bandHeightM }));
    const bands = await session
      ?.ask({ kind: 'bands' }, { ...change(set), takes: [] })
      .catch((error: unknown) => tellFailure('The band at this height', error));
    if (!bands) return;
    const band = bands.find((own) => own.product === product.id);
    const at = projectPoint(viewOf(set.camera), pick.pointM);
    const part = band && at ? (at[0] - band.left) / (band.right - band.left) : Number.NaN;
    const length = band?.lengths.find(
      ({ kind, what, from, to }) =>
        kind === thing?.kind && what === thing.key && part >= from - 0.01 && part <= to + 0.01,
    );
    if (!band || !length) {
      enqueueSnackbar('The band cannot be read at this height.', { variant: 'warning' });
      return;
    }
    dispatch(edit(change));
    setOpen({ band, length });
  }

  return (
    <>
      <Button size="small" variant="outlined" onClick={() => void find()}>
        Keep or widen this
      </Button>
      {open && <HighlightDialog {...open} onClose={() => setOpen(null)} />}
    </>
  );
}
