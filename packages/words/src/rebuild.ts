import { formatLength, type Rebuilt, type RebuiltImage } from '@fendrix/core';

/** Where an image lies, from camera left. */
const lies = ({ from, to }: { from: number; to: number }): string =>
  `${Math.round(100 * from)} to ${Math.round(100 * to)} %`;

/** What becomes of an image that the old product showed. */
export function rebuiltImageWords(image: RebuiltImage): { title: string; words: string; isMet: boolean } {
  const { kind, key, name, was, now, how, limited } = image;
  const title = `${key} ${name}`;
  const isMet = limited === null;
  if (isMet && how === 'stays')
    return { title, isMet, words: `stays: its image lies at ${lies(was)} as it did.` };
  if (isMet)
    return {
      title,
      isMet,
      words: `${how === 'size' ? 'is cut to another width' : 'is moved'}, so that its image lies at ${lies(now ?? was)}; it did at ${lies(was)}.`,
    };
  const ended = now
    ? `its image lies at ${lies(now)}, and did at ${lies(was)}`
    : `it is not mirrored any more; its image lay at ${lies(was)}`;
  return { title, isMet, words: `${ended}: ${reason(limited, kind)}` };
}

function reason(limited: NonNullable<RebuiltImage['limited']>, kind: RebuiltImage['kind']): string {
  switch (limited) {
    case 'not-mirrored':
      return 'the new product mirrors nothing there.';
    case 'no-place':
      return `no place was found for the ${kind === 'light' ? 'light' : 'sheet'} that the lens does not see and that brings it there. The form is too different: look at it on the bench.`;
    case 'room':
      return 'the room ends before.';
    case 'height':
      return 'what it mirrors there lies too high or too low.';
    case 'nearest':
      return 'it stands as near as it can.';
    case 'farthest':
      return 'it stands as far as it can.';
  }
}

/** What becomes of product, riser, frame. */
export function rebuiltFrameWords({ size, liftM, fill, cameraBackM, fits }: Rebuilt): string[] {
  const tall = (one: { heightM: number; widthM: number }) =>
    `${formatLength(one.heightM)} high and ${formatLength(one.widthM)} wide`;
  const part = (value: number) => `${Math.round(100 * value)} %`;
  return [
    `The new product is ${tall(size.now)}; the old one was ${tall(size.was)}.`,
    ...(liftM > 0.0005 ? [`It stands on a riser of ${formatLength(liftM)}.`] : []),
    fits
      ? cameraBackM > 0
        ? `It would not be in the frame: the camera goes back ${formatLength(cameraBackM)}, so the scale is another one.`
        : 'The camera stays: same scale, same base line.'
      : 'It is not in the frame, and the camera cannot go back as far: take a shorter lens.',
    `It takes ${part(fill.now)} of the frame; the old one took ${part(fill.was)}.`,
  ];
}
