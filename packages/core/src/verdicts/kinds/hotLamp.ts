import { setCautions } from '../../plan/setCautions.js';
import { normalise, scale, subtract } from '../../units/vector.js';
import { movedBy, switchedOff, those } from '../changes.js';
import { excessOf, type Judge } from '../verdict.js';

/** A hot lamp near paper, cloth or frost. */
export const hotLamp: Judge<'hot-lamp'> = {
  code: 'hot-lamp',
  danger: true,
  judge: ({ set, things, limits }) =>
    setCautions(set).flatMap((caution) => {
      if (caution.code !== 'hot-lamp' || !caution.near) return [];
      const { light, near } = caution;
      const figure = {
        value: near.awayM,
        error: 0,
        unit: 'm' as const,
        limit: limits['hot-lamp'].limit,
        fault: 'below' as const,
      };
      const of = (kind: 'light' | 'sheet', key: string) =>
        things.find((thing) => thing.kind === kind && thing.key === key) ?? null;
      const sheet = of('sheet', near.tag);
      return excessOf(figure) > 0
        ? [
            {
              of: of('light', light),
              places: [],
              figure,
              causes: sheet ? [{ thing: sheet, part: null }] : [],
            },
          ]
        : [];
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
