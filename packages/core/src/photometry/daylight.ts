import { degrees, radians } from '../units/angle.js';

/** Where the sun stands: over the horizon, and its compass bearing, 0 north, 90 east. */
export interface SunPosition {
  elevationDeg: number;
  bearingDeg: number;
}

export interface Place {
  /** North of the equator, degrees. */
  latitudeDeg: number;
  /** East of Greenwich, degrees. */
  longitudeDeg: number;
}

/** 2000 January 1, 12:00 UTC, ms since 1970. */
const J2000_MS = Date.UTC(2000, 0, 1, 12);
const DAY_MS = 86_400_000;
const turn = (deg: number): number => ((deg % 360) + 360) % 360;

/**
 * Position of the sun, refraction included; within 0.02 degrees from 1950 to 2050.
 * Source: Meeus 1998, Astronomical Algorithms, chapters 12, 22 and 25, low accuracy; refraction by Bennett 1982.
 * @param atMs moment, ms since 1970
 */
export function sunPosition(atMs: number, { latitudeDeg, longitudeDeg }: Place): SunPosition {
  const days = (atMs - J2000_MS) / DAY_MS;
  const t = days / 36_525;
  const meanLongitude = turn(280.46646 + t * (36_000.76983 + 0.0003032 * t));
  const anomaly = radians(turn(357.52911 + t * (35_999.05029 - 0.0001537 * t)));
  const centre =
    (1.914602 - t * (0.004817 + 0.000014 * t)) * Math.sin(anomaly) +
    (0.019993 - 0.000101 * t) * Math.sin(2 * anomaly) +
    0.000289 * Math.sin(3 * anomaly);
  const node = radians(125.04 - 1934.136 * t);
  const longitude = radians(meanLongitude + centre - 0.00569 - 0.00478 * Math.sin(node));
  const obliquity = radians(23.439291 - t * (0.0130042 + 1.64e-7 * t) + 0.00256 * Math.cos(node));
  const declination = Math.asin(Math.sin(obliquity) * Math.sin(longitude));
  const ascension = Math.atan2(Math.cos(obliquity) * Math.sin(longitude), Math.cos(longitude));
  const sidereal = turn(280.46061837 + 360.98564736629 * days + 0.000387933 * t * t);
  const hour = radians(turn(sidereal + longitudeDeg)) - ascension;
  const latitude = radians(latitudeDeg);
  const elevation = Math.asin(
    Math.sin(latitude) * Math.sin(declination) + Math.cos(latitude) * Math.cos(declination) * Math.cos(hour),
  );
  const bearing = Math.atan2(
    -Math.sin(hour),
    Math.tan(declination) * Math.cos(latitude) - Math.sin(latitude) * Math.cos(hour),
  );
  const elevationDeg = degrees(elevation);
  return { elevationDeg: elevationDeg + refractionDeg(elevationDeg), bearingDeg: turn(degrees(bearing)) };
}

/** How much higher the air makes the sun look, degrees. */
function refractionDeg(elevationDeg: number): number {
  if (elevationDeg < -1) return 0;
  return 1.02 / Math.tan(radians(elevationDeg + 10.3 / (elevationDeg + 5.11))) / 60;
}

export type Sky = 'clear' | 'overcast';

/** What reaches the ground out of doors, lx. */
export interface Daylight {
  /** From the sky alone, on level ground. */
  skyLx: number;
  /** From the sun alone, on a plane that faces it. */
  sunLx: number;
}

/** Sun above the air, mean of the year, lx. */
const SOLAR_LX = 127_500;
/** Extinction of clear air. */
const CLEAR = 0.21;

/**
 * Light of sun and sky by the height of the sun.
 * Source: IES Calculation Procedures Committee 1984 (RP-21), with the air mass of Kasten and Young 1989. Real skies lie within a
 * factor of two of it, and clouds that pass change it by as much within a minute.
 * @param dayOfYear 1 to 366
 */
export function daylight(elevationDeg: number, sky: Sky, dayOfYear: number): Daylight {
  if (elevationDeg <= 0) return { skyLx: 0, sunLx: 0 };
  const height = Math.sin(radians(elevationDeg));
  if (sky === 'overcast') return { skyLx: 300 + 21_000 * height, sunLx: 0 };
  const airMass = 1 / (height + 0.50572 * (elevationDeg + 6.07995) ** -1.6364);
  const above = SOLAR_LX * (1 + 0.034 * Math.cos((2 * Math.PI * (dayOfYear - 2)) / 365));
  return { skyLx: 800 + 15_500 * Math.sqrt(height), sunLx: above * Math.exp(-CLEAR * airMass) };
}

