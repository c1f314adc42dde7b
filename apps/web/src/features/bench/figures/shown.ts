import type { ZoneOptions } from '@fendrix/core';
import type { Overlay } from '../state/benchSlice';

/** What is shown on the bench, as far as it says which figures are looked at. */
export interface Shown {
  overlay: Overlay;
  /** Whether the mirrors of the whole product are shown instead of those at one height. */
  wholeSurface: boolean;
  /** Whether the picture is traced without what is kept on large sheets. */
  wholePaths: boolean;
  /** Product whose mirror band is shown; null where none has one. */
  band: string | null;
  zones: ZoneOptions | null;
  /** Place of the frame pointed at, parts. */
  pick: readonly [number, number] | null;
}

export const NOTHING_SHOWN: Shown = {
  overlay: 'none',
  wholeSurface: false,
  wholePaths: false,
  band: null,
  zones: null,
  pick: null,
};
