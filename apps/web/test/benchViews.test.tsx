// @vitest-environment jsdom
import type { SetDocument } from '@fendrix/contract';
import { type BandProfile, bandProfile, overlaps, profileStops, traceSpot } from '@fendrix/core';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { MirrorBandView } from '../src/features/bench/band/MirrorBandView';
import { FrostSection } from '../src/features/bench/desk/background/FrostSection';
import { GroundSection } from '../src/features/bench/desk/background/GroundSection';
import { AmbientSection } from '../src/features/bench/desk/exposure/AmbientSection';
import { CastSection } from '../src/features/bench/desk/exposure/CastSection';
import { EquivalentSection } from '../src/features/bench/desk/exposure/EquivalentSection';
import { FilterSection } from '../src/features/bench/desk/exposure/FilterSection';
import { PowerSection } from '../src/features/bench/desk/exposure/PowerSection';
import MovementDesk from '../src/features/bench/desk/MovementDesk';
import { FilterDial } from '../src/features/bench/lens/FilterDial';
import { LoseGlare } from '../src/features/bench/spot/LoseGlare';
import { PickSources } from '../src/features/bench/spot/PickSources';
import { SpotPanel } from '../src/features/bench/spot/SpotPanel';
import { benchActions, benchSet } from '../src/features/bench/state/benchSlice';
import { moveThing, renameSet } from '../src/features/bench/state/edits';
import { edit } from '../src/features/bench/state/thunks';
import { BenchCautions } from '../src/features/bench/views/BenchCautions';
import { AddButton, Palette } from '../src/features/bench/views/Palette';
import { StopRuler } from '../src/features/bench/views/StopRuler';
import { press, type } from './hands';
import { openDemo, standInBrowser } from './openBench';

standInBrowser();

describe('exposure desk', () => {
  test('powers solved for a tone are set, and the spot is then recorded so', () => {
    const { show, stops } = openDemo('cordial');
    show(<PowerSection />);
    type('label, wanted', '+0.3');
    press('Solve the powers');
    press('Set these powers');
    expect(stops('label')).toBeCloseTo(0.3, 1);
  });

  test('powers are not set from rough readings: they follow the finer ones, and a moved set is solved again', () => {
    const { show, store, figures, set, stops, tracing } = openDemo('cordial');
    const read = (samples: number, settled: boolean) => {
      const traces = set().spots.map((spot) => traceSpot(tracing, spot, samples, 1));
      act(() => figures.set('spots', { traces, settled }));
    };
    read(8, false);
    show(
      <>
        <PowerSection />
        <SpotPanel />
      </>,
    );
    expect(screen.getByTestId('spot label').textContent).toMatch(/≈ [+−]\d/);
    type('label, wanted', '+0.3');
    press('Solve the powers');
    const take = screen.getByRole('button', { name: 'Set these powers' }) as HTMLButtonElement;
    expect(take.disabled).toBe(true);
    expect(screen.getByRole('status').textContent).toContain('still being read');
    read(8192, true);
    expect(take.disabled).toBe(false);
    press('Set these powers');
    expect(stops('label')).toBeCloseTo(0.3, 1);
    expect(screen.getByTestId('spot label').textContent).toMatch(/label[+−]\d/);
    act(() => void store.dispatch(edit(moveThing({ kind: 'light', key: 'A' }, [-0.9, 0, 0.4]))));
    expect(screen.queryByRole('button', { name: 'Set these powers' })).toBeNull();
    expect(screen.getByRole('status').textContent).toContain('solve again');
  });

  test('a light that runs out is told with ways to more light', () => {
    const { show } = openDemo('cordial');
    show(<PowerSection />);
    type('label, wanted', '8');
    press('Solve the powers');
    const solved = screen.getByTestId('solved');
    expect(solved.textContent).toMatch(/\d\.\d stops/);
    expect(solved.textContent).toContain('More from A, the cheapest first');
    expect(solved.textContent).toMatch(/flashes on one frame/);
  });

  test('what is no tone is told, and nothing is solved without a spot', () => {
    const { show } = openDemo('cordial', (set) => ({ ...set, spots: set.spots.slice(0, 1) }));
    show(<PowerSection />);
    type('label, wanted', 'bright');
    expect(screen.getByRole('alert').textContent).toContain('Not understood');
  });

  test('ambient: a modelling lamp counts, and the shutter that keeps it down is offered', () => {
    const { show, set } = openDemo('cordial', (start) => ({
      ...start,
      camera: { ...start.camera, shutterS: 1 / 4 },
      lights: start.lights.map((light) => ({
        ...light,
        modelling: { on: true, lumens: 3000, temperatureK: 3000 },
      })) as never,
    }));
    show(<AmbientSection />);
    const words = screen.getByRole('status').textContent ?? '';
    expect(words).toMatch(/or faster keeps it under|Not within the sync speed/);
    if (words.includes('keeps it under')) {
      press('Take it');
      expect(set().camera.shutterS).toBeLessThan(1 / 4);
    }
  });

  test('an equivalent exposure is taken with its ISO', () => {
    const { show, set } = openDemo('mill');
    const before = set().camera;
    show(<EquivalentSection />);
    press('Take f/22');
    const after = set().camera;
    expect(after.iso / before.iso).toBeCloseTo((after.fNumber / before.fNumber) ** 2, 0);
  });

  test('a polariser is put on and taken off; neutral density says the shutter for it', () => {
    const { show, set } = openDemo('mill');
    show(<FilterSection />);
    fireEvent.click(screen.getByText('none'));
    press('Put it on');
    expect(set().camera.polariser?.lossStops).toBe(1.5);
    fireEvent.change(screen.getByLabelText('ND filter, stops'), { target: { value: '3' } });
    expect(screen.getByRole('status', { hidden: true }).textContent).toContain('1/15');
  });

  test('the ring of the filter stands under the picture while one is on, and turns it in one step of undo', () => {
    const bare = openDemo('mill');
    const { container } = bare.show(<FilterDial />);
    expect(container.textContent).toBe('');
    const on = (set: SetDocument): SetDocument => ({
      ...set,
      camera: { ...set.camera, polariser: { axisDeg: 90, lossStops: 1.5, extinction: 0.005 } },
    });
    const { show, set } = openDemo('mill', on);
    show(<FilterDial />);
    expect(screen.getByTestId('filter-turned').textContent).toBe('90°');
    expect(screen.getByTestId('filter-takes').textContent).toMatch(/^takes, in stops: .*mill left/);
    const ring = screen.getByLabelText('Polariser turned from upright');
    fireEvent.change(ring, { target: { value: '-30' } });
    fireEvent.change(ring, { target: { value: '-35' } });
    expect(set().camera.polariser?.axisDeg).toBe(-35);
    expect(screen.getByTestId('filter-turned').textContent).toBe('−35°');
  });

  test('a warm lamp beside flash is named, gelled and gone', () => {
    const warm = (set: SetDocument): SetDocument => ({
      ...set,
      lights: set.lights.map((light) => ({ ...light, colour: { temperatureK: 3000, gels: [] } })) as never,
    });
    const { show, set } = openDemo('mill', warm);
    show(<CastSection />);
    const value = screen.getByText(/ΔE \d+ warm/);
    fireEvent.click(value);
    press(/^Gel it: full blue/);
    expect(set().lights[0]?.colour?.gels.map(({ name }) => name)).toContain('Full blue');
  });
});

