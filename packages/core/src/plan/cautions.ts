import type { JobProduct } from '@fendrix/contract';

/** Usual cautions that come with products. Local rules and qualified people come first; the interface says so. */
export function cautionsFor({
  goods,
  fragile,
  minutesOnSet,
  clear,
}: Pick<JobProduct, 'goods' | 'fragile' | 'minutesOnSet' | 'clear'>): string[] {
  const cautions: string[] = [];
  if (goods === 'glass' || (goods === 'drink' && clear !== 'opaque')) {
    cautions.push('Glass breaks: carry it in two hands, clear the path, sweep up before anyone kneels.');
  }
  if (goods === 'food') {
    cautions.push(
      'Knives lie flat with the edge away, and go back after each cut. Food that was glued, painted, oiled with anything not for eating, or left warm is not eaten.',
    );
  }
  if (goods === 'drink') {
    cautions.push(
      'Liquids near electricity: lights above and away, drip loops in the cables, a residual-current device, dry hands.',
    );
  }
  if (goods === 'jewelry') {
    cautions.push(
      'Count small pieces out and in; hot glue and solvents mark stones and plating, and want air.',
    );
  }
  if (minutesOnSet !== undefined || /melt|heat|warm|wilt|foam/i.test(fragile)) {
    cautions.push(
      'It does not bear heat: flash or LED rather than hot lamps, modelling lamps off, and it comes on set last.',
    );
  }
  if (goods === 'garment') {
    cautions.push(
      'Steam and irons burn skin and mark cloth: test on a seam, stand them upright, unplug them.',
    );
  }
  return cautions;
}
