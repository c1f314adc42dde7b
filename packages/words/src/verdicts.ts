import type { SettledVerdict } from '@fendrix/contract';
import type { Overlap, SideEffect, Threshold, Verdict, VerdictCode } from '@fendrix/core';
import { figureWords } from './verdictFigures.js';
import { VERDICT_NAMES } from './verdictNames.js';
import { type Told, VERDICT_WORDS } from './verdictWords.js';

/** A kind of verdict that may not be known any more. */
export const settledName = (code: VerdictCode): string =>
  Object.hasOwn(VERDICT_NAMES, code) ? VERDICT_NAMES[code] : 'something';

/** A verdict that was settled, by its kind; the thing it is of may be gone. */
export function settledWords(
  code: VerdictCode,
  { as, minutes }: Pick<SettledVerdict, 'as' | 'minutes'>,
): string {
  const what = settledName(code);
  return as === 'wanted'
    ? `${capital(what)}: wanted so`
    : `${capital(what)}: left for retouching, ${minutes ?? 0} min`;
}

/** A kind of verdict in two or three words. */
export const verdictName = (code: VerdictCode): string => capital(VERDICT_NAMES[code]);

/** What is wrong, in few words. */
export const verdictTitle = (verdict: Told): string => capital(VERDICT_WORDS[verdict.code].title(verdict));

/** How much, with its uncertainty where it is a matter of light, and what would be well. */
export const verdictFigures = (verdict: Told): string => VERDICT_WORDS[verdict.code].figures(verdict);

/**
 * Why a verdict stands where it does in the list, with its own figures: harm at the limit, and how far beyond it.
 * @param limits of its kind
 */
export function harmWords(
  { harm, figure, danger }: Pick<Verdict, 'harm' | 'figure' | 'danger'>,
  { harm: atLimit, span }: Pick<Threshold, 'harm' | 'span'>,
): string {
  const beyond = figureWords({ value: Math.abs(figure.value - figure.limit), unit: figure.unit }).replace(
    /^\+/,
    '',
  );
  const whole = figureWords({ value: span, unit: figure.unit }).replace(/^\+/, '');
  const first = danger ? 'Dangers come first. ' : '';
  return `${first}Harm ${harm.toFixed(2)} = ${atLimit} × (1 + ${beyond} beyond the limit over ${whole}, at most 1).`;
}

/** What a verdict is counted from, and why its limit is where it is. */
export const verdictReason = (code: VerdictCode): string => VERDICT_WORDS[code].why;

/** What a cure makes stand in something else. */
export function clashWords({ kind, key, other }: Pick<Overlap, 'kind' | 'key' | 'other'>): string {
  const what = { light: 'Light', sheet: 'Sheet', stand: 'The stand of' }[kind];
  return `${what} ${key} then stands in “${other.name}”`;
}

/** What a cure does elsewhere: "The background is not white: worse, −1.2". */
export function sideEffectWords({ verdict, when, harm }: SideEffect): string {
  if (when === 'before') return `${verdictTitle(verdict)}: goes away`;
  const way = when === 'after' ? 'comes' : harm > 0 ? 'worse' : 'better';
  return `${verdictTitle(verdict)}: ${way}, ${figureWords(verdict.figure)}`;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
