import type { MirrorBand } from '@fendrix/core';
import type { WithBench } from './benchSlice';

/** The band on show: that of the selected product, or the first; null where no product has one. */
export function chosenBand({ bench: { bands, selected } }: WithBench): MirrorBand | null {
  const own = bands.find(({ product }) => selected?.kind === 'product' && product === selected.key);
  return own ?? bands[0] ?? null;
}
