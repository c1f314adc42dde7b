import { formatLength, type SeriesChange, type SeriesCode, type SeriesFigure } from '@fendrix/core';

const NAMES: Readonly<Record<SeriesCode, string>> = {
  size: 'Size',
  'base-line': 'Base line',
  place: 'Place',
  lean: 'Lean',
  'ground-tone': 'Background tone',
  'label-tone': 'Label tone',
  white: 'White',
  colour: 'Colour',
  'shadow-direction': 'Shadow falls',
  'shadow-softness': 'Shadow edge',
  highlight: 'Highlight',
};

export const seriesFigureName = (code: SeriesCode): string => NAMES[code];

const signed = (value: number, digits: number, unit: string): string => {
  const text = Math.abs(value).toFixed(digits);
  return `${Number(text) === 0 ? '' : value < 0 ? '−' : '+'}${text}${unit}`;
};

/** How far a figure is off, in a word; null where one of the two frames does not tell it. */
export function seriesOffWords({ code, off }: Pick<SeriesFigure, 'code' | 'off'>): string | null {
  if (off === null) return null;
  switch (code) {
    case 'size':
      return signed(100 * Math.expm1(off), 0, ' %');
    case 'base-line':
      return Math.abs(off) < 0.0005
        ? 'alike'
        : `${(100 * Math.abs(off)).toFixed(1)} % ${off > 0 ? 'lower' : 'higher'}`;
    case 'place':
      return Math.abs(off) < 0.0005
        ? 'alike'
        : `${(100 * Math.abs(off)).toFixed(1)} % ${off > 0 ? 'right' : 'left'}`;
    case 'lean':
      return signed(off, 1, '°');
    case 'ground-tone':
    case 'label-tone':
      return signed(off, 1, ' stops');
    case 'white':
      return Math.abs(off) < 0.5
        ? 'alike'
        : `${Math.abs(off).toFixed(0)} mired ${off > 0 ? 'warmer' : 'cooler'}`;
    case 'colour':
      return `ΔE ${off.toFixed(1)}`;
    case 'shadow-direction':
      return signed(off, 0, '°');
    case 'shadow-softness':
      return Math.abs(off) < 0.02 ? 'alike' : off > 0 ? 'softer' : 'harder';
    case 'highlight':
      return Math.abs(off) < 0.0005
        ? 'alike'
        : `${(100 * Math.abs(off)).toFixed(1)} % ${off > 0 ? 'right' : 'left'}`;
  }
}

/** What brings a picture to the one that it is to be like. */
export function seriesChangeWords(change: SeriesChange): string {
  const side = (by: number) => (by > 0 ? 'right' : 'left');
  switch (change.code) {
    case 'camera-nearer':
      return `camera ${formatLength(Math.abs(change.byM))} ${change.byM > 0 ? 'nearer' : 'back'}`;
    case 'raise':
      return `${change.byM > 0 ? 'raise' : 'lower'} the product ${formatLength(Math.abs(change.byM))}, or the camera the other way`;
    case 'push-right':
      return `push the product ${formatLength(Math.abs(change.byM))} to camera ${side(change.byM)}`;
    case 'lean-right':
      return `lean the product ${Math.abs(change.byDeg).toFixed(1)}° to camera ${side(change.byDeg)}, or level the camera`;
    case 'more-light':
      return `all lights ${signed(change.byStops, 1, ' stops')}`;
    case 'white-balance':
      return `white balance ${Math.round(change.toK / 50) * 50} K`;
    case 'turn-main-light':
      return `turn the main light ${Math.abs(change.byDeg).toFixed(0)}° round the product, ${change.byDeg > 0 ? 'clockwise' : 'anticlockwise'} seen from above`;
    case 'harder':
      return 'main light smaller or farther: its shadow is softer here';
    case 'softer':
      return 'main light larger or nearer: its shadow is harder here';
    case 'move-image':
      return `move ${change.tag} ${change.name} until its image lies ${(100 * Math.abs(change.byPart)).toFixed(1)} % of the width further ${side(change.byPart)}`;
  }
}
