import type { Kit, Light, SetDocument, Sheet } from '@fendrix/contract';
import type { Thing } from '../../geometry/scene.js';
import { lastingLoadW, mainsDraw } from '../../plan/circuit.js';
import { kitCheck, type MissingThing } from '../../plan/kitCheck.js';
import { switchedOff, those, withLight } from '../changes/changes.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';

/** More on one circuit than its breaker bears for hours. */
export const circuitOver: Judge<'circuit-over'> = {
  code: 'circuit-over',
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
    return beyond(limits, 'circuit-over', { value: watts - bears }, () => ({ of: null, places: [], causes }));
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

/** Lights and sheets on the set that the studio does not have. */
export const notInKit: Judge<'not-in-kit'> = {
  code: 'not-in-kit',
  judge({ set, kit, limits }) {
    // An empty kit is one that nobody has written down.
    if (!kit?.entries.some(({ what }) => what === 'light')) return [];
    const missing = kitCheck(set, kit);
    const causes = missing.map(({ tag }) => ({ thing: thingOf(set, tag), part: 1 / missing.length }));
    return beyond(limits, 'not-in-kit', { value: missing.length }, () => ({ of: null, places: [], causes }));
  },
  /** What the kit has instead, one after the other and all at once. */
  cures({ set, kit }) {
    if (!kit) return [];
    const missing = kitCheck(set, kit);
    const all = missing.reduce<SetDocument | null>((so, one) => so && instead(so, kit, one), set);
    return those(all, ...missing.map((one) => instead(set, kit, one)));
  },
};

const isLight = (set: SetDocument, tag: string): boolean => set.lights.some((light) => light.tag === tag);

function thingOf(set: SetDocument, tag: string): Thing {
  const kind = isLight(set, tag) ? 'light' : 'sheet';
  const list: readonly (Light | Sheet)[] = kind === 'light' ? set.lights : set.sheets;
  return { kind, key: tag, name: list.find((own) => own.tag === tag)?.name ?? tag };
}

/** The nearest thing of the kit in the place of one that it does not have. */
function instead(
  set: SetDocument,
  kit: Pick<Kit, 'entries'>,
  { tag, instead: others }: MissingThing,
): SetDocument | null {
  for (const { id } of others) {
    const entry = kit.entries.find((own) => own.id === id);
    if (entry?.what === 'light') {
      const light = set.lights.find((own) => own.tag === tag);
      if (!light || light.kind === 'surround' || entry.thing.kind === 'surround') continue;
      const { positionM, powerStops, on } = light;
      const aim = 'aimM' in light && 'aimM' in entry.thing ? { aimM: light.aimM } : {};
      return withLight(set, tag, {
        ...entry.thing,
        tag,
        positionM,
        powerStops,
        on,
        ...aim,
      } as Partial<Light>);
    }
    const sheet = set.sheets.find((own) => own.tag === tag);
    if (entry?.what === 'sheet' && sheet) {
      const { positionM, aimM } = sheet;
      const other = { ...entry.thing, tag, positionM, aimM } as Sheet;
      return { ...set, sheets: set.sheets.map((own) => (own === sheet ? other : own)) };
    }
  }
  return null;
}
