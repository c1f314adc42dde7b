import type { Job } from '@fendrix/contract';
import { jobProgress, type OpenQuestion, THRESHOLDS, type VerdictCode } from '@fendrix/core';
import { describe, expect, test } from 'vitest';
import {
  clashWords,
  compositionWords,
  figureWords,
  groundChangeWords,
  groundVerdictWords,
  ninthsWords,
  placeCheckWords,
  placementWords,
  powersWords,
  productCautionWords,
  progressWords,
  questionWords,
  setCautionWords,
  settledWords,
  sideEffectWords,
  standInWords,
  verdictFigures,
  verdictReason,
  verdictTitle,
  viewReasonWords,
} from '../src/index.js';

describe('words for findings', () => {
  test('progress names the picture that waits', () => {
    const at = (state: 'camera' | 'shooting', picture: string, waiting: number) =>
      progressWords({ state, picture, waiting });
    expect(at('camera', 'Hero', 0)).toBe('Place the camera for “Hero”');
    expect(at('shooting', 'Hero', 3)).toBe('Shoot “Hero” (3 to go)');
    expect(progressWords(jobProgress({ archived: true } as Job))).toBe('Archived');
  });

  test('questions name what they are about and end as questions', () => {
    const questions: OpenQuestion[] = [
      { code: 'client' },
      { code: 'which-count', agreed: 3, listed: 4 },
      { code: 'arrival', name: 'Cordial' },
    ];
    const words = questions.map(questionWords);
    expect(words.every((text) => text.endsWith('?'))).toBe(true);
    expect(words[1]).toContain('3 pictures are agreed and 4 are listed');
    expect(words[2]).toContain('“Cordial”');
  });

  test('cautions of a set name the things and the distance', () => {
    const near = { kind: 'frame' as const, tag: '1', awayM: 0.2 };
    expect(setCautionWords({ code: 'hot-lamp', light: 'A', near })).toContain('20 cm from frame 1');
    expect(setCautionWords({ code: 'overhead', lights: ['A', 'B'], camera: true })).toMatch(
      /^Above the table: A, B and the camera\. Boom/,
    );
    const draw = { drawW: 2500.4, without: ['C'], mostW: 2944, breakerA: 16, mainsV: 230 };
    expect(setCautionWords({ code: 'circuit', ...draw })).toContain('2500 W, without C, whose draw is not');
  });

  test('cautions of products, stand-ins and reasons are sentences a stranger can read', () => {
    expect(productCautionWords.glass).toMatch(/^Glass breaks/);
    expect(standInWords('softbox', 'octa')).toBe('rounder edge of the highlight');
    expect(standInWords('softbox', 'softbox')).toContain('another size of the same');
    expect(viewReasonWords({ points: 1, code: 'others-use-it', pictures: 1 })).toBe(
      '1 other picture of the job uses it',
    );
    expect(viewReasonWords({ points: 2, code: 'detail-top' })).toBe('its detail is on top');
  });

  test('what a place fails at comes with its cure; what it meets with its figures', () => {
    const behind = placeCheckWords({
      what: 'room-behind',
      met: false,
      value: -0.36,
      limit: 0.75,
      focalLengthM: 0.051,
    });
    expect(behind.found).toBe('The lens would stand 36 cm behind the wall.');
    expect(behind.cure).toMatch(/51 mm/);
    const flat = placeCheckWords({ what: 'flatness', met: true, value: 1.04, limit: 1.15 });
    expect(flat.found).toMatch(/4 %.*15 %/);
    const narrow = placeCheckWords({ what: 'ground', met: false, value: 0.4, limit: 1.2 });
    expect(narrow.found).toMatch(/near or far edge/);
    const wide = placeCheckWords({ what: 'backdrop', met: false, value: 1.4, limit: 1.1 });
    expect(wide.cure).toMatch(/140 cm wide/);
  });

  test('findings about the arrangement name the things and say which way', () => {
    const words = (finding: Parameters<typeof compositionWords>[0]) =>
      compositionWords(finding, (thing) => `thing ${thing}`);
    expect(words({ what: 'tone', stops: -0.3 })).toMatch(/0.3 stops darker.*hardly stands out/);
    expect(words({ what: 'tone', stops: 2 })).toMatch(/2.0 stops lighter than the background\.$/);
    expect(words({ what: 'symmetry', offMm: -3, unlikePart: 0 })).toMatch(/3.0 mm left/);
    expect(words({ what: 'tangent', a: 1, b: 2, gapPart: 0.004 })).toMatch(/thing 1.*thing 2/);
  });

  test('a ground is told with its figure and what mends it', () => {
    expect(groundVerdictWords({ code: 'white-over-dark-products', overStops: 2.3, byStops: 1.3 })).toMatch(
      /2.3 stops over the products.*by 1.3 or more/,
    );
    expect(groundVerdictWords({ code: 'white-by-too-little', overStops: 0.2, byStops: 0.3 })).toMatch(
      /only 0.2 stops.*by 0.3/,
    );
    expect(groundVerdictWords({ code: 'white', unevenStops: null })).toMatch(/over the products\.$/);
    expect(groundVerdictWords({ code: 'white', unevenStops: 0.6 })).toMatch(/0.6 stops uneven/);
    expect(groundVerdictWords({ code: 'light-grey', toWhiteStops: 1.2 })).toMatch(/1.2 stops to paper white/);
    expect(ninthsWords([0, 5, 7])).toBe('top left, right, bottom');
  });

  test('a change of the ground says what becomes of the products; a dark that is not seen is left out', () => {
    const change = {
      powers: [{ tag: 'B', powerStops: -2 }],
      groundStops: 2.6,
      productsStops: 0,
      darkestStops: -3,
      productsChange: 0,
      limited: false,
    };
    expect(powersWords(change.powers)).toBe('B to 1/4');
    expect(groundChangeWords(change, { before: -4, after: -3.5 })).toMatch(
      /^The products stay as they are; their darkest part .*4.* → .*3.5.* with the veil/,
    );
    expect(groundChangeWords({ ...change, productsChange: -0.6 }, { before: null, after: null })).toMatch(
      /0.6 stop darker; the background then/,
    );
  });

  test('a placement is told as one says it at the table', () => {
    expect(placementWords({ code: 'as-it-is' }).whole).toBe('as it is');
    expect(placementWords({ code: 'height', upM: -0.2 }).short).toBe('20 cm lower');
    expect(placementWords({ code: 'back', byM: 0.5 })).toEqual({
      short: '+50 cm',
      whole: '50 cm further back',
    });
    expect(placementWords({ code: 'round', deg: 30, side: 'left', faces: 'less' })).toEqual({
      short: '30° left',
      whole: '30° to camera left, away from the products',
    });
  });
});

