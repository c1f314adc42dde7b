import type { SetDocument, Vector } from '@fendrix/contract';
import { productBounds } from '../../geometry/shape.js';
import { viewOf } from '../../render/view.js';
import { withPlacement } from '../../solve/placements.js';
import { degrees } from '../../units/angle.js';
import { add, cross, dot, scale, subtract } from '../../units/vector.js';
import { levelWay } from '../changes/addedSheets.js';
import { those } from '../changes/changes.js';
import type { Evidence } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { from } from '../working.js';
import { keyShadow } from './shadows.js';

/** Light from steeper above throws its shadow under the product: it goes nowhere, degrees over the table. */
const STEEPEST_DEG = 75;

/** Level ways as the picture shows them: to its right, and to its top, which is away from the lens unless that looks down. */
function pictureWays({ camera }: SetDocument): Record<'left' | 'right' | 'front' | 'back', Vector> {
  const { right, up, forward } = viewOf(camera);
  const back =
    Math.abs(forward[2]) > Math.abs(up[2]) ? levelWay([0, 0, 0], up) : levelWay([0, 0, 0], forward);
  const aside = levelWay([0, 0, 0], right);
  return { right: aside, left: scale(aside, -1), back, front: scale(back, -1) };
}

/** Which way the shadow of the main light falls on the table, and which way it is to fall; null where it falls nowhere. */
function ways(evidence: Evidence) {
  const { set } = evidence;
  const { shadowTowards } = set.wishes;
  const found = shadowTowards === 'open' || set.wishes.shadow === 'none' ? null : keyShadow(evidence);
  const light = found && set.lights[found.shadow.light];
  const product = set.products[0];
  if (!found || !light || light.kind === 'surround' || !product) return null;
  const { low, high } = productBounds(product);
  const middle = scale(add(low, high), 0.5);
  const toLight = subtract(light.positionM, middle);
  const lightHeightDeg = degrees(Math.atan2(toLight[2], Math.hypot(toLight[0], toLight[1])));
  if (lightHeightDeg > STEEPEST_DEG) return null;
  return {
    found,
    light,
    lightHeightDeg,
    falls: levelWay(light.positionM, middle),
    wanted: pictureWays(set)[shadowTowards as Exclude<typeof shadowTowards, 'open'>],
  };
}

/** From the one level way to the other, degrees, to the left seen from above. */
const turnBetween = (a: Vector, b: Vector): number => degrees(Math.atan2(cross(a, b)[2], dot(a, b)));

/** A shadow that falls another way than is wished. */
export const shadowDirection: Judge<'shadow-direction'> = {
  code: 'shadow-direction',
  judge(evidence) {
    const own = ways(evidence);
    if (!own) return [];
    const { found, light, lightHeightDeg, falls, wanted } = own;
    return beyond(
      evidence.limits,
      'shadow-direction',
      { value: Math.abs(turnBetween(falls, wanted)) },
      () => ({
        of: null,
        places: found.shadow.places,
        causes: found.causes.filter(({ thing }) => thing.key === light.tag),
        working: from({ lightElevation: lightHeightDeg }),
      }),
    );
  },
  /** The light goes round what it is aimed at, and its shadow with it. */
  cures(evidence) {
    const own = ways(evidence);
    if (!own) return [];
    const deg = turnBetween(own.falls, own.wanted);
    const round = { vary: 'light-bearing', light: own.light.tag } as const;
    return those(
      ...[deg, 0.8 * deg, 0.6 * deg, deg - Math.sign(deg) * 360].map((by) =>
        withPlacement(evidence.set, round, by),
      ),
    );
  },
};
