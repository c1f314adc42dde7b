import type { Standing } from '@fendrix/contract';
import { type Change, type ChangedThing, changesBetween } from '../../record/changes.js';

/** What is done to a set on the way to the next one. */
export type ChangeStep =
  | 'camera-moved'
  | 'lens-changed'
  | 'backdrop-changed'
  | 'backdrop-moved'
  | 'light-added'
  | 'light-removed'
  | 'light-moved'
  | 'modifier-changed'
  | 'gel-changed'
  | 'power-changed'
  | 'sheet-added'
  | 'sheet-removed'
  | 'sheet-moved'
  | 'table-dressed'
  | 'product-swapped'
  | 'product-moved';

/** Minutes of each step. */
export type ChangePrices = Readonly<Record<ChangeStep, number>>;

/**
 * Usual minutes of somebody alone who knows the set; a studio's own take their place once its days are logged.
 * Usual practice; docs/physics/day.md.
 */
export const USUAL_PRICES: ChangePrices = {
  'camera-moved': 4,
  'lens-changed': 3,
  'backdrop-changed': 8,
  'backdrop-moved': 3,
  'light-added': 5,
  'light-removed': 2,
  'light-moved': 2,
  'modifier-changed': 4,
  'gel-changed': 1,
  'power-changed': 0.5,
  'sheet-added': 2,
  'sheet-removed': 0.5,
  'sheet-moved': 1,
  'table-dressed': 5,
  'product-swapped': 3,
  'product-moved': 0.5,
};

/** The usual minutes with those that a studio has set for itself. Steps that are not known are left out. */
export function pricesWith(own: Readonly<Record<string, number>>): ChangePrices {
  const steps = Object.keys(USUAL_PRICES) as ChangeStep[];
  return Object.fromEntries(
    steps.map((step) => [step, (Object.hasOwn(own, step) ? own[step] : undefined) ?? USUAL_PRICES[step]]),
  ) as ChangePrices;
}

/** A step with the thing that it is done to, and what it costs. */
export interface PricedStep {
  step: ChangeStep;
  thing: ChangedThing;
  minutes: number;
}

/** Codes of details that say where a thing stands. */
const MOVED: ReadonlySet<string> = new Set([
  'bearing',
  'round',
  'distance',
  'height',
  'aside',
  'moved',
  'aimed',
  'turned',
  'back',
]);

/**
 * What has to be done from one set to the next, with its price, the dearest first. From nothing everything is set up.
 * Of a light that is moved and gets another modifier both count; settings of the camera cost nothing.
 */
export function priceOfChange(
  before: Standing | null,
  after: Standing,
  prices: ChangePrices = USUAL_PRICES,
): PricedStep[] {
  const steps = before ? changesBetween(before, after).flatMap(stepsOf) : fromNothing(after);
  return steps
    .map(({ step, thing }) => ({ step, thing, minutes: prices[step] }))
    .sort((a, b) => b.minutes - a.minutes);
}

/** All minutes of steps. */
export const changeMinutes = (steps: readonly PricedStep[]): number =>
  steps.reduce((sum, { minutes }) => sum + minutes, 0);

type Step = Pick<PricedStep, 'step' | 'thing'>;

function fromNothing({ lights, sheets, products, backdrop }: Standing): Step[] {
  return [
    { step: 'camera-moved', thing: { kind: 'camera' } },
    ...(backdrop ? [{ step: 'backdrop-changed' as const, thing: { kind: 'backdrop' as const } }] : []),
    ...lights
      .filter(({ kind }) => kind !== 'window' && kind !== 'surround')
      .map(({ tag }): Step => ({ step: 'light-added', thing: { kind: 'light', tag } })),
    ...sheets.map(
      ({ tag, kind }): Step => ({ step: 'sheet-added', thing: { kind: 'sheet', tag, sheet: kind } }),
    ),
    ...products.map(
      ({ id, name }): Step => ({ step: 'product-swapped', thing: { kind: 'product', id, name } }),
    ),
  ];
}

function stepsOf({ thing, what, details }: Change): Step[] {
  const codes = new Set(details.map(({ code }) => code));
  const moved = details.some(({ code }) => MOVED.has(code));
  const of = (...steps: (ChangeStep | false)[]): Step[] =>
    steps.flatMap((step) => (step === false ? [] : [{ step, thing }]));
  switch (thing.kind) {
    case 'light': {
      if (what !== 'changed') return of(what === 'added' ? 'light-added' : 'light-removed');
      const attached = details.filter((detail) => detail.code === 'attached');
      const gel = attached.some((detail) => detail.what === 'colour');
      const other =
        codes.has('kind') || codes.has('size') || attached.some((detail) => detail.what !== 'colour');
      const dial = codes.has('power') || codes.has('switched');
      return of(
        moved && 'light-moved',
        other && 'modifier-changed',
        gel && 'gel-changed',
        dial && 'power-changed',
      );
    }
    case 'sheet':
      if (what !== 'changed') return of(what === 'added' ? 'sheet-added' : 'sheet-removed');
      return of('sheet-moved');
    case 'product':
      return of(what === 'added' ? 'product-swapped' : what === 'changed' && 'product-moved');
    case 'backdrop':
      return of(what === 'changed' && moved && details.length === 1 ? 'backdrop-moved' : 'backdrop-changed');
    case 'bench':
      return of('table-dressed');
    case 'camera':
      return of(moved && 'camera-moved');
    case 'setting':
      return of(codes.has('lens') && 'lens-changed');
    case 'person':
    case 'room':
      return [];
  }
}
