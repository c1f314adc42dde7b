import type { MirrorBand } from '@fendrix/core';
import { createSelector } from '@reduxjs/toolkit';
import type { PlatesShown } from '../picture/sessionProtocol';
import { benchSet, type WithBench } from '../state/benchSlice';
import type { ThingRef } from '../state/edits';
import type { Shown } from './shown';

/** A spot is as large as its mark in the picture, px of the view. */
export const SPOT_RADIUS_PX = 7;

/** The band on show: that of the selected product, or the first; null where no product has one. */
export function chosenBand(bands: readonly MirrorBand[], selected: ThingRef | null): MirrorBand | null {
  const own = bands.find(({ product }) => selected?.kind === 'product' && product === selected.key);
  return own ?? bands[0] ?? null;
}

/** What is shown, by the state of the page and the bands that were read. */
export const selectShown: (state: WithBench, bands: readonly MirrorBand[]) => Shown = createSelector(
  [
    (state: WithBench) => state.bench.overlay,
    (state: WithBench, bands: readonly MirrorBand[]) =>
      chosenBand(bands, state.bench.selected)?.product ?? null,
    (state: WithBench) => state.bench.wholeSurface,
    (state: WithBench) => state.bench.wholePaths,
    (state: WithBench) => state.bench.zones,
    (state: WithBench) => state.bench.selected,
    (state: WithBench) => state.bench.pick,
    (state: WithBench) => state.bench.pickAt,
    (state: WithBench) => state.benchSet.history.present.value?.products[0]?.id ?? null,
    (state: WithBench) => SPOT_RADIUS_PX / (state.bench.lensWidthPx * state.bench.window.zoom),
  ],
  (overlay, band, wholeSurface, wholePaths, zones, selected, pick, pickAt, firstProduct, radius): Shown => {
    const picked = pick?.thing.kind === 'product' ? pick.thing.key : null;
    const product = selected?.kind === 'product' ? selected.key : (picked ?? band ?? firstProduct);
    const round =
      zones === 'spot' && pickAt && picked
        ? { product: picked, spot: { across: pickAt[0], down: pickAt[1], radius } }
        : null;
    return {
      overlay,
      // What has no upright side has no band: its whole surface is shown instead.
      wholeSurface: wholeSurface || band === null,
      wholePaths,
      band,
      pick: pickAt,
      zones: zones === 'off' || !product ? null : zones === 'spot' ? round : { product },
    };
  },
);

/** Plates that are laid over the picture, or whose mask is looked at; null while none is, or one light is looked at alone. */
export const selectPlatesShown: (state: WithBench) => PlatesShown | null = createSelector(
  [
    (state: WithBench) => benchSet.documentOf(state)?.plates,
    (state: WithBench) => benchSet.documentOf(state)?.takes,
    (state: WithBench) => state.bench.plates,
    (state: WithBench) => state.bench.alone,
  ],
  (plates = [], takes = [], { shown, chosen, maskShown }, alone): PlatesShown | null => {
    const maskOf = maskShown ? chosen : null;
    if (plates.length === 0 || alone !== null || !(shown || maskOf)) return null;
    const needed = takes.filter(({ id }) => plates.some(({ takeId }) => takeId === id));
    return {
      plates: shown ? plates : plates.map((plate) => ({ ...plate, laid: false })),
      takes: needed,
      maskOf,
    };
  },
);
