import type { FrameMoves, FrameSettings } from '@fendrix/contract';
import { F_NUMBERS, formatLength, ISO_SPEEDS, printedSetting, SHUTTERS } from '@fendrix/core';

type Moved = FrameMoves['moved'][number];
type Stood = Pick<Moved, 'kind' | 'tag' | 'name'>;

/** A light by its letter, a sheet by its number and name. */
export const stoodName = ({ kind, tag, name }: Stood): string =>
  kind === 'light' ? `light ${tag}` : `${tag} ${name}`;

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** What would explain a frame: the ways in which a thing may stand elsewhere. */
export function moveWords({ moves }: Pick<Moved, 'moves'>): string {
  return moves
    .map(({ way, byM, errorM }) => {
      const length = `${formatLength(Math.abs(byM))} (± ${formatLength(errorM)})`;
      if (way === 'right') return `${length} further ${byM > 0 ? 'right' : 'left'}`;
      return `${length} ${byM > 0 ? 'further from the camera' : 'nearer to the camera'}`;
    })
    .join(', or ');
}

/** What stands elsewhere in a frame: the thing that is named, or those of which it is one. */
export function movedWords(moved: readonly Moved[]): string {
  const [first, ...others] = moved;
  if (!first) return '';
  if (others.length === 0)
    return `${capital(stoodName(first))} stands elsewhere: as if it stood ${moveWords(first)}.`;
  return `Something stands elsewhere: ${moved.map((own) => `${stoodName(own)}, ${moveWords(own)}`).join('; or ')}. The frame does not tell which.`;
}

/** What may stand elsewhere without the picture telling it. */
export function untoldWords(untold: FrameMoves['untold']): string {
  const all = untold.map((own) => {
    const [way] = own.ways;
    const only = own.ways.length > 1 ? '' : way === 'right' ? ' to the sides' : ' nearer or further';
    return `${stoodName(own)}${only}`;
  });
  return `The picture does not tell where these stand: ${all.join('; ')}. Tape them.`;
}

/** Figures that the camera wrote; one that it did not write is left out. */
export function settingsWords({ fNumber, exposureS, iso, focalMm }: Omit<FrameSettings, 'body'>): string {
  const all = [
    fNumber !== null && `f/${printedSetting(F_NUMBERS, fNumber)}`,
    exposureS !== null && `${printedSetting(SHUTTERS, exposureS)} s`,
    iso !== null && `ISO ${printedSetting(ISO_SPEEDS, iso)}`,
    focalMm !== null && `${Number(focalMm.toFixed(1))} mm`,
  ].filter(Boolean);
  return all.length > 0 ? all.join('  ') : 'The camera wrote no settings.';
}
