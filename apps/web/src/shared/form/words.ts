import { formatLength, formatTime, parseLengthM, parseStops, parseTimeS } from '@fendrix/core';

/** How a number of a field is shown and typed. */
export interface Quantity {
  format(value: number): string;
  parse(text: string): number | null;
  example: string;
}

/** A number with a unit that may be left out when it is typed. */
export const plainQuantity = (unit: string, example: string, decimals = 3): Quantity => ({
  format: (value) => `${Number(value.toFixed(decimals))}${unit}`,
  parse: (text) => {
    const number = Number(text.replace(unit.trim(), '').replace(',', '.').replace('−', '-').trim());
    return text.trim() !== '' && Number.isFinite(number) ? number : null;
  },
  example,
});

/** A part of a whole, shown and typed in percent. */
export const partQuantity: Quantity = {
  format: (value) => `${Number((100 * value).toFixed(1))} %`,
  parse: (text) => {
    const number = Number(text.replace('%', '').replace(',', '.').trim());
    return text.trim() !== '' && Number.isFinite(number) ? number / 100 : null;
  },
  example: '85 %',
};

const length: Quantity = {
  format: formatLength,
  parse: (text) => parseLengthM(text),
  example: '45 cm or 18 in',
};

/** Stops, typed as stops are wherever they are. */
function stopsQuantity(per: string, example: string): Quantity {
  const unit = ` stops${per}`;
  return {
    format: (value) => `${Number(value.toFixed(3))}${unit}`,
    parse: (text) => parseStops(text.replace(/\s*stops?.*$/i, '')),
    example,
  };
}

/** A time as a shutter says it: "1/200", "0.5 s"; "1.25 ms" and "800 us" too. */
export const timeQuantity: Quantity = {
  format: formatTime,
  parse: parseTimeS,
  example: '1/800, 1.25 ms or 0.5 s',
};

const UNITS: [RegExp, Quantity, string][] = [
  [/^guideNumberM$/, plainQuantity(' m', '40 m'), 'guide number'],
  [/At1M$/, plainQuantity(' lx', '1200', 1), ''],
  [/luxSeconds/, plainQuantity(' lx s', '3000', 1), ''],
  [/CdM2$/, plainQuantity(' cd/m²', '3000 cd/m²', 1), ''],
  [/LmSPerJ$/, plainQuantity(' lm s/J', '35', 1), ''],
  [/PerHour$/, stopsQuantity('/h', '−0.5'), ''],
  [/^stopsPerStop$/, stopsQuantity(' a stop', '−0.2'), ''],
  [/Stops$/, stopsQuantity('', '1/3 or 0.5'), ''],
  [/[a-z]S$/, timeQuantity, ''],
  [/Deg$/, plainQuantity('°', '30°', 1), ''],
  [/PerCm$/, plainQuantity(' /cm', '0.5'), ''],
  [/Lx$/, plainQuantity(' lx', '40000', 0), ''],
  [/Px$/, plainQuantity(' px', '512', 0), ''],
  [/[a-z]M$/, length, ''],
  [/[a-z]K$/, plainQuantity(' K', '5500 K', 0), ''],
  [/[a-z]A$/, plainQuantity(' A', '16 A', 0), ''],
  [/[a-z]W$/, plainQuantity(' W', '400 W', 0), ''],
  [/[a-z]V$/, plainQuantity(' V', '230 V', 0), ''],
  [/Kg$/, plainQuantity(' kg', '2.5 kg', 2), ''],
  [/Iso$/, plainQuantity(' ISO', '100', 0), ''],
  [/[a-z]J$/, plainQuantity(' J', '400 J', 1), ''],
  [/^lumens$/, plainQuantity(' lm', '1200 lm', 0), ''],
];

/** How the number of a field is shown and typed, by the unit its name carries; parts of a whole say so in their schema. */
export function quantityOf(field: string): Quantity {
  return UNITS.find(([pattern]) => pattern.test(field))?.[1] ?? plainQuantity('', '1.5', 4);
}

const LABELS: Record<string, string> = {
  marginPart: 'margin',
  copyPart: 'place for words',
  fillPart: 'product fills',
  backdrop: 'background',
  bench: 'table',
  positionM: 'position',
  aimM: 'aim',
  benchHeightM: 'table height',
  markFromLeftM: 'centre to left wall',
  markFromFrontM: 'centre to front wall',
  centreM: 'middle',
  focusM: 'in focus at',
  iso: 'ISO',
  fNumber: 'f-stop',
  shutterS: 'shutter',
  bandHeightM: 'height of the band',
  fullS: 'at full power, t0.1',
  stopsPerStop: 'longer or shorter with power',
  duration: 'flash duration',
  coatIndex: 'coat, refractive index',
  index: 'refractive index',
  hotCentre: 'hot centre',
  beamDeg: 'beam, half power',
  cutoffDeg: 'cut-off, full angle',
  guideNumberM: 'guide number',
  luxAt1M: 'reads 1 m ahead',
  luxSecondsAt1M: 'reads 1 m ahead',
  backShare: 'light sent back',
  depthM: 'depth',
  drawW: 'draws from the mains',
  lean: 'leaning',
  rgbBase64: 'picture',
  seed: 'another draw',
  scatteringPerCm: 'cloudiness, scatterings',
  givesPart: 'stops that a stop of it gives',
  response: 'how it records, calibrated',
  isoStops: 'more than its ISO says',
  slope: 'contrast at mid-tone',
  bend: 'bend of its curve',
  losses: 'what it takes and adds, calibrated',
  cornerStops: 'corners under the middle',
  veilPart: 'veil',
};

/** A field's name as words, without the unit it carries. */
export function labelOf(field: string): string {
  const known = LABELS[field];
  if (known) return known;
  return field
    .replace(/(At1M|CdM2|LmSPerJ|PerCm|Stops|M|Deg|K|J|Lx|Px|Kg|A|V|S)$/, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();
}

/** Figures that are seldom changed: they come from tables and data sheets, and stand under *Advanced*. */
export const ADVANCED: ReadonlySet<string> = new Set([
  'givesPart',
  'absorptionPerCm',
  'scatteringPerCm',
  'backShare',
  'coatIndex',
  'crossedPart',
  'efficacyLmSPerJ',
  'index',
  'meanFreePathM',
  'modifierEfficiency',
  'pupilRatio',
  'seed',
  'stopsPerStop',
]);

const KINDS: Record<string, string> = {
  dielectric: 'glass or liquid',
  wax: 'flesh or wax',
  coated: 'gloss or satin',
  metal: 'bare metal',
  translucent: 'frost',
  'flash-energy': 'stored energy',
  'flash-exposure': 'flash meter reading',
  illuminance: 'light meter reading',
  luminance: 'face brightness',
  lumens: 'lumens',
};

/** A kind as words. */
export const kindWords = (kind: string): string => KINDS[kind] ?? kind.replace(/-/g, ' ');
