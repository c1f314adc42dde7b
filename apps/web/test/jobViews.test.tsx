// @vitest-environment jsdom
import type { Job } from '@fendrix/contract';
import { boomLoad, planSeries, productBounds, sharpestStop, stageSet } from '@fendrix/core';
import { demoJob } from '@fendrix/demo';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { describe, expect, test, vi } from 'vitest';
import { openJob } from '../src/features/jobs';
import { BriefView } from '../src/features/jobs/brief/BriefView';
import { FormatDrawings } from '../src/features/jobs/brief/FormatDrawings';
import { ProductsView } from '../src/features/jobs/products/ProductsView';
import { SeriesView } from '../src/features/jobs/series/SeriesView';
import { seriesPictures } from '../src/features/jobs/series/seriesPictures';
import { DepthDesk } from '../src/features/jobs/shots/DepthDesk';
import { Overhead } from '../src/features/jobs/shots/Overhead';
import { PlaceChecks } from '../src/features/jobs/shots/PlaceChecks';
import type { NamedEquipment } from '../src/features/kit';
import { press, type } from './hands';
import { kit, openDemo, SET_ID, standInPage } from './openDemo';

standInPage();

describe('the brief', () => {
  test('answers go into the job, and the questions they answer go', () => {
    const { job, show } = openDemo({ client: '' });
    show(<BriefView />);
    expect(screen.getByText('Who is the client?')).toBeTruthy();
    type('client', 'Oddvane Larder');
    expect(job().client).toBe('Oddvane Larder');
    expect(screen.queryByText('Who is the client?')).toBeNull();
    type('pictures agreed', '6');
    expect(job().brief.pictures).toBe(6);
    expect(screen.getByText(/6 pictures are agreed and 4 are listed/)).toBeTruthy();
  });

  test('the day goes by Enter, and goes away when it is emptied', () => {
    const { job, show } = openDemo();
    show(<BriefView />);
    type('due on', '2027-03-04');
    expect(job().dueOn).toBe('2027-03-04');
    type('due on', '');
    expect('dueOn' in job()).toBe(false);
  });

  test('a format more is the next usual one; undo takes it back', () => {
    const { store, job, show } = openDemo();
    show(<BriefView />);
    press('Add a format');
    expect(job().brief.deliverables.at(-1)).toMatchObject({
      id: 'square-post',
      widthPx: 1080,
      heightPx: 1080,
    });
    store.dispatch(openJob.undo());
    expect(job().brief.deliverables).toHaveLength(3);
  });
});

describe('formats as they are cut', () => {
  test('each is drawn with its margin and its place for words, by name and ratio', () => {
    const formats = demoJob(() => SET_ID).brief.deliverables;
    const { container } = render(<FormatDrawings formats={formats} />);
    const drawn = [...container.querySelectorAll('li')];
    expect(drawn.map((item) => item.textContent)).toEqual([
      'Shop page1 : 1',
      'Upright story9 : 16',
      'Wide banner19 : 8',
    ]);
    const rects = (at: number) => [...(drawn[at]?.querySelectorAll('svg > rect') ?? [])];
    // Without words two: the frame and what the margin leaves; with words the place that they take first.
    expect(rects(0)).toHaveLength(2);
    expect(rects(1)).toHaveLength(3);
    const number = (rect: Element | undefined, name: string) => Number(rect?.getAttribute(name));
    const [words, frame, free] = rects(1);
    expect(number(words, 'height') / number(frame, 'height')).toBeCloseTo(0.3, 6);
    expect(number(free, 'y')).toBeCloseTo(0.3 * number(frame, 'height'), 6);
    expect(number(frame, 'width') / number(frame, 'height')).toBeCloseTo(1080 / 1920, 6);
  });

  test('without any there is nothing', () => {
    expect(render(<FormatDrawings formats={[]} />).container.childElementCount).toBe(0);
  });
});

