/** What a frame shows of its main product, measured in the frame itself. Parts of the frame from its upper left corner. */
export interface FrameFigures {
  product: string;
  heightM: number;
  /** Box round the product; null where too few of its edges were found. */
  outline: { left: number; top: number; right: number; bottom: number } | null;
  /** Leans to camera right, degrees. */
  leanDeg: number | null;
  /** Tone of the ground, and of the lightest of the label, stops from mid-tone; null where none is seen or it is clipped. */
  groundStops: number | null;
  labelStops: number | null;
  /** Of the ground, linear, at a luminance of 1. */
  groundRgb: [number, number, number] | null;
  shadow: {
    /** Where it falls in the picture: 0 right, 90 down, -90 up, degrees. */
    towardsDeg: number;
    depthStops: number;
    /** Part of it that is less than half as deep as its darkest. */
    softPart: number;
  } | null;
  /** Images on the product whose ends were found, widest first; parts of its visible width from camera left. */
  highlights: { kind: 'light' | 'sheet'; tag: string; name: string; from: number; to: number }[];
  /** How wide and high the frame is at the product, and how far the product is, m. */
  frameWidthM: number;
  frameHeightM: number;
  depthM: number;
  whiteBalanceK: number;
}
