import type { Light } from '@fendrix/contract';
import { lastingLoadW, mainsDraw } from '../../plan/circuit.js';
import { switchedOff, those } from '../changes/changes.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { less } from '../working.js';

/** More on one circuit than its breaker bears for hours. */
export const circuitOver: Judge<'circuit-over'> = {
  code: 'circuit-over',
  byMaps: true,
  danger: true,
  judge({ set, kit, limits }) {
    if (!kit?.studio) return [];
    const { watts } = mainsDraw(set.lights);
    const bears = lastingLoadW(kit.studio);
    const causes = set.lights
      .flatMap(({ tag, name, ...light }) => {
        const own = mainsDraw([{ ...light, tag, name } as Light]).watts;
        return own > 0 ? [{ thing: { kind: 'light' as const, key: tag, name }, part: own / watts }] : [];
      })
      .sort((a, b) => b.part - a.part);
    return beyond(limits, 'circuit-over', { value: watts - bears }, () => ({
      of: null,
      places: [],
      causes,
      working: less({ draw: watts, circuitBears: bears }),
    }));
  },
  /** The modelling lamps off; then the lamp that draws most. */
  cures({ set }, { causes }) {
    const dark = {
      ...set,
      lights: set.lights.map((light) =>
        'modelling' in light && light.modelling?.on
          ? ({ ...light, modelling: { ...light.modelling, on: false } } as Light)
          : light,
      ),
    };
    const lit = set.lights.some((light) => 'modelling' in light && light.modelling?.on);
    return those(lit ? dark : null, ...causes.slice(0, 2).map(({ thing }) => switchedOff(set, thing.key)));
  },
};
