import type { LightOf } from '@fendrix/contract';
import { FileError } from './fileError.js';

/** What a photometric file tells of a light. */
export interface MeasuredLight {
  /** Words of the file: maker's fields are left out, they are no business of a set. */
  name: string;
  distribution: LightOf<'ies'>['distribution'];
  openingWidthM: number;
  openingLengthM: number;
  /** Flux ahead of the opening, by integrating the intensities, lm. */
  lumens: number;
  inputWatts: number;
}

const MOST_BYTES = 2_000_000;
const FEET_M = 0.3048;
/** Openings given as a point are taken this large, m. */
const LEAST_OPENING_M = 0.01;

/**
 * Reads an IES file: luminous intensities by angle, photometric type C.
 * Takes LM-63 of 1986, 1991, 1995, 2002 and 2019, with TILT=NONE or TILT=INCLUDE (the tilt table is read over: it
 * tells of lamps that burn at a slant). Light behind the opening, beyond 90 degrees, is left out; a file that has
 * light behind only is turned over.
 * @throws {FileError} with the line, where the file is cut off, of another type, or holds what is no number
 * Source: ANSI/IES LM-63-2002; LM-63-19
 */
export function readIes(text: string): MeasuredLight {
  if (text.length > MOST_BYTES) throw new FileError('The file is larger than any table of intensities.');
  const lines = text.split(/\r\n|\r|\n/);
  const tiltAt = lines.findIndex((line) => /^\s*TILT\s*=/i.test(line));
  if (tiltAt < 0) {
    throw new FileError(
      'There is no line TILT=…: this is not an IES file of intensities.',
      Math.min(1, lines.length),
    );
  }
  const numbers = new Numbers(lines, tiltAt + 1);
  readTilt((lines[tiltAt] ?? '').replace(/^\s*TILT\s*=\s*/i, '').trim(), numbers, tiltAt + 1);

  numbers.next('the number of lamps');
  numbers.next('lumens per lamp');
  const multiplier = numbers.positive('the candela multiplier');
  const verticals = numbers.count('the number of vertical angles', 2, 361);
  const horizontals = numbers.count('the number of horizontal angles', 1, 361);
  const type = numbers.next('the photometric type');
  if (type !== 1) {
    throw numbers.error(
      `The photometric type is ${type}; only type C (1), round the axis of the light, is read.`,
    );
  }
  const unit = numbers.next('the units, 1 for feet or 2 for metres');
  if (unit !== 1 && unit !== 2) throw numbers.error(`The units are ${unit}; 1 is feet, 2 is metres.`);
  const perUnit = unit === 1 ? FEET_M : 1;
  // A size below 0 is that of a round opening.
  const [width, length] = [numbers.next('the width'), numbers.next('the length')].map((size) =>
    Math.min(5, Math.max(LEAST_OPENING_M, Math.abs(size) * perUnit)),
  ) as [number, number];
  numbers.next('the height');
  const ballast = numbers.positive('the ballast factor');
  const future = numbers.next('the second ballast factor');
  const inputWatts = numbers.next('the input watts');
  const verticalDeg = numbers.rising('vertical angles', verticals, 0, 180);
  const horizontalDeg = numbers.rising('horizontal angles', horizontals, 0, 360);
  checkHorizontals(horizontalDeg, numbers);
  const scale = multiplier * ballast * (future > 0 ? future : 1);
  const candela = horizontalDeg.map((angle) =>
    Array.from({ length: verticals }, () => scale * numbers.notNegative(`an intensity at ${angle} degrees`)),
  );

  const distribution = ahead({ verticalDeg, horizontalDeg, candela }, numbers);
  return {
    name: nameOf(lines.slice(0, tiltAt)),
    distribution,
    openingWidthM: width,
    openingLengthM: length,
    lumens: fluxAhead(distribution),
    inputWatts,
  };
}

function readTilt(tilt: string, numbers: Numbers, line: number): void {
  if (tilt.toUpperCase() === 'NONE') return;
  if (tilt.toUpperCase() !== 'INCLUDE') {
    throw new FileError(
      `The tilt table is in another file, "${tilt}". Take a file with TILT=NONE or TILT=INCLUDE.`,
      line,
    );
  }
  numbers.next('the lamp’s position');
  const count = numbers.count('the number of tilt angles', 1, 361);
  for (let i = 0; i < 2 * count; i++) numbers.next('the tilt table');
}

/** Horizontal angles of type C go round from 0 to 0, 90, 180 or 360. */
function checkHorizontals(angles: readonly number[], numbers: Numbers): void {
  const last = angles.at(-1) ?? 0;
  if (angles[0] === 0 && [0, 90, 180, 360].includes(last)) return;
  throw numbers.error(
    `The horizontal angles run from ${angles[0]} to ${last}; they must go from 0 to 0, 90, 180 or 360.`,
  );
}

