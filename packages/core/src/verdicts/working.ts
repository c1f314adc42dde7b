/**
 * What figures of verdicts are worked out of, and what each is counted in: `count` how many, `K` a colour temperature,
 * `fNumber` an f-number, `mS` a speed in m/s, `number` a bare number; the others as in a figure.
 */
export const TERMS = {
  // Places of the judged view.
  keptPlaces: 'count',
  thingPlaces: 'count',
  ownPlaces: 'count',
  burntPlaces: 'count',
  blackPlaces: 'count',
  mirroringPlaces: 'count',
  unwantedPlaces: 'count',
  darkMirrorPlaces: 'count',
  otherProductPlaces: 'count',
  groundPlaces: 'count',
  labelPlaces: 'count',
  veiledPlaces: 'count',
  basePlaces: 'count',
  litBasePlaces: 'count',
  litSidePlaces: 'count',
  shadedPlaces: 'count',
  detailPlaces: 'count',
  // Along outlines, rows and columns.
  outlinePairs: 'count',
  lostPairs: 'count',
  sideRows: 'count',
  missingRows: 'count',
  columns: 'count',
  rimColumns: 'count',
  gap: 'px',
  frameWidth: 'px',
  freePart: 'part',
  brightPart: 'part',
  leftRightApart: 'part',
  stripRightmost: 'part',
  stripLeftmost: 'part',
  stripWidth: 'part',
  stripWished: 'part',
  sources: 'count',
  partOfLargest: 'part',
  shadows: 'count',
  // Tones.
  brightestHeld: 'stops',
  darkestHeld: 'stops',
  leastStep: 'stops',
  darkFrom: 'stops',
  lightFrom: 'stops',
  rimStep: 'stops',
  groundTone: 'stops',
  greyWished: 'stops',
  whiteOfProducts: 'stops',
  flashTone: 'stops',
  lastingTone: 'stops',
  spotTone: 'stops',
  spotWanted: 'stops',
  lightestTenth: 'stops',
  toneInFullLight: 'stops',
  darkestTenth: 'stops',
  contrast: 'stops',
  contrastWished: 'stops',
  lightestFifth: 'stops',
  darkestFifth: 'stops',
  lightestNinth: 'stops',
  darkestNinth: 'stops',
  lightestProduct: 'stops',
  darkestProduct: 'stops',
  brightestColumn: 'stops',
  middleColumn: 'stops',
  liquidTone: 'stops',
  besideLiquid: 'stops',
  litGround: 'stops',
  shadowTone: 'stops',
  lensTone: 'stops',
  veilLoss: 'stops',
  toneHere: 'stops',
  toneThere: 'stops',
  // Ways, sizes and angles.
  lampToSheet: 'm',
  nearestPart: 'm',
  farthestPart: 'm',
  focus: 'm',
  lightFace: 'm',
  lightToEdge: 'm',
  edgeToShadow: 'm',
  widestGap: 'm',
  narrowestGap: 'm',
  frontOff: 'm',
  middleFront: 'm',
  lightHeight: 'm',
  lightAway: 'm',
  labelBearing: 'deg',
  lensBearing: 'deg',
  rollOf: 'deg',
  levelRoll: 'deg',
  slope: 'deg',
  lightElevation: 'deg',
  downHere: 'deg',
  downThere: 'deg',
  lineAt: 'part',
  productMiddle: 'part',
  frameMiddle: 'part',
  placeHere: 'part',
  placeThere: 'part',
  sizeHere: 'part',
  sizeThere: 'part',
  scaleHere: 'perM',
  scaleThere: 'perM',
  // Camera, lamps and mains.
  fStop: 'fNumber',
  syncTime: 's',
  shutter: 's',
  shineTime: 's',
  fallSpeed: 'mS',
  lampColour: 'K',
  whiteBalance: 'K',
  partOfPicture: 'part',
  paperReflects: 'part',
  inkReflects: 'part',
  greenRedHere: 'number',
  blueYellowHere: 'number',
  greenRedThere: 'number',
  blueYellowThere: 'number',
  draw: 'W',
  circuitBears: 'W',
} as const;

export type TermName = keyof typeof TERMS;
export type Terms = Partial<Readonly<Record<TermName, number>>>;

/**
 * How a figure comes out of its terms, a and b the first two of them. `over`: a / b; `less`: a - b; `apart`: |a - b|;
 * `half`: (a - b) / 2; `stops`: log2(a / b); `ratio`: |a / b - 1|; `mean`: of so many; `from`: by a longer way, which the physics pages give.
 */
export type WorkedBy = 'over' | 'less' | 'apart' | 'half' | 'stops' | 'ratio' | 'mean' | 'from';

/** A figure with what it was worked out of, in the photographer's own figures. */
export interface Working {
  by: WorkedBy;
  /** In the order in which they stand in the formula. */
  of: Terms;
  /** Limits by which the terms were counted. */
  given: Terms;
}

const worked =
  (by: WorkedBy) =>
  (of: Terms, given: Terms = {}): Working => ({ by, of, given });

export const over = worked('over');
export const less = worked('less');
export const apart = worked('apart');
export const half = worked('half');
export const inStops = worked('stops');
export const ratio = worked('ratio');
export const mean = worked('mean');
export const from = worked('from');

/** The figure by its terms alone; null where it takes a longer way. */
export function workedOut({ by, of }: Working): number | null {
  const [a, b] = Object.values(of) as [number, number];
  switch (by) {
    case 'over':
      return a / b;
    case 'less':
      return a - b;
    case 'apart':
      return Math.abs(a - b);
    case 'half':
      return (a - b) / 2;
    case 'stops':
      return Math.log2(a / b);
    case 'ratio':
      return Math.abs(a / b - 1);
    case 'mean':
    case 'from':
      return null;
  }
}
