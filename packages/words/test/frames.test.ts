import { expect, test } from 'vitest';
import { movedWords, untoldWords } from '../src/index.js';

const card = {
  kind: 'sheet' as const,
  tag: '1',
  name: 'White card',
  moves: [
    { way: 'right' as const, byM: 0.031, errorM: 0.006 },
    { way: 'away' as const, byM: -0.02, errorM: 0.003 },
  ],
  isNamed: true,
};

test('a card that stands elsewhere: what would explain it, both ways', () => {
  expect(movedWords([card])).toBe(
    '1 White card stands elsewhere: as if it stood 3.1 cm (± 6 mm) further right, or 2 cm (± 3 mm) nearer to the camera.',
  );
  expect(movedWords([{ ...card, kind: 'light', tag: 'B' }])).toMatch(/^Light B stands elsewhere/);
});

test('one of two that cannot be told apart; nothing of none', () => {
  const [right, nearer] = card.moves.map((move) => [move]);
  const light = { ...card, kind: 'light' as const, tag: 'B', moves: nearer ?? [], isNamed: false };
  expect(movedWords([{ ...card, moves: right ?? [], isNamed: false }, light])).toBe(
    'Something stands elsewhere: 1 White card, 3.1 cm (± 6 mm) further right; or light B, 2 cm (± 3 mm) nearer to the camera. The frame does not tell which.',
  );
  expect(movedWords([])).toBe('');
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
});