describe('movement desk', () => {
  test('the blur of a pour by shutter and by flash; tries follow chance', () => {
    const { show } = openDemo('perry');
    show(<MovementDesk />);
    expect(screen.getByText('1.40 m/s')).toBeTruthy();
    expect(screen.getByText(/1\.1 cm · \d+ px · flowing/)).toBeTruthy();
    fireEvent.change(screen.getByLabelText('what moves'), { target: { value: 'splash' } });
    expect(screen.getByText('2.80 m/s')).toBeTruthy();
    const tries = screen.getByText('tries, so portions to have ready').parentElement?.textContent ?? '';
    expect(Number(/\d+$/.exec(tries)?.[0])).toBeGreaterThan(2);
    type('frames in one try', '1');
    const more = screen.getByText('tries, so portions to have ready').parentElement?.textContent ?? '';
    expect(Number(/\d+$/.exec(more)?.[0])).toBeGreaterThan(Number(/\d+$/.exec(tries)?.[0]));
  });
});

describe('background desk', () => {
  test('the background is judged against the products, and gets lights of its own that make it white', async () => {
    const { show, set } = openDemo('cordial');
    show(<GroundSection />);
    await waitFor(() => screen.getByTestId('ground-verdict'), { timeout: 8000 });
    expect(screen.getByTestId('ground-verdict').textContent).toContain('Light grey');
    press('Give the background lights of its own');
    await waitFor(() => expect(set().lights.length).toBeGreaterThan(1), { timeout: 8000 });
    await waitFor(() => expect(screen.getByTestId('ground-verdict').textContent).toMatch(/^White/), {
      timeout: 8000,
    });
  });

  test('without frost the section says what to put on', () => {
    const { show } = openDemo('mill');
    show(<FrostSection />);
    expect(screen.getByText(/Put a frame of frost/)).toBeTruthy();
  });
});