type Distribution = MeasuredLight['distribution'];

/** The half of the table ahead of the opening; one that shines backwards only is turned over. */
function ahead({ verticalDeg, horizontalDeg, candela }: Distribution, numbers: Numbers): Distribution {
  if ((verticalDeg[0] as number) >= 90) {
    const turned = {
      verticalDeg: verticalDeg.map((angle) => 180 - angle).reverse(),
      horizontalDeg,
      candela: candela.map((row) => [...row].reverse()),
    };
    return ahead(turned, numbers);
  }
  if ((verticalDeg[0] as number) !== 0) {
    throw numbers.error(
      `The vertical angles start at ${verticalDeg[0]}; they must start at 0, straight ahead.`,
    );
  }
  const kept = verticalDeg.filter((angle) => angle <= 90).length;
  if (kept < 2) throw numbers.error('There are fewer than two vertical angles from 0 to 90 degrees.');
  return {
    verticalDeg: verticalDeg.slice(0, kept),
    horizontalDeg,
    candela: candela.map((row) => row.slice(0, kept)),
  };
}

/** Integral of the intensities over the half space ahead, by exact integration of straight lines between angles, lm. */
function fluxAhead({ verticalDeg, horizontalDeg, candela }: Distribution): number {
  const mean = verticalDeg.map((_, i) => {
    if (horizontalDeg.length === 1) return candela[0]?.[i] ?? 0;
    let sum = 0;
    for (let row = 1; row < horizontalDeg.length; row++) {
      const step = (horizontalDeg[row] as number) - (horizontalDeg[row - 1] as number);
      sum += (step * ((candela[row - 1]?.[i] ?? 0) + (candela[row]?.[i] ?? 0))) / 2;
    }
    return sum / (horizontalDeg.at(-1) as number);
  });
  let flux = 0;
  for (let i = 1; i < verticalDeg.length; i++) {
    const [a, b] = [verticalDeg[i - 1], verticalDeg[i]].map((deg) => ((deg as number) * Math.PI) / 180) as [
      number,
      number,
    ];
    const [from, to] = [mean[i - 1] as number, mean[i] as number];
    const slope = (to - from) / (b - a);
    // Of (from + slope (t - a)) sin t.
    const antiderivative = (t: number) => -(from + slope * (t - a)) * Math.cos(t) + slope * Math.sin(t);
    flux += 2 * Math.PI * (antiderivative(b) - antiderivative(a));
  }
  return flux;
}

function nameOf(header: readonly string[]): string {
  const word = header
    .map((line) => /^\s*\[(?:LUMINAIRE|LUMCAT)\]\s*(\S.*)$/i.exec(line)?.[1])
    .find((found) => found !== undefined);
  return (word ?? 'Measured light')
    .replace(/\p{Cc}/gu, '')
    .trim()
    .slice(0, 80);
}

/** The numbers of a file one after the other, each with the line it stands in. */
class Numbers {
  private line: number;
  private words: string[] = [];

  constructor(
    private readonly lines: readonly string[],
    start: number,
  ) {
    this.line = start;
  }

  next(what: string): number {
    while (this.words.length === 0) {
      if (this.line >= this.lines.length) throw this.error(`The file ends before ${what}.`);
      this.words = (this.lines[this.line] ?? '').split(/[\s,]+/).filter(Boolean);
      this.line++;
    }
    const word = this.words.shift() as string;
    const number = Number(word);
    if (!Number.isFinite(number)) throw this.error(`"${word.slice(0, 20)}" stands where ${what} should be.`);
    return number;
  }

  positive(what: string): number {
    const number = this.next(what);
    if (!(number > 0)) throw this.error(`${number} stands for ${what}, which must be above 0.`);
    return number;
  }

  notNegative(what: string): number {
    const number = this.next(what);
    if (!(number >= 0)) throw this.error(`${number} stands for ${what}, which cannot be below 0.`);
    return number;
  }

  count(what: string, least: number, most: number): number {
    const number = this.next(what);
    if (!(Number.isInteger(number) && number >= least && number <= most)) {
      throw this.error(`${number} stands for ${what}; it must be a whole number from ${least} to ${most}.`);
    }
    return number;
  }

  rising(what: string, count: number, least: number, most: number): number[] {
    const numbers: number[] = [];
    for (let i = 0; i < count; i++) {
      const number = this.next(`the ${what}`);
      const before = numbers.at(-1);
      if (!(number >= least && number <= most))
        throw this.error(`${number} among the ${what}; they lie from ${least} to ${most}.`);
      if (before !== undefined && !(number > before))
        throw this.error(`The ${what} fall from ${before} to ${number}; they must rise.`);
      numbers.push(number);
    }
    return numbers;
  }

  error(message: string): FileError {
    return new FileError(message, Math.min(this.line, this.lines.length));
  }
}
