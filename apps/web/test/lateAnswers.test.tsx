// @vitest-environment jsdom
import type { SetDocument } from '@fendrix/contract';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { HighlightDialog } from '../src/features/bench/band/HighlightDialog';
import { CurveSection } from '../src/features/bench/desk/background/CurveSection';
import { FlagSection } from '../src/features/bench/desk/background/FlagSection';
import { FrostSection } from '../src/features/bench/desk/background/FrostSection';
import { GroundSection } from '../src/features/bench/desk/background/GroundSection';
import { PowerSection } from '../src/features/bench/desk/exposure/PowerSection';
import { usePointAt } from '../src/features/bench/lens/usePointAt';
import { useSession } from '../src/features/bench/picture/useSession';
import { LoseGlare } from '../src/features/bench/spot/LoseGlare';
import { moveThing } from '../src/features/bench/state/edits';
import { edit } from '../src/features/bench/state/thunks';
import { press, type } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

type Bench = ReturnType<typeof openDemo>;

const POWER = -2.4;

/** Sets the power of every light and the ISO: no ray is traced for it, but it is the user's. */
function changeExposure({ store, set }: Bench): SetDocument {
  act(
    () =>
      void store.dispatch(
        edit((now) => ({
          ...now,
          lights: now.lights.map((light) => ({ ...light, powerStops: POWER })),
          camera: { ...now.camera, iso: 400 },
        })),
      ),
  );
  return set();
}

/** Moves something, so that light takes other paths. */
function moveSomething({ store, set }: Bench): void {
  const light = set().lights.find((one) => one.kind !== 'surround');
  if (!light) throw new Error('there is no light to move');
  const [x, y, z] = light.positionM;
  act(() => void store.dispatch(edit(moveThing({ kind: 'light', key: light.tag }, [x, y, z + 0.03]))));
}

/** What was set between question and answer is still set. */
function expectKept({ set }: Bench, edited: SetDocument): void {
  const powers = set().lights.slice(0, edited.lights.length);
  expect(powers.map(({ tag, powerStops }) => [tag, powerStops])).toEqual(
    edited.lights.map(({ tag }) => [tag, POWER]),
  );
  expect(set().camera.iso).toBe(400);
}

const buttons = (name: string) => screen.getAllByRole('button', { name }) as HTMLButtonElement[];
const enabled = (name: string) =>
  waitFor(() => expect(buttons(name)[0]?.disabled).toBe(false), { timeout: 8000 });

/** Presses a button and edits before the answer is there. */
function pressThen<T>(bench: Bench, button: string, change: (bench: Bench) => T): T {
  const letGo = bench.hold();
  press(button);
  const changed = change(bench);
  letGo();
  return changed;
}

