import type { ChangeStep, PricedStep } from '@fendrix/core';
import { changedThingName } from './changes.js';

const STEPS: Readonly<Record<ChangeStep, (name: string) => string>> = {
  'camera-moved': () => 'camera moved',
  'lens-changed': () => 'another lens',
  'backdrop-changed': () => 'another background',
  'backdrop-moved': () => 'background moved',
  'light-added': (name) => `light ${name} set up`,
  'light-removed': (name) => `light ${name} taken away`,
  'light-moved': (name) => `light ${name} moved`,
  'modifier-changed': (name) => `another modifier on ${name}`,
  'gel-changed': (name) => `another gel on ${name}`,
  'power-changed': (name) => `power of ${name}`,
  'sheet-added': (name) => `${name} put up`,
  'sheet-removed': (name) => `${name} taken away`,
  'sheet-moved': (name) => `${name} moved`,
  'table-dressed': () => 'table dressed',
  'product-swapped': (name) => `${name} placed`,
  'product-moved': (name) => `${name} moved`,
};

/** What a step is called where no thing is named: of a light, “A” stands for any. */
export const stepName = (step: ChangeStep): string =>
  STEPS[step](step.startsWith('product') ? 'a product' : step.startsWith('sheet') ? 'a card or flag' : 'A');

/** A step from one set to the next, with its minutes. */
export const stepWords = ({ step, thing, minutes }: PricedStep): string =>
  `${STEPS[step](changedThingName(thing))} ${Number(minutes.toFixed(1))}`;

/** Minutes as hours and minutes. */
export function durationWords(minutes: number): string {
  const whole = Math.round(minutes);
  const hours = Math.floor(whole / 60);
  return hours > 0 ? `${hours} h ${whole % 60} min` : `${whole} min`;
}
