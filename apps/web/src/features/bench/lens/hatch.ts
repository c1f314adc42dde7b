/**
 * How a mirrored thing is marked in the lens view and the band: a tone and a hatch, so that shape carries the
 * meaning and colour only helps.
 */
export interface Hatch {
  tone: string;
  /** Direction of the lines, degrees; null for none. */
  angleDeg: number | null;
  gapPx: number;
}

const LIGHT_TONES = ['#d9f3f0', '#c3e6f2', '#dcecc9', '#efe3c2'];
const SHEET_TONES = ['#f4e7b8', '#e8c9a0', '#d8c3da', '#c2cfe6', '#e6b9ae'];
const ANGLES = [45, 135, 90, 0, 65, 115];

/** @param kind of the mirrored thing or of the band length  @param key its tag or name */
export function hatchOf(kind: string, key: string | null): Hatch {
  if (kind === 'light') {
    const place = (key ?? 'A').charCodeAt(0) - 65;
    return { tone: pick(LIGHT_TONES, place), angleDeg: pick(ANGLES, place), gapPx: 7 };
  }
  if (kind === 'sheet') {
    const place = Number(key) - 1;
    return { tone: pick(SHEET_TONES, place), angleDeg: pick(ANGLES, place + 1), gapPx: 5 };
  }
  if (kind === 'backdrop') return { tone: '#cfcfcf', angleDeg: null, gapPx: 0 };
  if (kind === 'bench') return { tone: '#a89c8c', angleDeg: null, gapPx: 0 };
  if (kind === 'room') return { tone: '#8b8b8b', angleDeg: null, gapPx: 0 };
  if (kind === 'product') return { tone: '#b49ab0', angleDeg: 0, gapPx: 4 };
  if (kind === 'camera' || kind === 'person' || kind === 'stand')
    return { tone: '#3c2f3f', angleDeg: kind === 'camera' ? 90 : 0, gapPx: 6 };
  if (kind === 'matte') return { tone: '#5c5c5c', angleDeg: null, gapPx: 0 };
  return { tone: '#1d1d1d', angleDeg: null, gapPx: 0 };
}

/** What stands beside a length of the band: its tag, or a word. */
export function shortName(kind: string, key: string | null): string {
  if (kind === 'dark') return 'room: dark';
  if (kind === 'stand') return `stand of ${key}`;
  if (kind === 'matte') return 'matte';
  if (kind === 'hidden') return `behind ${key ?? 'something'}`;
  if (kind === 'room') return key?.startsWith('wall') ? 'wall' : (key ?? 'room');
  return key ?? kind;
}

const pick = <T>(list: readonly T[], place: number): T =>
  list[((place % list.length) + list.length) % list.length] as T;
