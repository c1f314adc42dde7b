import type { i32 } from '../portable.js';

/** What light by specular paths counts for, see `TraceMode.specular`. */
export const SPECULAR_TOO: i32 = 0;
export const SPECULAR_LEFT_OUT: i32 = 1;
export const SPECULAR_ALONE: i32 = 2;

/** How paths are traced. */
export class TraceMode {
  /**
   * Quick picture: paths end at the first matte surface, where an ambient luminance stands for all light that has
   * bounced; biased, for the preview only.
   */
  quick: boolean = false;
  /** Whether paths end on lightmaps once they have scattered. */
  useLightmaps: boolean = false;
  /** For baking: instead of ending with the light of a lightmap, write down where the path met it. */
  recording: boolean = false;
  /**
   * Light that comes from a lamp by mirrors, clear coats and clear boundaries alone (specular paths) may be traced apart from all other:
   * there is no scattering on its way, so that it is found fast, and it is what differs most within a pixel.
   */
  specular: i32 = SPECULAR_TOO;

  /** Whether light is counted that a way has met. @param specular whether by a specular path */
  counts(specular: boolean): boolean {
    return this.specular === SPECULAR_TOO || specular === (this.specular === SPECULAR_ALONE);
  }
}