describe('spots and the ruler', () => {
  test('a wanted tone is set, told as missing, and drawn on the ruler', () => {
    const { show, set } = openDemo('cordial');
    show(
      <>
        <SpotPanel />
        <StopRuler />
      </>,
    );
    fireEvent.click(within(screen.getByTestId('spot label')).getByRole('button'));
    press('white background');
    expect(set().spots.find(({ name }) => name === 'label')?.target?.from).toBeCloseTo(2.47, 1);
    expect(screen.getByTestId('target label').textContent).toMatch(/too dark/);
    expect(document.querySelector('svg title')?.textContent).toBe('wanted at label');
  });

  test('a spot that others count from takes its target along when it goes', () => {
    const { store, set } = openDemo('cordial');
    const [first, second] = set().spots;
    store.dispatch(
      edit((old) => ({
        ...old,
        spots: old.spots.map((spot) =>
          spot.name === second?.name ? { ...spot, target: { from: 0, to: 1, against: first?.name } } : spot,
        ) as never,
      })),
    );
    expect(set().spots[1]?.target?.against).toBe(first?.name);
  });

  test('sliding the ruler by keys changes what was chosen', () => {
    const { show, set } = openDemo('cordial');
    show(<StopRuler />);
    fireEvent.change(screen.getByLabelText('The ruler slides'), { target: { value: 'ISO' } });
    const before = set().camera.iso;
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Exposure, slid by ISO' }), {
      key: 'ArrowRight',
      shiftKey: true,
    });
    expect(set().camera.iso / before).toBeCloseTo(2, 1);
  });
});