describe('an edit between question and answer stays', () => {
  test('losing a glare', async () => {
    const bench = openDemo('mill');
    bench.show(<LoseGlare />);
    bench.pointAt(0.455, 0.5);
    const edited = pressThen(bench, 'Lose this', changeExposure);
    await enabled('Do it');
    fireEvent.click(buttons('Do it')[0] as HTMLElement);
    expect(bench.set().sheets).not.toEqual(edited.sheets);
    expectKept(bench, edited);
  });

  test('a card made wider for the band', async () => {
    const bench = openDemo('mill');
    const band = bench.figures.get('bands')?.[0];
    const length = band?.lengths.find(({ kind }) => kind === 'sheet');
    if (!band || !length) throw new Error('the mill mirrors its cards');
    bench.show(<HighlightDialog band={band} length={length} onClose={() => {}} />);
    const edited = pressThen(bench, 'By size', changeExposure);
    await waitFor(() => expect(bench.set().sheets).not.toEqual(edited.sheets), { timeout: 8000 });
    expectKept(bench, edited);
  });

  test('a lamp behind frost', async () => {
    const bench = openDemo('cordial-frost');
    bench.show(<FrostSection />);
    const edited = pressThen(bench, 'Find the place', changeExposure);
    await enabled('Stand it there');
    press('Stand it there');
    expect(bench.set().lights).not.toEqual(edited.lights);
    expectKept(bench, edited);
  });

  test('a point of the curve, twice: each counts from the set it was worked out for', async () => {
    const bench = openDemo('mill');
    bench.show(<CurveSection />);
    const edited = pressThen(bench, 'Work it out', changeExposure);
    await waitFor(() => screen.getByTestId('curve'), { timeout: 60_000 });
    fireEvent.click(screen.getByRole('button', { name: /table/i }));
    fireEvent.click(screen.getAllByRole('button', { name: /^Take/ })[0] as HTMLElement);
    expect(bench.set().lights).not.toEqual(edited.lights);
    expectKept(bench, edited);
  });

  test('lights for the background: at the power that is right for the exposure of now', async () => {
    const bench = openDemo('cordial');
    bench.show(<GroundSection />);
    await waitFor(() => screen.getByTestId('ground-verdict'), { timeout: 8000 });
    const edited = pressThen(bench, 'Give the background lights of its own', changeExposure);
    await waitFor(() => expect(bench.set().lights.length).toBeGreaterThan(edited.lights.length), {
      timeout: 8000,
    });
    expectKept(bench, edited);
    await waitFor(() => expect(screen.getByTestId('ground-verdict').textContent).toMatch(/^White/), {
      timeout: 8000,
    });
  });

  test('powers follow switches and settings changed after they were solved', () => {
    const bench = openDemo('cordial');
    bench.show(<PowerSection />);
    const [name] = bench.set().spots.map((spot) => spot.name);
    type(`${name}, wanted`, '-1');
    press('Solve the powers');
    act(() => void bench.store.dispatch(edit((now) => ({ ...now, camera: { ...now.camera, iso: 200 } }))));
    press('Set these powers');
    expect(bench.set().camera.iso).toBe(200);
    expect(bench.stops(name ?? '')).toBeCloseTo(-1, 1);
  });
});

describe('once light takes other paths an answer is old, and is not taken', () => {
  test('losing a glare', async () => {
    const bench = openDemo('mill');
    bench.show(<LoseGlare />);
    bench.pointAt(0.455, 0.5);
    pressThen(bench, 'Lose this', moveSomething);
    await waitFor(() => screen.getByText(/The set has moved since/), { timeout: 8000 });
    expect(buttons('Do it').every(({ disabled }) => disabled)).toBe(true);
  });

  test('a lamp behind frost', async () => {
    const bench = openDemo('cordial-frost');
    bench.show(<FrostSection />);
    press('Find the place');
    await enabled('Stand it there');
    moveSomething(bench);
    expect(buttons('Stand it there')[0]?.disabled).toBe(true);
  });

  test('what flags change', async () => {
    const bench = openDemo('cordial');
    bench.show(<FlagSection />);
    press('Measure what they change');
    await waitFor(() => screen.getByTestId('flag-levels'), { timeout: 8000 });
    moveSomething(bench);
    expect(screen.queryByTestId('flag-levels')).toBeNull();
  });

  test('lights for the background', async () => {
    const bench = openDemo('cordial');
    bench.show(<GroundSection />);
    await waitFor(() => screen.getByTestId('ground-verdict'), { timeout: 8000 });
    pressThen(bench, 'Give the background lights of its own', moveSomething);
    await waitFor(() => screen.getByText(/The set has moved meanwhile/), { timeout: 8000 });
    expect(bench.set().lights).toHaveLength(1);
  });

  test('a spot pointed at while the set moves is asked again, of the set as it is', async () => {
    const bench = openDemo('mill');
    const pointed: Promise<void>[] = [];
    function Pointer() {
      const pointAt = usePointAt(useSession());
      return (
        <button type="button" onClick={() => void pointed.push(pointAt(0.455, 0.5))}>
          Point
        </button>
      );
    }
    bench.show(<Pointer />);
    pressThen(bench, 'Point', moveSomething);
    await act(() => Promise.all(pointed));
    expect(bench.ask.mock.calls.filter(([task]) => task.kind === 'pick')).toHaveLength(2);
  });
});