describe('the series as pictures', () => {
  test('each product stands on its riser before the one camera, in the middle', () => {
    const job = demoJob(() => SET_ID);
    const items = job.products.map(({ id, body }) => ({
      id,
      bounds: productBounds({ ...body, positionM: [0, 0, 0] }),
    }));
    const framing = job.shots.find((shot) => shot.framing)?.framing;
    if (!framing) throw new Error('the demo job has a camera');
    const { body, lens } = framing;
    const series = planSeries(items, {
      body,
      lens,
      fillPart: 0.6,
      fNumber: 11,
      tiltDeg: 0,
      align: 'centre',
      formats: [],
    });
    const pictures = seriesPictures(job, series);
    expect(pictures.map(({ id }) => id)).toEqual(series.places.map(({ id }) => id));
    for (const [at, { set }] of pictures.entries()) {
      const liftM = series.places[at]?.liftM ?? 0;
      const [own, riser] = set.products;
      expect(own?.positionM[2]).toBeCloseTo(liftM, 9);
      if (liftM > 0) expect(riser).toMatchObject({ kind: 'box', heightM: liftM });
      else expect(riser).toBeUndefined();
      expect(set.camera.positionM).toEqual(series.placed.camera.positionM);
    }
    expect(series.places.some(({ liftM }) => liftM > 0)).toBe(true);
  });
});

describe('products', () => {
  test('arrow keys move a point of the outline by 1 mm, with Shift by 1 cm', () => {
    const { job, show } = openDemo();
    show(<ProductsView />);
    const radius = () => {
      const [{ body } = { body: null }] = job().products;
      return body?.kind === 'turned' ? body.profile[3]?.radiusM : undefined;
    };
    const before = radius() ?? 0;
    const point = screen.getByRole('button', { name: /^Point 4: / });
    fireEvent.keyDown(point, { key: 'ArrowRight' });
    expect(radius()).toBeCloseTo(before + 0.001, 9);
    fireEvent.keyDown(screen.getByRole('button', { name: /^Point 4: / }), {
      key: 'ArrowLeft',
      shiftKey: true,
    });
    expect(radius()).toBeCloseTo(before - 0.009, 9);
  });

  test('proposed steps are added once, ticked, changed and taken off', () => {
    const { job, show } = openDemo();
    show(<ProductsView />);
    const count = () => job().products[0]?.steps.length ?? 0;
    press('Propose steps');
    const proposed = count();
    expect(proposed).toBeGreaterThan(4);
    press('Propose steps');
    expect(count()).toBe(proposed);
    fireEvent.click(screen.getByLabelText('Done: Turn the label square to the lens'));
    expect(job().products[0]?.steps.find(({ text }) => text.includes('label square'))?.done).toBe(true);
    press('Remove step: Put on cotton gloves');
    expect(count()).toBe(proposed - 1);
  });

  test('products taken out leave the pictures that show them; a picture of nothing else goes too', () => {
    const { job, show } = openDemo();
    show(<ProductsView />);
    press(/^Remove Damson cordial/);
    expect(job().products.map(({ id }) => id)).not.toContain('bottle');
    expect(job().shots.map(({ id }) => id)).not.toContain('cordial');
    expect(job().shots).toHaveLength(3);
  });

  test('cautions stand with the products they belong to', () => {
    const { show } = openDemo();
    show(<ProductsView />);
    expect(screen.getByText(/Glass breaks/)).toBeTruthy();
    fireEvent.click(screen.getByText('Beet and walnut tart'));
    expect(screen.getByText(/Knives lie flat/)).toBeTruthy();
    expect(screen.queryByText(/Glass breaks/)).toBeNull();
  });

  test('without any, the page says what to do', () => {
    const { show } = openDemo({ products: [], shots: [] });
    show(<ProductsView />);
    expect(screen.getByText(/Add what is to be photographed/)).toBeTruthy();
  });
});

