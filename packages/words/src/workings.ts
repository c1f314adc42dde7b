import { formatStops, TERMS, type TermName, type Terms, type Verdict, type Working } from '@fendrix/core';
import { figureWords } from './verdictFigures.js';

/** What figures are worked out of; of a count, what is counted. */
const TERM_NAMES: Readonly<Record<TermName, string>> = {
  keptPlaces: 'places that are kept of the frame',
  thingPlaces: 'places that show it',
  ownPlaces: 'places of its own surface',
  burntPlaces: 'places lighter than the brightest tone that holds detail',
  blackPlaces: 'places darker than the darkest tone that holds detail',
  mirroringPlaces: 'places that mirror',
  unwantedPlaces: 'places that mirror camera, person or stand',
  darkMirrorPlaces: 'dark ones',
  otherProductPlaces: 'places that mirror another product',
  groundPlaces: 'places of background and walls',
  labelPlaces: 'places of the label',
  veiledPlaces: 'places under glare',
  basePlaces: 'places of its base',
  litBasePlaces: 'places that show the table, and light',
  litSidePlaces: 'places of its lit side',
  shadedPlaces: 'shaded ones',
  detailPlaces: 'places',
  outlinePairs: 'steps across its outline',
  lostPairs: 'steps that are too small',
  sideRows: 'rows of its straight side',
  missingRows: 'rows without it',
  columns: 'columns across',
  rimColumns: 'columns of the wider rim',
  gap: 'gap',
  frameWidth: 'width of the view',
  freePart: 'free and even part of the room for words',
  brightPart: 'part of the width within a stop of the brightest',
  leftRightApart: 'difference of left and right over their sum',
  stripRightmost: 'its middle at its farthest right',
  stripLeftmost: 'farthest left',
  sources: 'lights or sheets mirrored',
  partOfLargest: 'part of the largest image from which on one counts',
  stripWidth: 'middle width of the strip',
  stripWished: 'width that is wished',
  lightElevation: 'light over the table, seen from the product',
  shadows: 'shadows apart from each other',
  brightestHeld: 'brightest tone that holds detail',
  darkestHeld: 'darkest tone that holds detail',
  leastStep: 'too small under',
  darkFrom: 'dark under',
  lightFrom: 'light over',
  rimStep: 'rim: under the middle by',
  groundTone: 'mean of the background',
  greyWished: 'grey that is wished',
  whiteOfProducts: 'white of the products',
  flashTone: 'mean by the flash',
  lastingTone: 'mean by lasting light',
  spotTone: 'tone of the spot',
  spotWanted: 'wanted there',
  lightestTenth: 'lightest tenth',
  toneInFullLight: 'its tone in full light',
  darkestTenth: 'darkest tenth',
  contrast: 'light over shade',
  contrastWished: 'contrast that is wished',
  lightestFifth: 'lightest fifth',
  darkestFifth: 'darkest fifth',
  lightestNinth: 'lightest ninth',
  darkestNinth: 'darkest ninth',
  lightestProduct: 'lightest product',
  darkestProduct: 'darkest product',
  brightestColumn: 'brightest column',
  middleColumn: 'middle column',
  liquidTone: 'mean of the liquid',
  besideLiquid: 'what it is held against',
  litGround: 'lit ground beside it',
  shadowTone: 'darkest fifth of the shadow',
  lensTone: 'light on the lens',
  veilLoss: 'what does not spread over the picture',
  toneHere: 'here',
  toneThere: 'there',
  lampToSheet: 'lamp to sheet',
  nearestPart: 'nearest part',
  farthestPart: 'farthest part',
  focus: 'focus',
  lightFace: 'face of the light',
  lightToEdge: 'light to the top of the product',
  edgeToShadow: 'from there to its shadow',
  widestGap: 'widest gap',
  narrowestGap: 'narrowest gap',
  frontOff: 'front that is off',
  middleFront: 'middle front',
  lightHeight: 'light over it',
  lightAway: 'light away from it on the level',
  labelBearing: 'middle of the label towards',
  lensBearing: 'lens towards',
  rollOf: 'turned to',
  levelRoll: 'level or upright',
  slope: 'slope',
  downHere: 'looks down by',
  downThere: 'there by',
  lineAt: 'line at',
  productMiddle: 'middle of the product at',
  frameMiddle: 'middle of the frame at',
  placeHere: 'here at',
  placeThere: 'there at',
  sizeHere: 'height in the frame here',
  sizeThere: 'there',
  scaleHere: 'scale here',
  scaleThere: 'there',
  fStop: 'at',
  syncTime: 'flash sync',
  shutter: 'shutter',
  shineTime: 'light that shines for',
  fallSpeed: 'falls with',
  lampColour: 'light of',
  whiteBalance: 'white balance',
  partOfPicture: 'part of the picture that it gives',
  paperReflects: 'paper sends back',
  inkReflects: 'ink',
  greenRedHere: 'green to red here',
  blueYellowHere: 'blue to yellow here',
  greenRedThere: 'green to red there',
  blueYellowThere: 'blue to yellow there',
  draw: 'all that is on draws',
  circuitBears: 'the circuit bears',
};

function amount(name: TermName, value: number): string {
  const unit = TERMS[name];
  switch (unit) {
    case 'K':
      return `${Math.round(value)} K`;
    case 'fNumber':
      return `f/${Number(value.toFixed(1))}`;
    case 'mS':
      return `${value.toFixed(1)} m/s`;
    case 'perM':
      return `${value.toFixed(2)} of the frame per metre`;
    case 'number':
      return value.toFixed(1);
    case 'stops':
      // More digits than are told elsewhere: the difference is to come out as it is told.
      return formatStops(value, 2);
    case 'deg':
      return `${value.toFixed(1)}°`;
    default:
      return figureWords({ value, unit });
  }
}

/** "34 rows without it", "focus 62 cm"; in a formula "focus (62 cm)", so that no sign stands beside another. */
function termsOf(terms: Terms, inFormula = false): string[] {
  return (Object.entries(terms) as [TermName, number][]).map(([name, value]) => {
    if (TERMS[name] === 'count') return `${value} ${TERM_NAMES[name]}`;
    const text = amount(name, value);
    return `${TERM_NAMES[name]} ${inFormula ? `(${text})` : text}`;
  });
}

/** A figure by its formula, with the photographer's own figures in it. */
export function workingWords({
  figure,
  working: { by, of, given },
}: Pick<Verdict, 'figure'> & { working: Working }): string {
  const [first = '', second = ''] = termsOf(of, true);
  const counted = termsOf(given);
  const limits = counted.length > 0 ? ` (${counted.join(', ')})` : '';
  const result = figureWords(figure).replace(/^\+/, '');
  const formula: Record<Working['by'], () => string> = {
    over: () => `${result} = ${first} ÷ ${second}`,
    less: () => `${result} = ${first} − ${second}`,
    apart: () => `${result} from ${first} to ${second}`,
    half: () => `${result} = half of ${first} − ${second}`,
    stops: () => `${result} stops = log₂ of ${first} ÷ ${second}`,
    ratio: () => `${result} = ${first} ÷ ${second}, less 1`,
    mean: () => `${result} is the mean of ${termsOf(of).join(', ')}`,
    from: () => `${result} from ${termsOf(of).join(', ')}`,
  };
  return `${formula[by]()}${limits}.`.replace(/-0\.0(?!\d)/g, '0.0').replace(/-(?=\d)/g, '−');
}
