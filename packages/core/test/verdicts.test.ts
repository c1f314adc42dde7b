import type { SetDocument } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import {
  applyChange,
  clashesOf,
  type Evidence,
  evidenceOf,
  excessOf,
  judgeSet,
  offered,
  overlaps,
  prepareTracing,
  traceView,
  tryCures,
} from '../src/index.js';
import { BOX, brokenSets, soundSet } from './brokenSets.js';

const trace = (set: SetDocument) => traceView(prepareTracing(set), set, { samples: 3 });
const evidence = (set: SetDocument): Evidence => evidenceOf(set, trace(set));

describe('sound sets', () => {
  test.each([
    ['a matte jar', soundSet()],
    ['a gloss jar', soundSet({ material: { kind: 'coated', reflectance: 0.3 } })],
    ['a box', soundSet({}, BOX)],
  ])('%s: no more than one verdict that an expert would wave off', (_name, set) => {
    expect(judgeSet(evidence(set)).map(({ id }) => id).length).toBeLessThanOrEqual(1);
  });
});

describe('sets with one known fault', () => {
  test.each(brokenSets().map((broken) => [broken.name, broken] as const))(
    '%s',
    (_name, { set, code, cause }) => {
      const seen = evidence(set);
      const verdicts = judgeSet(seen);
      const rank = verdicts.findIndex((verdict) => verdict.code === code);
      expect(
        verdicts
          .map(({ id }) => id)
          .slice(0, 2)
          .join(', '),
      ).toContain(code);
      const verdict = verdicts[rank];
      if (!verdict) throw new Error('it is told');
      const causes = [verdict.of, ...verdict.causes.map(({ thing }) => thing)].map((thing) => thing?.key);
      if (cause) expect(causes).toContain(cause);
      expect(excessOf(verdict.figure)).toBeGreaterThan(0);
      const [cure] = tryCures(seen, verdict, trace);
      if (!cure) throw new Error('a cure is offered');
      const cured = applyChange(set, cure.change);
      if (!cured) throw new Error('it can be applied');
      const left = judgeSet(evidence(cured)).find(({ id }) => id === verdict.id);
      expect(left ? excessOf(left.figure) : 0).toBeLessThanOrEqual(excessOf(verdict.figure) / 2);
    },
  );
});

test('a cure that makes something stand in something else says so, and comes last', () => {
  const set = soundSet();
  const table = { kind: 'bench' as const, key: 'bench', name: 'Table' };
  const clash = { kind: 'sheet' as const, key: '1', other: table, wayOutM: null };
  expect(clashesOf([clash], [clash])).toEqual([]);
  expect(clashesOf([], [clash])).toEqual([clash]);
  const cure = (clashes: (typeof clash)[]) => ({ change: [], left: null, sideEffects: [], clashes });
  expect(offered([cure([clash]), cure([])]).map(({ clashes }) => clashes.length)).toEqual([0, 1]);
  expect(clashesOf(overlaps(set), overlaps(set))).toEqual([]);
});
