import type { Light, SetDocument, Sheet } from '@fendrix/contract';
import { bareSet } from '../geometry/bareSet.js';
import { prepareTracing, type Tracing } from '../render/prepareTracing.js';

/** A light or sheet that can be moved to change what is mirrored. */
export interface MovableRef {
  kind: 'light' | 'sheet';
  key: string;
}

export type Movable = Exclude<Light, { kind: 'surround' }> | Sheet;

/** The light or sheet of a reference; null for none, and for a light that stands nowhere. */
export function movableOf(set: SetDocument, { kind, key }: MovableRef): Movable | null {
  const found =
    kind === 'light' ? set.lights.find(({ tag }) => tag === key) : set.sheets.find(({ tag }) => tag === key);
  return found && found.kind !== 'surround' ? found : null;
}

/** The set with one light or sheet in the place of the one with its tag. */
export function withMovable(set: SetDocument, ref: MovableRef, thing: Movable): SetDocument {
  return ref.kind === 'light'
    ? { ...set, lights: set.lights.map((light) => (light.tag === ref.key ? (thing as Light) : light)) }
    : { ...set, sheets: set.sheets.map((sheet) => (sheet.tag === ref.key ? (thing as Sheet) : sheet)) };
}

/** One thing alone in the dark: for asking thousands of rays whether they meet it. */
export function aloneInTheDark(set: SetDocument, ref: MovableRef, thing: Movable): Tracing {
  const bare = bareSet(
    set,
    ref.kind === 'light'
      ? { lights: [{ ...(thing as Light), stand: false } as Light] }
      : { sheets: [{ ...(thing as Sheet), stand: false }] },
  );
  return prepareTracing(bare, 'plain');
}

/** A light or sheet as wide as wanted, by the factor; null for one that has no width to change. */
export function widened(thing: Movable, factor: number): Movable | null {
  const by = (value: number) => Math.max(0.01, Math.min(10, value * factor));
  if ('widthM' in thing && thing.kind !== 'window' && thing.kind !== 'tent')
    return { ...thing, widthM: by(thing.widthM) };
  if ('diameterM' in thing && thing.kind !== 'cone' && thing.kind !== 'tube')
    return { ...thing, diameterM: by(thing.diameterM) };
  return null;
}

/** Across, m, as far as `widened` changes it; null for one without. */
export function widthOf(thing: Movable): number | null {
  if (!widened(thing, 1)) return null;
  if ('widthM' in thing) return thing.widthM;
  return 'diameterM' in thing ? thing.diameterM : null;
}

/** The first number that no sheet of the set has; null when all are taken. */
export function freeSheetTag({ sheets }: SetDocument): string | null {
  const taken = new Set(sheets.map(({ tag }) => tag));
  for (let number = 1; number <= 99; number++) if (!taken.has(String(number))) return String(number);
  return null;
}
