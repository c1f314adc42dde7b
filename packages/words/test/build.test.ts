import { type SetDocument, type TapeMark, tapeMark } from '@fendrix/contract';
import { buildList } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { buildWords, TAPE_MARK_WORDS } from '../src/index.js';

const CORNERS: [TapeMark, TapeMark] = ['table-front-left', 'table-front-right'];
const sets = (['cordial', 'mill', 'perry', 'tart', 'tent', 'bottle'] as const).map((name) => demoSet(name));
const told = (before: SetDocument | null, after: SetDocument) =>
  buildList(before, after, CORNERS).map((step) => ({ step, ...buildWords(step, after, CORNERS) }));

describe('words of a build list', () => {
  test('every step of every demo set has a title, and what stands somewhere has its figures first', () => {
    for (const set of sets)
      for (const { step, title, numbers, notes } of told(null, set)) {
        expect(title.length, step.key).toBeGreaterThan(2);
        if (step.stand) expect(numbers.length).toBeGreaterThanOrEqual(2);
        else expect(notes.length).toBeGreaterThan(0);
        expect([title, ...notes, ...numbers.map(({ value }) => value)].join(' ')).not.toMatch(
          /NaN|undefined|null|-0 |Infinity/,
        );
      }
  });

  test('a light says its power and that it is judged alone; one that is off says so', () => {
    const perry = demoSet('perry');
    const of = (set: SetDocument, tag: string) =>
      told(null, set).find(({ title }) => title.startsWith(`${tag}:`));
    expect(of(perry, 'D')?.notes.join(' ')).toMatch(/Power .*judge it alone/);
    const off = { ...perry, lights: perry.lights.map((light) => ({ ...light, on: false })) };
    expect(of(off, 'D')?.notes.join(' ')).toContain('Switched off for this picture.');
    expect(of(off, 'D')?.notes.join(' ')).not.toContain('alone');
  });

  test('from the set before it says what differs, and what goes away', () => {
    const perry = demoSet('perry');
    const less = { ...perry, lights: perry.lights.slice(1), camera: { ...perry.camera, fNumber: 8 } };
    expect(told(perry, less).map(({ title }) => title)).toEqual(['Take A away', 'Camera: f/8']);
  });

  test('what is at the centre is said to be, and what tapes do not fix', () => {
    const tart = demoSet('tart');
    expect(told(null, tart).some(({ notes }) => notes.includes('At the centre of the set.'))).toBe(true);
    const step = buildList(null, tart, CORNERS).find(({ thing }) => thing.kind === 'light');
    if (!step?.tapes) throw new Error('the tart is lit');
    const flat = { ...step, tapes: { ...step.tapes, spread: 50 } };
    expect(buildWords(flat, tart, CORNERS).notes.join(' ')).toContain('nearly in one line');
  });

  test('every mark has its words', () => {
    for (const mark of tapeMark.options) expect(TAPE_MARK_WORDS[mark]).toMatch(/set|corner/);
  });
});
