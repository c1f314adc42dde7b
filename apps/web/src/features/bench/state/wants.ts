import { createSelector } from '@reduxjs/toolkit';
import { NO_WANTS, type Wants } from '../picture/figures';
import type { WithBench } from './benchSlice';
import { chosenBand } from './chosenBand';

/** A spot is as large as its mark in the picture, px of the view. */
export const SPOT_RADIUS_PX = 7;

/** What the picture session has to work out besides the picture, from what is shown. */
export const selectWants: (state: WithBench) => Wants = createSelector(
  [
    (state: WithBench) => state.bench.overlay,
    chosenBand,
    (state: WithBench) => state.bench.wholeSurface,
    (state: WithBench) => state.bench.zones,
    (state: WithBench) => state.bench.selected,
    (state: WithBench) => state.bench.pick,
    (state: WithBench) => state.bench.pickAt,
    (state: WithBench) => state.benchSet.history.present.value?.products[0]?.id ?? null,
    (state: WithBench) => SPOT_RADIUS_PX / (state.bench.lensWidthPx * state.bench.window.zoom),
  ],
  (overlay, band, whole, zones, selected, pick, pickAt, firstProduct, radius): Wants => {
    const picked = pick?.thing.kind === 'product' ? pick.thing.key : null;
    const product = selected?.kind === 'product' ? selected.key : (picked ?? band?.product ?? firstProduct);
    const round =
      zones === 'spot' && pickAt && picked
        ? { product: picked, spot: { across: pickAt[0], down: pickAt[1], radius } }
        : null;
    return {
      ...NO_WANTS,
      mirrors: overlay === 'mirrors' || overlay === 'through' || whole || band === null,
      depth: overlay === 'focus',
      tones: overlay === 'stops' || overlay === 'clipping' ? overlay : 'none',
      profile: band?.product ?? null,
      pick: pickAt,
      zones: zones === 'off' || !product ? null : zones === 'spot' ? round : { product },
    };
  },
);
