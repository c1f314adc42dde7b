// @vitest-environment jsdom
import { act } from '@testing-library/react';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { useFigure } from '../src/features/bench/figures/figureStore';
import { PlanView } from '../src/features/bench/plan/PlanView';
import { beginDrag, dragStep, endDrag } from '../src/features/bench/state/drag';
import { moveThing } from '../src/features/bench/state/edits';
import { useSet } from '../src/features/bench/state/hooks';
import { AtOnce, Paced } from '../src/features/bench/state/Paced';
import { edit } from '../src/features/bench/state/thunks';
import { openDemo, standInBrowser } from './openBench';
import { soon } from './soon';

standInBrowser();

afterEach(() => {
  act(endDrag);
  vi.useRealTimers();
});

/** Says where the light stands, and how many bands there are. */
function Where({ name }: { name: string }) {
  const light = useSet().lights.find(({ tag }) => tag === 'A');
  const x = light && light.kind !== 'surround' ? light.positionM[0] : Number.NaN;
  return (
    <div data-testid={name}>
      {x.toFixed(2)} {useFigure('bands')?.length}
    </div>
  );
}

function open() {
  const bench = openDemo('cordial');
  const { getByTestId } = bench.show(
    <Paced>
      <Where name="beside" />
      <AtOnce>
        <Where name="picture" />
      </AtOnce>
    </Paced>,
  );
  const move = (x: number) =>
    act(() => void bench.store.dispatch(edit(moveThing({ kind: 'light', key: 'A' }, [x, -0.2, 0.5]))));
  const says = () => [getByTestId('picture').textContent, getByTestId('beside').textContent];
  return { ...bench, move, says };
}

describe('what stands beside the picture', () => {
  test('follows at once while nothing is dragged', () => {
    const { move, says, figures } = open();
    move(-0.4);
    expect(says()).toEqual(['-0.40 1', '-0.40 1']);
    act(() => figures.set('bands', []));
    expect(says()).toEqual(['-0.40 0', '-0.40 0']);
  });

  test('follows a drag at a slower beat than picture and plans, and is up to date when it ends', () => {
    vi.useFakeTimers();
    const { move, says, figures } = open();
    move(-0.4);
    act(beginDrag);
    move(-0.41);
    move(-0.42);
    act(() => figures.set('bands', []));
    expect(says()).toEqual(['-0.42 0', '-0.40 1']);
    act(() => void vi.advanceTimersByTime(250));
    expect(says()).toEqual(['-0.42 0', '-0.42 0']);
    move(-0.43);
    expect(says()).toEqual(['-0.43 0', '-0.42 0']);
    act(endDrag);
    expect(says()).toEqual(['-0.43 0', '-0.43 0']);
  });
});

test('of many steps of a drag the newest is done, and the last one before the drag ends', async () => {
  const done: number[] = [];
  beginDrag();
  for (let i = 0; i < 5; i++) dragStep(() => void done.push(i));
  await soon(() => expect(done).toEqual([4]));
  dragStep(() => void done.push(5));
  endDrag();
  expect(done).toEqual([4, 5]);
});

test('both plans hold their scale while something is dragged', () => {
  const bench = openDemo('cordial');
  const { container } = bench.show(
    <>
      <PlanView kind="above" />
      <PlanView kind="side" />
    </>,
  );
  const scales = () =>
    [...container.querySelectorAll('svg[data-px-per-m]')].map((plan) => plan.getAttribute('data-px-per-m'));
  const before = scales();
  act(beginDrag);
  act(() => void bench.store.dispatch(edit(moveThing({ kind: 'light', key: 'A' }, [-1.3, -0.2, 1.2]))));
  expect(scales()).toEqual(before);
  act(endDrag);
  for (const [i, scale] of scales().entries()) expect(Number(scale)).toBeLessThan(Number(before[i]));
});
