import type { FrameAgainstPlan } from '@fendrix/contract';
import { formatLength } from '@fendrix/core';

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
