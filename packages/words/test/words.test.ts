import type { Job } from '@fendrix/contract';
import { jobProgress, type OpenQuestion } from '@fendrix/core';
import { describe, expect, test } from 'vitest';
import {
  productCautionWords,
  progressWords,
  questionWords,
  setCautionWords,
  standInWords,
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
});