/** What a pane lets through. */
const GLASS = 0.8;
/** CIE overcast sky as a window sees it, 30 degrees over the horizon, over a uniform one of the same light on level ground. */
const OVERCAST_SEEN = 6 / 7;
/** Sun that comes in flatter along the pane is mirrored off it. */
const GRAZING_DEG = 80;

/** Light of a window at a moment. */
export interface WindowLightNow {
  /** Sky behind the pane, cd/m2. */
  skyCdM2: number;
  /** Sun that comes in; null where it does not. */
  sun: {
    /** Behind the pane, on a plane that faces it, lx. */
    lx: number;
    elevationDeg: number;
    /** To the right of straight in, seen from outside towards the window, degrees; -90 to 90. */
    asideDeg: number;
  } | null;
}

/**
 * What comes in by a window. The sky is taken to be even: a clear one is brighter towards the sun and darker away from it, by a
 * factor of two and more. Houses and trees opposite are not known.
 * @param facesDeg compass bearing of the window
 */
export function throughWindow(facesDeg: number, atMs: number, place: Place, sky: Sky): WindowLightNow {
  const position = sunPosition(atMs, place);
  const { skyLx, sunLx } = daylight(position.elevationDeg, sky, dayOfYear(atMs));
  const seen = sky === 'overcast' ? OVERCAST_SEEN : 1;
  const skyCdM2 = (GLASS * seen * skyLx) / Math.PI;
  const asideDeg = turn(position.bearingDeg - facesDeg + 180) - 180;
  const incidence = degrees(
    Math.acos(Math.cos(radians(position.elevationDeg)) * Math.cos(radians(asideDeg))),
  );
  const comesIn = sunLx > 0 && Math.abs(asideDeg) < 90 && incidence < GRAZING_DEG;
  return {
    skyCdM2,
    sun: comesIn ? { lx: GLASS * sunLx, elevationDeg: position.elevationDeg, asideDeg } : null,
  };
}

const dayOfYear = (atMs: number): number => {
  const at = new Date(atMs);
  return Math.floor((at.getTime() - Date.UTC(at.getUTCFullYear(), 0, 0)) / DAY_MS);
};

/** A window over a day, at even steps. */
export interface WindowDay {
  /** Minutes from the beginning of the day. */
  minutes: number[];
  skyCdM2: number[];
  hasSun: boolean[];
}

/**
 * A window from midnight to midnight.
 * @param fromMs midnight where the studio is, ms since 1970
 */
export function windowDay(
  facesDeg: number,
  fromMs: number,
  place: Place,
  sky: Sky,
  stepMinutes = 10,
): WindowDay {
  const minutes = Array.from({ length: Math.floor(1440 / stepMinutes) + 1 }, (_, i) => i * stepMinutes);
  const all = minutes.map((minute) => throughWindow(facesDeg, fromMs + 60_000 * minute, place, sky));
  return {
    minutes,
    skyCdM2: all.map(({ skyCdM2 }) => skyCdM2),
    hasSun: all.map(({ sun }) => sun !== null),
  };
}

/**
 * How the exposure of a window has to follow the sky of a day, counted from a meter reading: stops that each time is off by
 * with the settings that were metered. What the sky is brighter or darker than the standard one is taken to last.
 * @param reading minutes from the beginning of the day, and stops that the settings were off by then, above 0 too bright
 * @returns null where it was as good as night when it was metered
 */
export function followDaylight(
  { minutes, skyCdM2 }: Pick<WindowDay, 'minutes' | 'skyCdM2'>,
  reading: { minute: number; stops: number },
): (number | null)[] | null {
  const next = minutes.findIndex((minute) => minute >= reading.minute);
  const at = Math.max(1, next < 0 ? minutes.length - 1 : next);
  const [before, after] = [minutes[at - 1] as number, minutes[at] as number];
  const part = Math.max(0, Math.min(1, (reading.minute - before) / (after - before)));
  const then = (1 - part) * (skyCdM2[at - 1] as number) + part * (skyCdM2[at] as number);
  if (!(then > 0)) return null;
  return skyCdM2.map((now) => (now > 0 ? reading.stops + Math.log2(now / then) : null));
}

/** Stretches of a day in which something holds, minutes from its beginning. */
export function stretches(minutes: readonly number[], holds: readonly boolean[]): [number, number][] {
  const found: [number, number][] = [];
  minutes.forEach((minute, i) => {
    if (!holds[i]) return;
    const last = found.at(-1);
    if (last && holds[i - 1]) last[1] = minute;
    else found.push([minute, minute]);
  });
  return found;
}
