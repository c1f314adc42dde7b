import type { TextTone } from '@fendrix/contract';
import { LRUCache } from 'lru-cache';
import { Coverage } from './coverage.js';
import { alongOutline, type Face, PER_EM } from './face.js';
import { faceOf } from './faces.js';

/** Pixels on the longer side of a lettered patch. */
const LONG_SIDE = 640;
/** From one line to the next, of the larger of their sizes. */
const LEADING = 1.22;

/** What is set on a patch, and how. */
export type Words = Pick<TextTone, 'lines' | 'typeface' | 'head' | 'border' | 'ratio'>;

export interface Lettering {
  widthPx: number;
  heightPx: number;
  /** Part of each pixel covered by ink, 255 for all of it, row by row from the top left. */
  ink: Uint8Array;
}

/** Letterings drawn before: the same label is asked for at every change of the set. */
const drawn = new LRUCache<string, Lettering>({ max: 32 });

/** Lines of words, centred and as large as fits on a patch, head lines larger by their factor; letters that a typeface lacks are left blank. */
export function drawLettering(words: Words): Lettering {
  const key = JSON.stringify([words.lines, words.typeface, words.head, words.border, words.ratio]);
  const known = drawn.get(key);
  if (known) return known;
  const made = draw(words);
  drawn.set(key, made);
  return made;
}

/** One line as it is set, at a size of 1. */
interface SetLine {
  face: Face;
  /** Times the size of the lines that are no head. */
  size: number;
  letters: { letter: string; x: number }[];
  width: number;
}

/** Letters side by side, pairs closer or wider as the typeface wants them, lengths in sizes. */
function setLine(face: Face, words: string, size: number): SetLine {
  const letters: SetLine['letters'] = [];
  let x = 0;
  let before = '';
  for (const letter of words) {
    const glyph = face.glyphs[letter] ?? face.glyphs[' '];
    x += face.kern[before + letter] ?? 0;
    letters.push({ letter, x: x / PER_EM });
    x += glyph?.[0] ?? 0;
    before = letter;
  }
  return { face, size, letters, width: x / PER_EM };
}

function draw({ lines, typeface, head, border, ratio }: Words): Lettering {
  const widthPx = Math.max(16, Math.round(ratio >= 1 ? LONG_SIDE : LONG_SIDE * ratio));
  const heightPx = Math.max(16, Math.round(ratio >= 1 ? LONG_SIDE / ratio : LONG_SIDE));
  const rows = lines.map((words, i) =>
    head && i < head.lines
      ? setLine(faceOf(head.typeface), words, head.size)
      : setLine(faceOf(typeface), words, 1),
  );
  const [first, last] = [rows[0], rows.at(-1)];
  const coverage = new Coverage(widthPx, heightPx);
  if (!first || !last) return { widthPx, heightPx, ink: coverage.ink() };
  // From the top of the first line's capitals to the lowest that the last one reaches.
  const baselines: number[] = [];
  let down = (first.size * first.face.capHeight) / PER_EM;
  rows.forEach(({ size }, i) => {
    const apart = LEADING * Math.max(size, rows[i - 1]?.size ?? 0);
    // A line that is left empty parts what stands over it from what stands under it.
    if (i > 0) down += lines[i] === '' ? apart / 2 : apart;
    baselines.push(down);
  });
  const reaches = /[gjpqy,;Q]/.test(lines.at(-1) ?? '') ? (last.size * last.face.descent) / PER_EM : 0;
  const tall = down + reaches;
  const wide = Math.max(...rows.map(({ width, size }) => width * size));
  const edge = border * Math.min(widthPx, heightPx);
  const sizePx = Math.min((widthPx - 2 * edge) / Math.max(wide, 1e-6), (heightPx - 2 * edge) / tall);
  if (!(sizePx > 0)) return { widthPx, heightPx, ink: coverage.ink() };
  const top = (heightPx - sizePx * tall) / 2;
  rows.forEach(({ face, size, letters, width }, i) => {
    const baseline = top + sizePx * (baselines[i] as number);
    const left = (widthPx - sizePx * size * width) / 2;
    const scale = (sizePx * size) / PER_EM;
    for (const { letter, x } of letters) {
      const start = left + sizePx * size * x;
      alongOutline(face.glyphs[letter]?.[1] ?? '', (fromX, fromY, toX, toY) =>
        coverage.line(
          start + scale * fromX,
          baseline - scale * fromY,
          start + scale * toX,
          baseline - scale * toY,
        ),
      );
    }
  });
  return { widthPx, heightPx, ink: coverage.ink() };
}
