// @vitest-environment jsdom
import { act, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { expect, test } from 'vitest';
import { HighlightDialog } from '../src/features/bench/band/HighlightDialog';
import { GroundSection } from '../src/features/bench/desk/background/GroundSection';
import { usePointAt } from '../src/features/bench/lens/usePointAt';
import { SessionClosed } from '../src/features/bench/picture/remoteSession';
import { useSession } from '../src/features/bench/picture/useSession';
import { FieldEvenness } from '../src/features/bench/spot/FieldEvenness';
import { LoseGlare } from '../src/features/bench/spot/LoseGlare';
import { WidenHighlight } from '../src/features/bench/spot/WidenHighlight';
import { benchActions } from '../src/features/bench/state/benchSlice';
import { OverlapNotes } from '../src/features/bench/views/OverlapNotes';
import { press } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

function Pointer() {
  const pointAt = usePointAt(useSession());
  return (
    <button type="button" onClick={() => void pointAt(0.455, 0.5)}>
      Point
    </button>
  );
}

/** A bench whose workers fail at whatever they are asked. */
function openFailing(view: (bench: ReturnType<typeof openDemo>) => ReactNode, reason: Error) {
  const bench = openDemo('mill');
  bench.ask.mockRejectedValue(reason);
  bench.pointAt(0.455, 0.5);
  act(
    () =>
      void bench.store.dispatch(benchActions.fieldMarked({ left: 0.2, top: 0.2, right: 0.4, bottom: 0.4 })),
  );
  bench.show(view(bench));
  return bench;
}

function band({ figures }: ReturnType<typeof openDemo>) {
  const [found] = figures.get('bands') ?? [];
  const length = found?.lengths.find(({ kind }) => kind === 'sheet');
  if (!found || !length) throw new Error('a card is mirrored in the band');
  return <HighlightDialog band={found} length={length} onClose={() => {}} />;
}

const CASES: [
  subject: string,
  view: (bench: ReturnType<typeof openDemo>) => ReactNode,
  button: string | null,
][] = [
  ['The light of this spot', () => <Pointer />, 'Point'],
  ['The light of the background', () => <GroundSection />, null],
  ['The evenness of the field', () => <FieldEvenness />, null],
  ['What stands in something', () => <OverlapNotes />, null],
  ['The band at this height', () => <WidenHighlight />, 'Keep or widen this'],
  ['Its place for the band', band, 'By size'],
  ['It', () => <LoseGlare />, 'Lose this'],
];

test.each(CASES)('a failure is told, not shown as nothing found: %s', async (subject, view, button) => {
  openFailing(view, new Error('the worker fell over'));
  if (button) press(button);
  const words = `${subject} could not be worked out: the worker fell over.`;
  expect(await screen.findByText(words, {}, { timeout: 5000 })).toBeDefined();
});

test('of a bench that was left nothing is told', async () => {
  const { ask } = openFailing(() => <Pointer />, new SessionClosed('the picture session has ended'));
  press('Point');
  await act(async () => undefined);
  expect(ask).toHaveBeenCalled();
  expect(screen.queryByText(/could not be worked out/)).toBeNull();
});
