// Turns the fonts for words on goods into outlines that the core can draw without loading a file.
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import * as fontkit from 'fontkit';

/** Each typeface by its name in the contract, and the file it comes from. */
const FILES = {
  sans: ['archivo', 400],
  'sans bold': ['archivo', 700],
  'sans black': ['archivo', 900],
  narrow: ['archivo-narrow', 400],
  'narrow bold': ['archivo-narrow', 700],
  serif: ['source-serif-4', 400],
  'serif bold': ['source-serif-4', 700],
  mono: ['jetbrains-mono', 400],
};

const range = (from, to) => Array.from({ length: to - from + 1 }, (_, i) => String.fromCodePoint(from + i));
/** Printable ASCII, the letters of Western languages, and the signs that labels use beside them. */
const LETTERS = [...range(0x20, 0x7e), ...range(0xc0, 0xff), ...'–—‘’“”•…€£°ŒœŠšŽž'];
/** Pairs that are set closer or wider. */
const PAIRED = [...range(0x41, 0x5a), ...range(0x61, 0x7a), ...".,-'’&"];
/** Kerning of less than this is not seen, thousandths of the size. */
const LEAST_KERN = 8;
/** Outlines are kept in thousandths of the size. */
const PER_EM = 1000;

const require = createRequire(import.meta.url);

function faceOf(family, weight) {
  const file = `@fontsource/${family}/files/${family}-latin-${weight}-normal.woff2`;
  const font = fontkit.create(readFileSync(require.resolve(file)));
  const scale = PER_EM / font.unitsPerEm;
  const whole = (value) => Math.round(value * scale);
  const glyphs = {};
  for (const letter of LETTERS) {
    if (!font.hasGlyphForCodePoint(letter.codePointAt(0))) continue;
    const glyph = font.glyphForCodePoint(letter.codePointAt(0));
    const path = glyph.path.commands.map(({ command, args }) => {
      const sign = { moveTo: 'M', lineTo: 'L', quadraticCurveTo: 'Q', bezierCurveTo: 'C', closePath: 'Z' }[
        command
      ];
      return `${sign}${args.map(whole).join(' ')}`;
    });
    glyphs[letter] = [whole(glyph.advanceWidth), path.join('')];
  }
  const kern = {};
  for (const first of PAIRED)
    for (const second of PAIRED) {
      if (!glyphs[first] || !glyphs[second]) continue;
      const { glyphs: set, positions } = font.layout(first + second);
      if (set.length !== 2) continue;
      const own = whole(positions[0].xAdvance - set[0].advanceWidth);
      if (Math.abs(own) >= LEAST_KERN) kern[first + second] = own;
    }
  return { capHeight: whole(font.capHeight), descent: whole(-font.descent), glyphs, kern };
}

const faces = Object.fromEntries(
  Object.entries(FILES).map(([name, [family, weight]]) => [name, faceOf(family, weight)]),
);
const made = fileURLToPath(new URL('../src/geometry/lettering/faces.ts', import.meta.url));
const words = JSON.stringify(faces);
writeFileSync(
  made,
  `// Made by packages/core/type/build.mjs from the fonts named there.
import type { Typeface } from '@fendrix/contract';
import type { Face } from './face.js';

let faces: Readonly<Record<Typeface, Face>> | null = null;

/** Read when the first words are drawn: most workers draw none. */
export function faceOf(typeface: Typeface): Face {
  faces ??= JSON.parse(
    ${JSON.stringify(words)},
  ) as Readonly<Record<Typeface, Face>>;
  return faces[typeface];
}
`,
);
process.stderr.write(`typefaces: ${Object.keys(faces).length}, ${words.length} bytes\n`);
