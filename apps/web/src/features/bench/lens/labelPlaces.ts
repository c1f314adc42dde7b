export interface LabelledMark {
  x: number;
  y: number;
  text: string;
}

export interface LabelPlace {
  /** From the mark to the start or end of the text's base line, px. */
  dx: number;
  dy: number;
  anchor: 'start' | 'end';
}

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Half the side of a mark, and its distance from its label, px. */
const MARK_PX = 6;
const GAP_PX = 9;
/** About the width of a letter and the height of a line at 11 px, semi-bold. */
const LETTER_PX = 6.3;
const LINE_PX = 13;
/** From the middle of a line down to its base line, px. */
const BASE_PX = 4;

/** Beside the mark, then one to three lines lower or higher; to the right before the left. */
const TRIED: LabelPlace[] = [0, 1, -1, 2, -2, 3, -3].flatMap((lines) => [
  { dx: GAP_PX, dy: BASE_PX + lines * LINE_PX, anchor: 'start' as const },
  { dx: -GAP_PX, dy: BASE_PX + lines * LINE_PX, anchor: 'end' as const },
]);

/**
 * Where the labels of marks stand so that none covers another or another's mark, as far as that can be had, and all
 * lie within the picture.
 */
export function labelPlaces(marks: readonly LabelledMark[], width: number, height: number): LabelPlace[] {
  const taken: Box[] = marks.map(({ x, y }) => boxRound(x, y));
  return marks.map((mark, own) => {
    const others = taken.filter((_, i) => i !== own);
    const within = TRIED.filter((place) => lies(labelBox(mark, place), width, height));
    const free = within.find((place) => {
      const box = labelBox(mark, place);
      return others.every((other) => !overlaps(box, other));
    });
    const place = free ?? within[0] ?? (TRIED[0] as LabelPlace);
    taken.push(labelBox(mark, place));
    return place;
  });
}

const boxRound = (x: number, y: number): Box => ({
  left: x - MARK_PX,
  right: x + MARK_PX,
  top: y - MARK_PX,
  bottom: y + MARK_PX,
});

function labelBox({ x, y, text }: LabelledMark, { dx, dy, anchor }: LabelPlace): Box {
  const long = LETTER_PX * text.length;
  const left = anchor === 'start' ? x + dx : x + dx - long;
  const middle = y + dy - BASE_PX;
  return { left, right: left + long, top: middle - LINE_PX / 2, bottom: middle + LINE_PX / 2 };
}

const lies = ({ left, right, top, bottom }: Box, width: number, height: number) =>
  left >= 0 && right <= width && top >= 0 && bottom <= height;

const overlaps = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
