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
}