describe('a spot and its image', () => {
  test('its parts stand apart and add up, and nothing is the mirror’s own', () => {
    const { show, pointAt } = openDemo('mill');
    show(<PickSources />);
    pointAt(0.455, 0.5);
    expect(screen.getByTestId('part mirrored').textContent).toContain('%');
    expect(screen.queryByTestId('part own')).toBeNull();
  });

  test('ways to lose it are offered as measured, and done', async () => {
    const { show, set, pointAt } = openDemo('mill');
    show(<LoseGlare />);
    pointAt(0.455, 0.5);
    const before = set();
    press('Lose this');
    await waitFor(() => screen.getAllByRole('button', { name: 'Do it' }), { timeout: 8000 });
    fireEvent.click(screen.getAllByRole('button', { name: 'Do it' })[0] as HTMLElement);
    expect(set().sheets).not.toEqual(before.sheets);
    expect(set().takes).toEqual(before.takes);
  });

  test('an edge stays the same one while it is dragged, whatever comes into the band before it', () => {
    const { show, figures } = openDemo('mill');
    show(<MirrorBandView />);
    const edge = () => document.querySelector('[data-edge="2 from"]');
    const before = edge();
    expect(before).not.toBeNull();
    const bands = (figures.get('bands') ?? []).map((band) => {
      const [first, ...rest] = band.lengths;
      if (!first) return band;
      const middle = (first.from + first.to) / 2;
      const sliver = { ...first, kind: 'dark' as const, what: null, from: middle };
      return { ...band, lengths: [{ ...first, to: middle }, sliver, ...rest] };
    });
    act(() => figures.set('bands', bands));
    expect(edge()).toBe(before);
  });

  test('a height that is none, or above the product, is told and nothing lost; a good one is taken', () => {
    const { show, set } = openDemo('mill');
    show(<MirrorBandView />);
    const height = () => set().products[0]?.bandHeightM;
    const before = height();
    for (const text of ['high up', '3 m', '-2 cm']) {
      type('Height of the band, typed', text);
      const told = text === 'high up' ? /Type for example \d+.* cm/ : /It goes from 1 mm to \d+.* cm/;
      expect(screen.getByRole('alert').textContent).toMatch(told);
      expect(screen.getByDisplayValue(text)).toBeTruthy();
      expect(height()).toBe(before);
    }
    type('Height of the band, typed', '9 cm');
    expect(height()).toBeCloseTo(0.09, 9);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('the width of an image is typed; one that cannot be is told and the ends stay', () => {
    const { show } = openDemo('mill');
    show(<MirrorBandView />);
    fireEvent.click(screen.getAllByLabelText('What 1 makes')[0] as Element);
    const value = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).value;
    const ends = [value('From, %'), value('To, %')];
    type('Width, %', 'wide');
    expect(screen.getByRole('alert').textContent).toContain('Type for example 20');
    type('Width, %', '0.1');
    expect(screen.getByRole('alert').textContent).toContain('0.5 % to 100 %');
    expect([value('From, %'), value('To, %')]).toEqual(ends);
    type('Width, %', '12,5 %');
    expect(screen.queryByRole('alert')).toBeNull();
    expect(Number(value('To, %')) - Number(value('From, %'))).toBeCloseTo(12.5, 6);
  });

  test('an edge of the band by keys moves what makes it; the profile follows powers without rays', async () => {
    const { show, set, ask, tracing } = openDemo('mill');
    show(<MirrorBandView />);
    const edge = document.querySelector('[data-edge="1 to"]') as Element;
    const before = set().sheets[0]?.positionM;
    fireEvent.keyDown(edge, { key: 'ArrowLeft', shiftKey: true });
    await waitFor(() => expect(set().sheets[0]?.positionM).not.toEqual(before), { timeout: 8000 });
    expect(ask).toHaveBeenCalled();
    const [product] = set().products;
    const profile = product && (bandProfile(tracing, product, { columns: 16, samples: 8 }) as BandProfile);
    if (!profile) throw new Error('the mill has a profile');
    const darker = {
      ...set(),
      lights: set().lights.map((light) => ({ ...light, powerStops: light.powerStops - 1 })),
    };
    const [now, then] = [profileStops(set(), profile), profileStops(darker as SetDocument, profile)];
    now.forEach((stops, i) => {
      if (stops > -15) expect((then[i] ?? 0) - stops).toBeCloseTo(-1, 6);
    });
  });
});

describe('adding', () => {
  const search = () => screen.getByLabelText('Add: a name, or what it is for');
  const lookFor = (words: string) => fireEvent.change(search(), { target: { value: words } });

  test('by what it is for, with Enter: the first found stands on the set under a free tag, selected', async () => {
    const { show, set, store } = openDemo('cordial');
    show(
      <>
        <AddButton />
        <Palette />
      </>,
    );
    press('Add');
    await screen.findByText('Octa 90');
    lookFor('edge');
    fireEvent.keyDown(search(), { key: 'Enter' });
    expect(set().lights.map(({ tag, name }) => [tag, name])).toEqual([
      ['A', 'Softbox 60 x 90'],
      ['B', 'Strip 30 x 120'],
    ]);
    expect(store.getState().bench.selected).toEqual({ kind: 'light', key: 'B' });
    act(() => void store.dispatch(benchSet.undo()));
    expect(set().lights).toHaveLength(1);
  });

  test('what would stand in something is moved out of it, in the same step of undo; never over a later change', async () => {
    const { show, set, store, hold } = openDemo('cordial');
    const before = set();
    const add = async () => {
      press('Add');
      await screen.findByText('Octa 90');
      lookFor('strip 30 x 120');
      fireEvent.keyDown(search(), { key: 'Enter' });
      return set().lights.at(-1);
    };
    show(
      <>
        <AddButton />
        <Palette />
      </>,
    );
    const put = await add();
    await waitFor(() => expect(set().lights.at(-1)).not.toEqual(put));
    expect(overlaps(set()).some(({ key }) => key === 'B')).toBe(false);
    act(() => void store.dispatch(benchSet.undo()));
    expect(set().lights).toEqual(before.lights);

    const letGo = hold();
    await add();
    act(() => void store.dispatch(edit(renameSet('Renamed meanwhile'))));
    const renamed = set();
    letGo();
    await act(() => new Promise((resolve) => setTimeout(resolve, 300)));
    expect(set()).toBe(renamed);
  });

  test('what the kit does not have is told; a purpose is pressed and pressed off again', async () => {
    const { show } = openDemo('cordial');
    show(
      <>
        <AddButton />
        <Palette />
      </>,
    );
    press('Add');
    await screen.findByText('Octa 90');
    lookFor('trombone');
    expect(screen.getByText(/Nothing in the kit is called or good for “trombone”/)).toBeTruthy();
    press('cut');
    expect(screen.getByText('Black flag 20 x 30')).toBeTruthy();
    expect(screen.queryByText('Octa 90')).toBeNull();
    press('cut');
    expect(screen.getByText('Octa 90')).toBeTruthy();
  });

  test('materials are offered for a thing that can have one; a person needs no kit', async () => {
    const { show, set, store } = openDemo('cordial');
    show(
      <>
        <AddButton />
        <Palette />
      </>,
    );
    press('Add');
    await screen.findByText('Octa 90');
    lookFor('copper');
    expect(screen.getByText(/Nothing in the kit/)).toBeTruthy();
    act(() => void store.dispatch(benchActions.selected({ kind: 'sheet', key: '1' })));
    lookFor('');
    lookFor('copper');
    expect(screen.queryByText(/Nothing in the kit/)).toBeNull();
    press('A person');
    expect(set().people).toHaveLength(1);
  });
});

test('cautions stand where they apply', () => {
  const { show } = openDemo('perry');
  show(<BenchCautions />);
  expect(screen.getByRole('note').textContent).toContain('residual-current device');
});
