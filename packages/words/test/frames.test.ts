import { expect, test } from 'vitest';
import { movedWords, untoldWords } from '../src/index.js';

const card = {
  kind: 'sheet' as 'sheet' | 'light',
  tag: '1',
  name: 'White card',
  moves: [
    { way: 'right' as const, byM: 0.031, errorM: 0.006 },
    { way: 'away' as const, byM: -0.02, errorM: 0.003 },
  ],
  isNamed: true,
};

const words = (...moved: (typeof card)[]) => movedWords({ moved, isExplained: true, atLens: [] });

test('a card that stands elsewhere: how far, both ways', () => {
  expect(words(card)).toBe(
    '1 White card stands elsewhere: as if it stood 3.1 cm (± 6 mm) further right and 2 cm (± 3 mm) nearer to the camera.',
  );
  expect(words({ ...card, kind: 'light', tag: 'B' })).toMatch(/^Light B stands elsewhere/);
  expect(words(card, { ...card, tag: '2', name: 'Flag' })).toMatch(
    /^1 White card stands elsewhere: .*camera\. 2 Flag stands elsewhere: .*camera\.$/,
  );
});

test('what stands as far off as is looked for may stand further', () => {
  expect(words({ ...card, moves: [{ way: 'right', byM: -0.15, errorM: 0.031 }] })).toMatch(
    /as if it stood 15 cm or more further left\.$/,
  );
});

test('one of two that cannot be told apart; none', () => {
  const [right, nearer] = card.moves.map((move) => [move]);
  const light = { ...card, kind: 'light' as const, tag: 'B', moves: nearer ?? [], isNamed: false };
  expect(words({ ...card, moves: right ?? [], isNamed: false }, light)).toBe(
    'Something stands elsewhere: 1 White card, 3.1 cm (± 6 mm) further right; or light B, 2 cm (± 3 mm) nearer to the camera. The frame does not tell which.',
  );
  expect(words()).toMatch(/^No card or light stands elsewhere by so much/);
});

test('a frame that stays unexplained says so', () => {
  expect(movedWords({ moved: [], isExplained: false, atLens: [] })).toMatch(
    /^The frame differs from its plan by more than a card or light that stands elsewhere explains: look/,
  );
  expect(
    movedWords({
      moved: [card],
      isExplained: false,
      atLens: [{ kind: 'sheet', tag: '3', name: 'Lens card' }],
    }),
  ).toMatch(
    /^1 White card stands elsewhere: .*\. The frame differs from its plan by more than that explains: look what is before the lens \(3 Lens card\)/,
  );
});

test('what the picture does not tell, and which way', () => {
  const { kind, tag, name } = card;
  const light = { kind: 'light' as const, tag: 'B', name: 'Key', ways: ['right' as const] };
  expect(
    untoldWords([
      { ...light, tag: 'A', ways: ['right', 'away'] },
      light,
      { kind, tag, name, ways: ['away'] },
    ]),
  ).toBe(
    'The picture does not tell where these stand: light A; light B to the sides; 1 White card nearer or further. Tape them.',
  );
  expect(untoldWords([light])).toBe(
    'The picture does not tell where this stands: light B to the sides. Tape it.',
  );
});
