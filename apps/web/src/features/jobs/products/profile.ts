import type { ProfilePoint } from '@fendrix/contract';

/** A turned outline as the editor changes it: heights never fall, radii never go below 0. */

/** The profile with one point moved, held between its neighbours in height. */
export function movePoint(
  profile: readonly ProfilePoint[],
  index: number,
  to: { radiusM: number; heightM: number },
): ProfilePoint[] {
  const below = profile[index - 1]?.heightM ?? 0;
  const above = profile[index + 1]?.heightM ?? 10;
  return profile.map((point, i) =>
    i === index
      ? {
          ...point,
          radiusM: tenth(Math.max(0, to.radiusM)),
          heightM: index === 0 ? 0 : tenth(Math.min(above, Math.max(below, to.heightM))),
        }
      : point,
  );
}

/** The profile with a point more after one, half-way to the next or a little over the last. */
export function insertAfter(profile: readonly ProfilePoint[], index: number): ProfilePoint[] {
  const here = profile[index];
  if (!here) return [...profile];
  const next = profile[index + 1];
  const added: ProfilePoint = next
    ? {
        radiusM: tenth((here.radiusM + next.radiusM) / 2),
        heightM: tenth((here.heightM + next.heightM) / 2),
        smooth: here.smooth,
      }
    : { ...here, heightM: tenth(here.heightM + 0.01) };
  return [...profile.slice(0, index + 1), added, ...profile.slice(index + 1)];
}

/** The profile without a point; two are left at least, and the foot stays at 0. */
export function removePoint(profile: readonly ProfilePoint[], index: number): ProfilePoint[] {
  if (profile.length <= 2) return [...profile];
  const left = profile.filter((_, i) => i !== index);
  return left.map((point, i) => (i === 0 ? { ...point, heightM: 0 } : point));
}

/** To a tenth of a millimetre. */
const tenth = (m: number): number => Math.round(m * 1e4) / 1e4;

/** A photograph to trace over: three places marked on it, in its own pixels, and one known length. */
export interface Tracing {
  url: string;
  widthPx: number;
  heightPx: number;
  /** Middle of the foot. */
  foot: [number, number];
  /** Ends of the known length. */
  from: [number, number];
  to: [number, number];
  lengthM: number;
}

/** Where the photograph lies under the outline, m from the foot: right and up. Taken upright, from far. */
export function photoPlace({ widthPx, heightPx, foot, from, to, lengthM }: Tracing) {
  const metresPerPx = lengthM / Math.max(1, Math.hypot(to[0] - from[0], to[1] - from[1]));
  return {
    leftM: -foot[0] * metresPerPx,
    topM: foot[1] * metresPerPx,
    widthM: widthPx * metresPerPx,
    heightM: heightPx * metresPerPx,
  };
}