describe('lens and place', () => {
  const { studio } = kit;
  const staged = (id: string) => {
    const job = demoJob(() => SET_ID);
    const shot = job.shots.find((candidate) => candidate.id === id);
    if (!shot?.framing) throw new Error(`the demo job has a picture ${id}`);
    return stageSet(job, shot, shot.framing, studio);
  };

  test('the depth desk names the sharpest stop of the core, and takes it', () => {
    const { show } = openDemo();
    const { placed, set } = staged('mill');
    const onStop = vi.fn();
    const stops = [2.8, 4, 5.6, 8, 11, 16, 22];
    show(<DepthDesk staged={{ placed, set }} fits={[]} onStop={onStop} />);
    press(/^Take f\/\d/);
    const [taken] = onStop.mock.lastCall as [number];
    const { best } = sharpestStop(placed.camera, placed.nearM, placed.farM, [...stops, taken]);
    expect(best.fNumber).toBe(taken);
    const spots = screen.getByRole('table', { name: 'Blur at spots' });
    expect(within(spots).getAllByRole('row').length).toBeGreaterThan(3);
  });

  test('the curves are there as a table too', () => {
    const { show } = openDemo();
    const onStop = vi.fn();
    show(<DepthDesk staged={staged('mill')} fits={[]} onStop={onStop} />);
    const [first] = screen.getAllByRole('button', { name: 'As a table' });
    fireEvent.click(first as HTMLElement);
    expect(screen.getByRole('cell', { name: 'f/11' })).toBeTruthy();
    press('Take f/11');
    expect(onStop).toHaveBeenLastCalledWith(11.31);
    press('As a drawing');
    expect(screen.queryByRole('cell', { name: 'f/11' })).toBeNull();
  });

  test('overhead: the factor shown is that of the moments, and too much load is told', () => {
    const { show } = openDemo();
    const { set } = staged('tart');
    const stand = {
      kind: 'support',
      id: 'boom',
      name: 'Boom',
      lowestM: 0.5,
      highestM: 2.5,
      mostLoadKg: 5,
      ownKg: 6,
      baseRadiusM: 0.4,
      boomM: 1.2,
    } as NamedEquipment<'support'>;
    show(<Overhead supports={[stand]} camera={set.camera} benchHeightM={0.75} />);
    const expected = boomLoad(
      { loadKg: 1.8, armKg: 1.2, armM: 1.2, behindM: 0.5, baseRadiusM: 0.4, standKg: 11 },
      2,
    ).factor;
    expect(screen.getByText(expected.toFixed(1))).toBeTruthy();
    type('camera and lens', '4 kg');
    expect(screen.getByText(/the stand is made for 5 kg/)).toBeTruthy();
  });

  test('what is not met comes first, with a lens of the kit that meets it', () => {
    const { show } = openDemo();
    const lenses = kit.entries.flatMap((entry) =>
      entry.what === 'equipment' && entry.thing.kind === 'lens'
        ? [{ ...entry.thing, id: entry.id, name: entry.name }]
        : [],
    );
    const { framing } = demoJob(() => SET_ID).shots[0] as Job['shots'][number];
    if (!framing) throw new Error('the first picture is framed');
    const onTakeLens = vi.fn();
    show(
      <PlaceChecks
        checks={[
          { what: 'ceiling', met: true, value: 1, limit: 2.4 },
          { what: 'room-behind', met: false, value: -0.3, limit: 0.75, focalLengthM: 0.052 },
        ]}
        lenses={lenses}
        framing={framing}
        onTakeLens={onTakeLens}
      />,
    );
    expect(screen.getAllByRole('listitem')[0]?.textContent).toMatch(/Room behind the camera/);
    press(/^Take /);
    expect(onTakeLens.mock.lastCall?.[0].focalLengthM).toBeCloseTo(0.052, 6);
  });
});

describe('a series', () => {
  test('lists the largest first and follows what is chosen', async () => {
    const { store, job, show } = openDemo();
    show(<SeriesView />);
    await screen.findByRole('table', { name: 'Series' });
    const rows = () => within(screen.getByRole('table', { name: 'Series' })).getAllByRole('row');
    expect(rows()).toHaveLength(5);
    expect(rows()[1]?.textContent).toMatch(/^Damson cordial/);
    press('Damson cordial');
    expect(rows()).toHaveLength(4);
    expect(rows()[1]?.textContent).not.toMatch(/^Damson cordial/);
    expect(job().series?.products).toEqual(['mill', 'tart', 'mould']);
    act(() => void store.dispatch(openJob.undo()));
    expect(rows()).toHaveLength(5);
  });

  test('without products it says what to do first', () => {
    const { show } = openDemo({ products: [], shots: [] });
    show(<SeriesView />);
    expect(screen.getByText(/Add products first/)).toBeTruthy();
  });
});
