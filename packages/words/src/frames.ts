import type { FrameAgainstPlan, FrameSettings } from '@fendrix/contract';
import { F_NUMBERS, formatLength, ISO_SPEEDS, printedSetting, SHUTTERS } from '@fendrix/core';

type Image = FrameAgainstPlan['images'][number];

/** A light or sheet whose image stands elsewhere in a frame, with what would explain it. */
export function imageWords({ kind, tag, name, product, edge, moves }: Image): string {
  const percent = (part: number) => Math.round(100 * part);
  const ways = moves.map(({ way, byM, errorM }) => {
    const length = `${formatLength(Math.abs(byM))} (± ${formatLength(errorM)})`;
    if (way === 'right') return `${length} further ${byM > 0 ? 'right' : 'left'}`;
    return `${length} ${byM > 0 ? 'further from the camera' : 'nearer to the camera'}`;
  });
  const what = kind === 'light' ? `Light ${tag}` : `${tag} ${name}`;
  return `${what} stands elsewhere: the edge of its image on ${product} is at ${percent(edge.frame)}, not at ${percent(edge.plan)} percent of the width. As if it stood some ${ways.join(', or ')}.`;
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
