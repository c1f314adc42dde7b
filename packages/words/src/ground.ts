import {
  formatPower,
  formatStops,
  type GroundChange,
  type GroundVerdict,
  KEPT_STOPS,
  PAPER_WHITE_STOPS,
} from '@fendrix/core';

/** What a ground is, and what would mend it. */
export function groundVerdictWords(verdict: GroundVerdict): string {
  switch (verdict.code) {
    case 'white-over-dark-products': {
      const { overStops, byStops } = verdict;
      return `White, and ${overStops.toFixed(1)} stops over the products: they are dark for it. Raise the light on them by ${byStops.toFixed(1)} or more.`;
    }
    case 'white-by-too-much':
      return `White, but ${verdict.byStops.toFixed(1)} stops more than helps: light wraps the edges and veils the dark. Lower its light by as much.`;
    case 'white-by-too-little': {
      const { overStops, byStops } = verdict;
      return `White, but only ${overStops.toFixed(1)} stops over the white of the products: their light edges may sink into it. Lower the light on the products, or raise the background by ${byStops.toFixed(1)}.`;
    }
    case 'white': {
      const { unevenStops } = verdict;
      const uneven =
        unevenStops === null
          ? ''
          : `; ${unevenStops.toFixed(1)} stops uneven, which is not seen from ${formatStops(PAPER_WHITE_STOPS)} on`;
      return `White, and between half and one stop over the products${uneven}.`;
    }
    case 'white-alone':
      return 'White. No product is in the frame to compare it with.';
    case 'black':
      return 'Black: five stops under mid-tone or more.';
    case 'light-grey':
      return `Light grey: ${verdict.toWhiteStops.toFixed(1)} stops to paper white. Give it a light of its own, so that the products stay as they are.`;
    case 'grey':
      return `Grey: ${verdict.overBlackStops.toFixed(1)} stops above black. Take it further from the light, flag the light off it, or turn the light across.`;
  }
}

const NINTHS = [
  'top left',
  'top',
  'top right',
  'left',
  'middle',
  'right',
  'bottom left',
  'bottom',
  'bottom right',
];

/** Ninths of the frame, by their number from the top left. */
export const ninthsWords = (ninths: readonly number[]): string =>
  ninths.map((ninth) => NINTHS[ninth]).join(', ');

/** Powers to set: "A to 1/4, B to 1/8". */
export const powersWords = (powers: GroundChange['powers']): string =>
  powers.map(({ tag, powerStops }) => `${tag} to ${formatPower(powerStops)}`).join(', ');

/**
 * What a change does to ground and products.
 * @param darkest darkest part of the products before and after, with the veil of the lens, stops; null where none is seen
 */
export function groundChangeWords(
  { productsChange, groundStops }: GroundChange,
  darkest: { before: number | null; after: number | null },
): string {
  const stay =
    Math.abs(productsChange) <= KEPT_STOPS
      ? 'The products stay as they are'
      : `The products cannot stay as they are: they become ${Math.abs(productsChange).toFixed(1)} stop ${productsChange > 0 ? 'brighter' : 'darker'}`;
  const { before, after } = darkest;
  const dark =
    before === null || after === null
      ? ''
      : `; their darkest part ${formatStops(before)} → ${formatStops(after)} with the veil`;
  return `${stay}${dark}; the background then ${formatStops(groundStops)}.`;
}
