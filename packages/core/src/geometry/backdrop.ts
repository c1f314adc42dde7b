import type { Backdrop, Panel } from '@fendrix/contract';

/** Whether a background lies on the table too: the top of the table is then just under it. */
export const liesOnTable = (backdrop: Backdrop | undefined): backdrop is Exclude<Backdrop, Panel> =>
  backdrop !== undefined && backdrop.kind !== 'panel';

/** Pieces of a bend where a sweep is drawn by straight lines. */
const BEND_PIECES = 12;

/** What lies on the table and stands up behind, seen from the side: points [y, z] from front edge to top edge, m. */
export function backdropProfile(backdrop: Exclude<Backdrop, Panel>): [number, number][] {
  const { frontM, backM, heightM } = backdrop;
  if (backdrop.kind === 'boards') {
    return [
      [frontM, 0],
      [backM, 0],
      [backM, heightM],
    ];
  }
  const { radiusM } = backdrop;
  const bend = Array.from({ length: BEND_PIECES + 1 }, (_, i): [number, number] => {
    const angle = (i / BEND_PIECES) * (Math.PI / 2);
    return [backM - radiusM + radiusM * Math.sin(angle), radiusM - radiusM * Math.cos(angle)];
  });
  return [[frontM, 0], ...bend, [backM, heightM]];
}
