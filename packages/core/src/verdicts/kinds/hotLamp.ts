import { setCautions } from '../../plan/setCautions.js';
import { normalise, scale, subtract } from '../../units/vector.js';
import { movedBy, switchedOff, those } from '../changes/changes.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { from } from '../working.js';

/** A hot lamp near paper, cloth or frost. */
export const hotLamp: Judge<'hot-lamp'> = {
  code: 'hot-lamp',
  byMaps: true,
  danger: true,
  judge: ({ set, things, limits }) =>
    setCautions(set).flatMap((caution) => {
      if (caution.code !== 'hot-lamp' || !caution.near) return [];
      const { light, near } = caution;
      const of = (kind: 'light' | 'sheet', key: string) =>
        things.find((thing) => thing.kind === kind && thing.key === key) ?? null;
      const sheet = of('sheet', near.tag);
      return beyond(limits, 'hot-lamp', { value: near.awayM }, () => ({
        of: of('light', light),
        places: [],
        working: from({ lampToSheet: near.awayM }),
        causes: sheet ? [{ thing: sheet, part: null }] : [],
      }));
    }),
  cures({ set, limits }, { of, causes }) {
    const light = set.lights.find(({ tag }) => tag === of?.key);
    const sheet = set.sheets.find(({ tag }) => tag === causes[0]?.thing.key);
    if (!light || !sheet || !('positionM' in light)) return [];
    const apart = subtract(light.positionM, sheet.positionM);
    const short = limits['hot-lamp'].limit - Math.hypot(...apart) + 0.03;
    const away = scale(normalise(apart), short);
    return those(
      movedBy(set, 'light', light.tag, away),
      movedBy(set, 'sheet', sheet.tag, scale(away, -1)),
      switchedOff(set, light.tag),
    );
  },
};
