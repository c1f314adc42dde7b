import type { Backdrop } from '@fendrix/contract';
import { PictureTiles } from '../../../../shared/PictureTiles';

/** Each kind as it stands, seen from the side with the lens at the left: what it is called, and its line. */
export const BACKGROUND_KINDS: readonly { value: Backdrop['kind']; words: string; line: string }[] = [
  { value: 'sweep', words: 'paper bent up behind', line: 'M4 40H44Q62 40 62 22V5' },
  { value: 'panel', words: 'flat, upright', line: 'M62 36V5' },
  { value: 'boards', words: 'two boards in an L', line: 'M4 40H60M62 42V5' },
];

/** The kinds of background by their drawings. */
export function BackgroundKinds({
  kind,
  onChoose,
}: {
  kind: Backdrop['kind'];
  onChoose(kind: Backdrop['kind']): void;
}) {
  return (
    <PictureTiles
      label="kind"
      value={kind}
      leastWidth={66}
      options={BACKGROUND_KINDS.map(({ value, words, line }) => ({
        value,
        words,
        picture: <SideDrawing line={line} />,
      }))}
      onChoose={onChoose}
    />
  );
}

/** The background's line, the table under it, and a bottle that stands before it. */
function SideDrawing({ line }: { line: string }) {
  return (
    <svg width={68} height={50} viewBox="0 0 68 50" aria-hidden fill="none" stroke="currentColor">
      <path d="M2 44H66" strokeWidth={1} opacity={0.45} />
      <path d="M22 40V26Q22 22 25 20V13H29V20Q32 22 32 26V40Z" strokeWidth={1} opacity={0.7} />
      <path d={line} strokeWidth={3} strokeLinejoin="round" />
    </svg>
  );
}
