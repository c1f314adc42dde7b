import { TERMS, type TermName, THRESHOLDS, VERDICT_CODES } from '@fendrix/core';
import { describe, expect, test } from 'vitest';
import {
  durationWords,
  figureWords,
  harmWords,
  settledName,
  stepWords,
  unitWords,
  verdictFigures,
  verdictName,
  verdictReason,
  verdictTitle,
  workingWords,
} from '../src/index.js';

const of = { kind: 'product' as const, key: 'jar', name: 'Jar' };

describe('every kind of verdict', () => {
  test.each(VERDICT_CODES.map((code) => [code]))(
    '%s has a title, figures, a reason and a name of its own',
    (code) => {
      const { limit, unit, fault } = THRESHOLDS[code];
      const figure = { value: limit + (fault === 'above' ? 1 : -1), error: 0, unit, limit, fault };
      const told = [
        verdictTitle({ code, of, figure }),
        verdictFigures({ code, of, figure }),
        verdictReason(code),
      ];
      for (const words of told) {
        expect(words.length).toBeGreaterThan(10);
        expect(words).not.toMatch(/undefined|NaN|\[object|null/);
        expect(words[0]).toBe(words[0]?.toUpperCase());
        expect(words).not.toContain(code.includes('-') ? code : '\u0000');
      }
      expect(told[1]).toMatch(/\.$/);
    },
  );

  test('no two share a name or a title', () => {
    const names = VERDICT_CODES.map(verdictName);
    expect(new Set(names).size).toBe(names.length);
  });
});

describe('how a figure was worked out', () => {
  const figure = { value: 0.0605, error: 0, unit: 'part' as const, limit: 0.02, fault: 'above' as const };
  const stops = { ...figure, value: 1.7, unit: 'stops' as const };

  test('is told as a formula with the figures in it, and the limits that were counted by', () => {
    expect(
      workingWords({
        figure,
        working: { by: 'over', of: { burntPlaces: 34, ownPlaces: 562 }, given: { brightestHeld: 2.47 } },
      }),
    ).toBe(
      '6 % = 34 places lighter than the brightest tone that holds detail ÷ 562 places of its own surface (brightest tone that holds detail +2.47).',
    );
    expect(
      workingWords({
        figure: stops,
        working: { by: 'less', of: { lightestTenth: 1.3, darkestTenth: -0.4 }, given: {} },
      }),
    ).toBe('1.7 = lightest tenth (+1.30) − darkest tenth (−0.40).');
    expect(
      workingWords({
        figure: { ...stops, value: 1 },
        working: { by: 'stops', of: { syncTime: 1 / 200, shutter: 1 / 400 }, given: {} },
      }),
    ).toBe('1.0 stops = log₂ of flash sync (1/200 s) ÷ shutter (1/400 s).');
    expect(
      workingWords({
        figure: { ...figure, value: 4, unit: 'px' },
        working: { by: 'from', of: { fallSpeed: 1.4, shineTime: 1 / 500 }, given: {} },
      }),
    ).toBe('4.0 px from falls with 1.4 m/s, light that shines for 1/500 s.');
  });

  test('has words for every term, in every unit', () => {
    for (const name of Object.keys(TERMS) as TermName[]) {
      const words = workingWords({ figure, working: { by: 'from', of: { [name]: 2 }, given: {} } });
      expect(words).not.toMatch(/undefined|NaN|\[object/);
      if (/[A-Z]/.test(name)) expect(words).not.toContain(name);
    }
  });
});

test('figures are told in the unit that people say', () => {
  expect(figureWords({ value: 1 / 60, unit: 's' })).toBe('1/60 s');
  expect(figureWords({ value: 2, unit: 's' })).toBe('2 s');
  expect(figureWords({ value: 0.35, unit: 'deg' })).toBe('0.3°');
  expect(figureWords({ value: 41.6, unit: 'deg' })).toBe('42°');
  expect(figureWords({ value: 3, unit: 'count' })).toBe('3');
  expect(figureWords({ value: 395.6, unit: 'W' })).toBe('396 W');
  expect(unitWords('part')).toEqual({ words: '% of the whole', of: 100 });
  expect(unitWords('m').of).toBe(100);
});

test('harm is explained with its own figures; a danger says that it comes first', () => {
  const figure = { value: 0.17, error: 0, unit: 'part' as const, limit: 0.02, fault: 'above' as const };
  const words = harmWords({ harm: 1.4, figure, danger: false }, THRESHOLDS.burnt);
  expect(words).toBe('Harm 1.40 = 0.7 × (1 + 15 % beyond the limit over 15 %, at most 1).');
  expect(harmWords({ harm: 3, figure, danger: true }, THRESHOLDS.burnt)).toMatch(/^Dangers come first/);
});

test('a kind that is not known any more is told as something, not as a name of the program', () => {
  expect(settledName('no-such-kind' as never)).toBe('something');
  expect(settledName('toString' as never)).toBe('something');
});

test('steps of a day and its hours', () => {
  expect(stepWords({ step: 'light-moved', thing: { kind: 'light', tag: 'B' }, minutes: 2 })).toBe(
    'light B moved 2',
  );
  expect(
    stepWords({ step: 'sheet-added', thing: { kind: 'sheet', tag: '3', sheet: 'card' }, minutes: 2.5 }),
  ).toBe('card 3 put up 2.5');
  expect([durationWords(9.6), durationWords(60), durationWords(279)]).toEqual([
    '10 min',
    '1 h 0 min',
    '4 h 39 min',
  ]);
});
