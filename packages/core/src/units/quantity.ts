const metresPer: Record<string, number> = {
  mm: 0.001,
  cm: 0.01,
  m: 1,
  in: 0.0254,
  '"': 0.0254,
  ft: 0.3048,
  "'": 0.3048,
};

const number = String.raw`[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)`;
const oneLength = new RegExp(`^(${number})\\s*(mm|cm|m|in|ft|"|')?$`);
const metresAndCentimetres = /^([+-]?\d+)\s*m\s*(\d{1,2})$/;
const feetAndInches = new RegExp(`^([+-]?\\d+)\\s*(?:ft|')\\s*(${number})\\s*(?:in|")?$`);

const toNumber = (text: string): number => Number(text.replace(',', '.'));

/**
 * A length as people type it: "45 cm", "18 in", "1m20", "5 ft 3", "45" (centimetres unless said otherwise).
 * @returns m, or null when the text is not a length
 */
export function parseLengthM(text: string, unitIfNone: keyof typeof metresPer = 'cm'): number | null {
  const trimmed = text.trim().toLowerCase();
  const whole = metresAndCentimetres.exec(trimmed);
  if (whole?.[1] && whole[2]) {
    const sign = whole[1].startsWith('-') ? -1 : 1;
    return Number(whole[1]) + sign * Number(whole[2].padEnd(2, '0')) * 0.01;
  }
  const imperial = feetAndInches.exec(trimmed);
  if (imperial?.[1] && imperial[2]) {
    const sign = imperial[1].startsWith('-') ? -1 : 1;
    return Number(imperial[1]) * 0.3048 + sign * toNumber(imperial[2]) * 0.0254;
  }
  const single = oneLength.exec(trimmed);
  if (!single?.[1]) return null;
  const perUnit = metresPer[single[2] ?? unitIfNone];
  return perUnit === undefined ? null : toNumber(single[1]) * perUnit;
}

/**
 * A bearing or angle as typed: "72 left", "30 right", "180", "-72°", "behind".
 * @returns degrees, camera right positive, or null
 */
export function parseBearingDeg(text: string): number | null {
  const trimmed = text.trim().toLowerCase();
  if (trimmed === 'behind') return 180;
  if (trimmed === 'front') return 0;
  const match = new RegExp(`^(${number})\\s*(?:°|deg)?\\s*(?:camera\\s+)?(left|right)?$`).exec(trimmed);
  if (!match?.[1]) return null;
  const value = toNumber(match[1]);
  return match[2] === 'left' ? -value : value;
}

/**
 * A tilt as typed: "30 down", "12° up", "-30", "level".
 * @returns degrees, up positive, or null
 */
export function parseTiltDeg(text: string): number | null {
  const trimmed = text.trim().toLowerCase();
  if (trimmed === 'level') return 0;
  const match = new RegExp(`^(${number})\\s*(?:°|deg)?\\s*(up|down)?$`).exec(trimmed);
  if (!match?.[1]) return null;
  const value = toNumber(match[1]);
  return match[2] === 'down' ? -value : value;
}

/**
 * A change or level in stops as typed: "+1/3", "-2", "1 2/3", "0.7".
 * @returns stops, or null
 */
export function parseStops(text: string): number | null {
  const match = /^([+\-−]?)\s*(.+)$/.exec(text.trim());
  if (!match?.[2]) return null;
  const size = parseUnsignedStops(match[2]);
  return size === null || match[1] === '' || match[1] === '+' ? size : -size;
}

function parseUnsignedStops(text: string): number | null {
  const fraction = /^(?:(\d+)\s+)?(\d+)\/([1-9]\d*)$/.exec(text);
  if (fraction) return Number(fraction[1] ?? 0) + Number(fraction[2]) / Number(fraction[3]);
  return /^\d+(?:[.,]\d+)?$/.test(text) ? toNumber(text) : null;
}

/**
 * A range of stops as typed: "+0.5 to +1.3", "up to -5" or one tone for both ends.
 * @param lowest what "up to" starts from
 * @returns from and to as typed, or null; whether they are in order is for who asks
 */
export function parseStopsRange(text: string, lowest: number): { from: number; to: number } | null {
  const upTo = /^\s*up\s+to\s+(.+)$/i.exec(text);
  const ends = upTo ? [String(lowest), upTo[1] as string] : text.split(/\s+to\s+|\s*…\s*|\s+[-–]\s+/i);
  const [from, to, more] = ends.map(parseStops);
  if (from === undefined || from === null || to === null || more !== undefined) return null;
  return { from, to: to ?? from };
}

const SECONDS_PER: Record<string, number> = { s: 1, sec: 1, ms: 1e-3, us: 1e-6, µs: 1e-6, μs: 1e-6 };

/**
 * A time as people type it: "1/800", "1.25 ms", "1250 us", "0.5 s", "2\""; a bare number counts in seconds.
 * @returns s, or null when the text is not a time
 */
export function parseTimeS(text: string): number | null {
  const match = /^(?:1\s*\/\s*(\d+(?:[.,]\d+)?)|(\d+(?:[.,]\d*)?|[.,]\d+))\s*(s|sec|ms|us|µs|μs|")?$/.exec(
    text.trim().toLowerCase(),
  );
  if (!match) return null;
  const perUnit = SECONDS_PER[match[3] === '"' ? 's' : (match[3] ?? 's')] ?? 1;
  const value = (match[1] ? 1 / toNumber(match[1]) : toNumber(match[2] as string)) * perUnit;
  return Number.isFinite(value) ? value : null;
}

/** Seconds as a shutter says them: "1/800", "0.5 s". */
export function formatTime(seconds: number): string {
  return seconds >= 0.3 || seconds === 0
    ? `${Number(seconds.toPrecision(3))} s`
    : `1/${Number((1 / seconds).toPrecision(3))}`;
}

/** Metres as "45 cm", "4.5 mm" or "12.5 m": centimetres to the millimetre, millimetres below 1 cm, metres from 10 m on. */
export function formatLength(lengthM: number): string {
  const size = Math.abs(lengthM);
  if (size < 0.00995 && size > 0) return `${trim(lengthM * 1000, 1)} mm`;
  if (size >= 10) return `${trim(lengthM, 2)} m`;
  return `${trim(lengthM * 100, 1)} cm`;
}

/** Degrees over the level as "30° down", "12° up" or "level". */
export function formatTilt(tiltDeg: number): string {
  const rounded = Math.round(tiltDeg * 10) / 10;
  return rounded === 0 ? 'level' : `${Math.abs(rounded)}° ${rounded < 0 ? 'down' : 'up'}`;
}

/** Degrees as "72° left", "30° right", "front" or "behind". */
export function formatBearing(bearingDeg: number): string {
  const rounded = Math.round(bearingDeg * 10) / 10;
  if (rounded === 0) return 'front';
  if (Math.abs(rounded) === 180) return 'behind';
  return `${Math.abs(rounded)}° ${rounded < 0 ? 'left' : 'right'}`;
}

/** Stops with their sign: "+1.3", "−0.7", "0.0". */
export function formatStops(stops: number, decimals = 1): string {
  if (!Number.isFinite(stops)) return stops > 0 ? 'no limit' : 'black';
  const text = Math.abs(stops).toFixed(decimals);
  return Number(text) === 0 ? text : `${stops < 0 ? '−' : '+'}${text}`;
}

function trim(value: number, decimals: number): string {
  return String(Number(value.toFixed(decimals)));
}
