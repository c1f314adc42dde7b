import type { FrameMoves, FrameSettings } from '@fendrix/contract';
import { F_NUMBERS, FURTHEST_M, formatLength, ISO_SPEEDS, printedSetting, SHUTTERS } from '@fendrix/core';

type Moved = FrameMoves['moved'][number];
type Stood = Pick<Moved, 'kind' | 'tag' | 'name'>;

/** A light by its letter, a sheet by its number and name. */
export const stoodName = ({ kind, tag, name }: Stood): string =>
  kind === 'light' ? `light ${tag}` : `${tag} ${name}`;

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** How a thing stands elsewhere. */
export function moveWords({ moves }: Pick<Moved, 'moves'>): string {
  return moves
    .map(({ way, byM, errorM }) => {
      const isFurthest = Math.abs(byM) >= FURTHEST_M - 1e-6;
      const length = `${formatLength(Math.abs(byM))} ${isFurthest ? 'or more' : `(± ${formatLength(errorM)})`}`;
      if (way === 'right') return `${length} further ${byM > 0 ? 'right' : 'left'}`;
      return `${length} ${byM > 0 ? 'further from the camera' : 'nearer to the camera'}`;
    })
    .join(' and ');
}

type Found = Pick<FrameMoves, 'moved' | 'isExplained' | 'atLens'>;

/** What stands elsewhere in a frame: things that are named, those of which it is one, and what is left. */
export function movedWords({ moved, isExplained, atLens }: Found): string {
  const named = moved.filter(({ isNamed }) => isNamed);
  const either = moved.filter(({ isNamed }) => !isNamed);
  const others = either.map((own) => `${stoodName(own)}, ${moveWords(own)}`).join('; or ');
  const told = [
    ...named.map((own) => `${capital(stoodName(own))} stands elsewhere: as if it stood ${moveWords(own)}.`),
    either.length > 0 && `Something stands elsewhere: ${others}. The frame does not tell which.`,
    isExplained &&
      moved.length === 0 &&
      'No card or light stands elsewhere by so much that the products would show it.',
    !isExplained && unexplainedWords(moved.length > 0, atLens),
  ];
  return told.filter(Boolean).join(' ');
}

function unexplainedWords(isSomeMoved: boolean, atLens: Found['atLens']): string {
  const differs = isSomeMoved
    ? 'The frame differs from its plan by more than that explains'
    : 'The frame differs from its plan by more than a card or light that stands elsewhere explains';
  const lens = atLens.length > 0 ? ` (${atLens.map(stoodName).join(', ')})` : '';
  return `${differs}: look what is before the lens${lens}, and what was changed.`;
}

/** What may stand elsewhere without the picture telling it. */
export function untoldWords(untold: FrameMoves['untold']): string {
  const all = untold.map((own) => {
    const [way] = own.ways;
    const only = own.ways.length > 1 ? '' : way === 'right' ? ' to the sides' : ' nearer or further';
    return `${stoodName(own)}${only}`;
  });
  const [stand, them] = all.length > 1 ? ['these stand', 'them'] : ['this stands', 'it'];
  return `The picture does not tell where ${stand}: ${all.join('; ')}. Tape ${them}.`;
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
