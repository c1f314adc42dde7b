import type { Studio, Vector } from '@fendrix/contract';
import { type Place, type Sky, sunPosition, throughWindow } from '../photometry/daylight.js';
import { radians } from '../units/angle.js';
import { normalise, scale, subtract } from '../units/vector.js';
import type { WindowLight } from './studioWindows.js';

/** Usual colours, K: blue sky, clouds, high sun, sun at the horizon. Source: CIE daylight phases; to be metered. */
const COLOURS = { clear: 12_000, overcast: 6500, sun: 5500, lowSun: 3200 } as const;
/** Under this height the sun is warmer the lower it stands, degrees. */
const LOW_SUN_DEG = 20;
/** A window at night, cd/m2: there has to be some figure. */
const NIGHT_CD_M2 = 0.01;
const HALF_HOUR_MS = 1_800_000;
const MOST_DRIFT = 10;

/** Where a studio is; null where that was not said. */
export const placeOf = ({
  latitudeDeg,
  longitudeDeg,
}: Pick<Studio, 'latitudeDeg' | 'longitudeDeg'>): Place | null =>
  latitudeDeg === undefined || longitudeDeg === undefined ? null : { latitudeDeg, longitudeDeg };

/**
 * A window with the daylight of a moment: sky, sun where it comes in, and how fast the sky changes.
 * @param facesDeg compass bearing of the window
 */
export function atMoment(
  window: WindowLight,
  facesDeg: number,
  atMs: number,
  place: Place,
  sky: Sky,
): WindowLight {
  const { skyCdM2, sun } = throughWindow(facesDeg, atMs, place, sky);
  const sooner = throughWindow(facesDeg, atMs - HALF_HOUR_MS, place, sky).skyCdM2;
  const later = throughWindow(facesDeg, atMs + HALF_HOUR_MS, place, sky).skyCdM2;
  const drift = sooner > 0 && later > 0 ? Math.log2(later / sooner) : 0;
  const { sun: _before, ...rest } = window;
  const low = Math.max(0, Math.min(1, sunPosition(atMs, place).elevationDeg / LOW_SUN_DEG));
  return {
    ...rest,
    sky: sky === 'clear' ? 'even' : 'overcast',
    output: { kind: 'luminance', luminanceCdM2: Math.max(NIGHT_CD_M2, skyCdM2) },
    colour: { gels: [], ...window.colour, temperatureK: COLOURS[sky] },
    driftStopsPerHour: Math.max(-MOST_DRIFT, Math.min(MOST_DRIFT, drift)),
    ...(sun
      ? {
          sun: {
            towards: sunWay(window, sun.elevationDeg, sun.asideDeg),
            illuminanceLx: sun.lx,
            temperatureK: COLOURS.lowSun + low * (COLOURS.sun - COLOURS.lowSun),
          },
        }
      : {}),
  };
}

/**
 * A window as a meter found it: its sky and its sun stronger by so many stops than they were taken to be.
 * Limits: what makes it differ (cloud, haze, a house opposite) is taken to dim both alike.
 */
export function asMetered(window: WindowLight, stops: number): WindowLight {
  const factor = 2 ** stops;
  const { output, sun } = window;
  return {
    ...window,
    ...(output.kind === 'luminance'
      ? { output: { ...output, luminanceCdM2: output.luminanceCdM2 * factor } }
      : {}),
    ...(sun ? { sun: { ...sun, illuminanceLx: sun.illuminanceLx * factor } } : {}),
  };
}

/** The way that sunlight goes through a window. @param asideDeg clockwise, seen from above, of the way the window faces */
function sunWay(
  { positionM, aimM }: Pick<WindowLight, 'positionM' | 'aimM'>,
  elevationDeg: number,
  asideDeg: number,
): Vector {
  const [x, y] = normalise(subtract(positionM, aimM));
  const [aside, up] = [radians(asideDeg), radians(elevationDeg)];
  const toSun: Vector = [
    Math.cos(up) * (x * Math.cos(aside) + y * Math.sin(aside)),
    Math.cos(up) * (y * Math.cos(aside) - x * Math.sin(aside)),
    Math.sin(up),
  ];
  return scale(toSun, -1);
}