describe('words for verdicts', () => {
  const figure = { value: 0.12, error: 0, unit: 'part' as const, limit: 0.02, fault: 'above' as const };
  const of = { kind: 'product' as const, key: 'jar', name: 'Jar' };
  const codes = Object.keys(THRESHOLDS) as VerdictCode[];

  test.each(codes)('%s says what, how much and why, without names of the program', (code) => {
    const words = [
      verdictTitle({ code, of, figure }),
      verdictFigures({ code, of, figure }),
      verdictReason(code),
      settledWords(code, { as: 'wanted' }),
    ];
    for (const text of words) {
      expect(text).toMatch(/^[“A-Z0-9+−Δ]/);
      expect(text).not.toMatch(/undefined|NaN|\bnull\b|[a-z]-[a-z]+\s\|/);
    }
    expect(words[1]).toMatch(/\.$/);
    expect(words[2]).toMatch(/\.$/);
  });

  test('figures carry their unit', () => {
    const said = (value: number, unit: Parameters<typeof figureWords>[0]['unit']) =>
      figureWords({ value, unit });
    expect(said(0.004, 'part')).toBe('0.4 %');
    expect(said(0.123, 'part')).toBe('12 %');
    expect(said(0.45, 'm')).toBe('45 cm');
    expect(said(6.04, 'px')).toBe('6.0 px');
    expect(said(12, 'deltaE')).toBe('ΔE 12.0');
  });

  test('a thing is told by its tag, a side effect by its way, what is settled by its minutes', () => {
    const light = { kind: 'light' as const, key: 'B', name: 'Soft' };
    expect(verdictTitle({ code: 'thing-in-frame', of: light, figure })).toBe('Light B is in the frame');
    const sheet = { kind: 'sheet' as const, key: '1', name: 'Card 1, white card' };
    expect(verdictTitle({ code: 'thing-in-frame', of: sheet, figure })).toBe(
      'Card 1, white card is in the frame',
    );
    const other = { kind: 'bench' as const, key: 'bench', name: 'Table' };
    expect(clashWords({ kind: 'sheet', key: '1', other })).toBe('Sheet 1 then stands in “Table”');
    const verdict = { id: 'burnt', code: 'burnt' as const, of, figure };
    expect(sideEffectWords({ verdict, when: 'both', harm: 0.4 })).toBe('“Jar” is burnt out: worse, 12 %');
    expect(sideEffectWords({ verdict, when: 'after', harm: 0.4 })).toBe('“Jar” is burnt out: comes, 12 %');
    expect(sideEffectWords({ verdict, when: 'before', harm: -0.4 })).toBe('“Jar” is burnt out: goes away');
    expect(settledWords('burnt', { as: 'retouching', minutes: 15 })).toBe(
      'Burnt out: left for retouching, 15 min',
    );
  });
});
