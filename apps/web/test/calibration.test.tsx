// @vitest-environment jsdom
import { defaultKit } from '@fendrix/catalogue';
import type { Calibration, CalibrationHour, Kit, KitEntry, StandInCard } from '@fendrix/contract';
import { calibrateKit, gradientCard, ownWedge } from '@fendrix/core';
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { SnackbarProvider } from 'notistack';
import Papa from 'papaparse';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { CalibrationView } from '../src/features/calibration/pages';
import { readingsCsv } from '../src/features/calibration/readingsCsv';
import { kitCsv, readKitCsv } from '../src/features/kit/kitCsv';
import { press, type } from './hands';
import { standInBrowser } from './openBench';
import { standInServer } from './standInServer';

standInBrowser();
afterEach(() => vi.unstubAllGlobals());

const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
const LIGHT = 'softbox-60x90';
const fitted = (value: number, error: number) => ({ value, error });

/** What an hour says, as many readings as it has: an output that tells how many there were. */
const said = ({ readings }: CalibrationHour): Calibration => ({
  lights: [
    {
      entry: LIGHT,
      outputStops: fitted(-readings.length / 10, 0.05),
      givesPart: fitted(0.98, 0.01),
      hotCentre: null,
      temperatureK: fitted(5320, 90),
      durationFullS: null,
      durationStopsPerStop: null,
    },
  ],
  isoStops: fitted(0.12, 0.06),
  slope: null,
  bend: null,
  cornerStops: fitted(0.4, 0.05),
  veilPart: null,
  meterStops: null,
  readings: readings.map(({ id }) => ({ reading: id, beforeStops: -0.4, afterStops: 0.01, sureStops: 0.03 })),
});

/** The place over a server that keeps the kit and answers for readings when it is let. */
function open(calibration: Partial<CalibrationHour> = {}, newest = json({}, 404)) {
  let document: Kit = defaultKit();
  let revision = 1;
  document = {
    ...document,
    calibration: {
      body: document.entries.find(({ what, ...own }) => what === 'equipment' && 'thing' in own)?.id ?? 'body',
      lens: 'none',
      focalLengthM: 0.1,
      whiteBalanceK: 5500,
      cardReflectance: 0.18,
      lights: [],
      readings: [],
      ...calibration,
    },
  };
  const asked: StandInCard[] = [];
  const held: (() => void)[] = [];
  let wedgeHeld: Promise<void> | null = null;
  let letWedgeGo: () => void = () => undefined;
  let holds = false;
  standInServer(async (request) => {
    const { pathname } = new URL(request.url);
    if (pathname === '/api/kit' && request.method === 'PUT') {
      const body = (await request.json()) as { revision: number; document: Kit };
      if (body.revision !== revision)
        return json({ error: { code: 'conflict', message: 'The kit was changed elsewhere.' } }, 409);
      document = body.document;
      revision = body.revision + 1;
      return json({ revision, document });
    }
    if (pathname === '/api/kit') return json({ revision, document });
    if (pathname === '/api/calibration/fits') {
      const hour = (await request.json()) as CalibrationHour;
      if (holds) await new Promise<void>((resolve) => held.push(resolve));
      return json(said(hour));
    }
    if (pathname === '/api/calibration/newest') return newest.clone();
    if (pathname === '/api/calibration/stand-in') {
      const own = (await request.json()) as StandInCard;
      asked.push(own);
      return json(own.by === 'meter' ? { luxSeconds: 900 } : { rgb: [0.4, 0.4, 0.4], frame: 'CARD.JPG' });
    }
    if (pathname === '/api/calibration/stand-in-wedge') {
      await wedgeHeld;
      return json(ownWedge(4, 1, 0.18));
    }
    return json({}, 404);
  });
  const { store } = createStore();
  render(
    <Provider store={store}>
      <SnackbarProvider>
        <MemoryRouter>
          <CalibrationView />
        </MemoryRouter>
      </SnackbarProvider>
    </Provider>,
  );
  return {
    asked,
    kit: () => document,
    holdWedge: () => {
      wedgeHeld = new Promise((resolve) => {
        letWedgeGo = resolve;
      });
    },
    letWedgeGo: () => letWedgeGo(),
    hold: () => {
      holds = true;
    },
    letGo: () => {
      holds = false;
      for (const go of held.splice(0)) go();
    },
  };
}

const reading = (id: string) => ({
  id,
  light: LIGHT,
  distanceM: 1,
  powerStops: 0,
  fNumber: 8,
  shutterS: 0.008,
  iso: 100,
  place: 'middle' as const,
  rgb: [0.4, 0.4, 0.4] as [number, number, number],
});

test('readings go out as a table, with what they are off by where it is known', () => {
  const hour = { readings: [reading('a'), { ...reading('b'), rgb: undefined, luxSeconds: 900 }] };
  const found = said({ readings: [reading('a')] } as CalibrationHour);
  const { data } = Papa.parse<Record<string, string>>(
    readingsCsv(hour, found, () => '=Softbox'),
    { header: true },
  );
  expect(data).toHaveLength(2);
  // What a table reader would take for a formula is text.
  expect(data[0]).toMatchObject({ light: "'=Softbox", green: '0.4', beforeStops: '-0.4', luxSeconds: '' });
  expect(data[1]).toMatchObject({ green: '', luxSeconds: '900', afterStops: '' });
});

test('a kit goes out as a table and comes back with what its lights were calibrated from', () => {
  const hour = { ...defaultKit(), calibration: undefined };
  const kit = calibrateKit(
    hour,
    said({ readings: [] } as never),
    { lights: { [LIGHT]: ['givesPart'] }, body: false, lens: false },
    '2026-05-01',
  );
  const entry = kit.entries.find(({ id }) => id === LIGHT) as KitEntry;
  expect(entry).toHaveProperty('calibrated.on', '2026-05-01');
  const read = readKitCsv(kit.entries, kitCsv([entry]));
  expect(read.ok && read.entries.find(({ id }) => id === LIGHT)).toEqual(entry);
});

describe('the hour of a calibration', () => {
  test('begins with the lights to read; what cannot be read off a card is not offered', async () => {
    const { kit } = open();
    await screen.findByText(/Choose the lights to read/);
    expect(screen.queryByText(/The hour/)).toBeNull();
    expect(screen.queryByLabelText(/^Projecting spot/)).toBeNull();
    expect(screen.queryByLabelText(/^Window/)).toBeNull();
    fireEvent.click(screen.getByLabelText('Softbox 60 x 90'));
    await screen.findByText(/^The hour: 0 of \d+ read$/);
    expect(kit().calibration?.lights).toEqual([LIGHT]);
    expect(screen.getByText(/do not look into the light/)).toBeTruthy();
  });

  test('goes on step by step; a reading is taken out again', async () => {
    const { asked, kit } = open({ lights: [LIGHT] });
    const hand = await screen.findByRole('group', { name: 'The step at hand' });
    expect(within(hand).getByText(/^Softbox 60 x 90, power 1\/1, 1.00 m/)).toBeTruthy();
    type('Flash duration t0.1, if measured', '1/850 s');
    press('Stand-in camera');
    await screen.findByText(/^The hour: 1 of/);
    expect(kit().calibration?.readings[0]?.durationS).toBeCloseTo(1 / 850, 9);
    press('Stand-in meter');
    await screen.findByText(/^The hour: 2 of/);
    expect(asked.map(({ by }) => by)).toEqual(['frame', 'meter']);
    expect(asked[0]?.hour).not.toHaveProperty('readings');
    expect(kit().calibration?.readings.map(({ luxSeconds }) => luxSeconds)).toEqual([undefined, 900]);
    press('900 lx s: take out');
    await screen.findByText(/^The hour: 1 of/);
    expect(await screen.findByText(/^Hold the meter flat/)).toBeTruthy();
  });

  test('a meter of one’s own is typed as it reads; nonsense is refused', async () => {
    const { kit } = open({ lights: [LIGHT] });
    await screen.findByRole('group', { name: 'The step at hand' });
    press('Stand-in camera');
    const label = /^Meter reads f\//;
    await screen.findByLabelText(label);
    const name = (screen.getByLabelText(label) as HTMLInputElement).id;
    expect(name).toBeTruthy();
    const full = document.querySelector(`label[for="${name}"]`)?.textContent ?? '';
    type(full, 'bright');
    expect(screen.getByText(/8 or 8.9/)).toBeTruthy();
    type(full, 'f/11');
    await screen.findByText(/^The hour: 2 of/);
    const [, metered] = kit().calibration?.readings ?? [];
    // 250 N² / S of a flat receptor.
    expect((metered?.luxSeconds ?? 0) / ((250 * 121) / (metered?.iso ?? 1))).toBeCloseTo(1, 1);
  });

  test('the newest frame counts with the settings it was taken with; none is told in words', async () => {
    const { kit } = open(
      { lights: [LIGHT] },
      json({ frame: 'A.JPG', rgb: [0.3, 0.3, 0.3], fNumber: 11, shutterS: 0.01, iso: null }),
    );
    await screen.findByRole('group', { name: 'The step at hand' });
    press('Read the newest frame');
    await screen.findByText(/^The hour: 1 of/);
    expect(kit().calibration?.readings[0]).toMatchObject({ frame: 'A.JPG', fNumber: 11, shutterS: 0.01 });
    expect(kit().calibration?.readings[0]?.iso).toBeGreaterThan(0);
  });

  test('what was found is taken over by choice, and the figures from before come back', async () => {
    const { kit } = open({ lights: [LIGHT], readings: [reading('a'), reading('b')] });
    const table = await screen.findByTestId('what the readings say');
    expect(within(table).getByText('−0.20 ± 0.05 stops')).toBeTruthy();
    expect(within(table).getAllByText('the readings do not tell').length).toBe(4);
    expect(screen.getByText('0.40')).toBeTruthy();
    fireEvent.click(screen.getByLabelText('take over: Softbox 60 x 90, Colour'));
    press('Take over what is ticked');
    const light = () => kit().entries.find(({ id }) => id === LIGHT);
    await waitFor(() => expect(light()).toHaveProperty('calibrated'));
    const before = defaultKit().entries.find(({ id }) => id === LIGHT);
    if (before?.what !== 'light') throw new Error('no light');
    expect(light()).toMatchObject({
      thing: { dial: { givesPart: 0.98 }, colour: before.thing.colour ?? {} },
      calibrated: { before: before.thing },
    });
    fireEvent.click(await screen.findByRole('button', { name: 'Figures from before' }));
    await waitFor(() => expect(light()).toEqual(before));
  });

  test('what was worked out for other readings is never shown beside newer ones', async () => {
    const { hold, letGo } = open({ lights: [LIGHT], readings: [reading('a')] });
    await screen.findByText('−0.10 ± 0.05 stops');
    hold();
    press('Stand-in camera');
    await screen.findByText(/^The hour: 1 of/);
    expect(screen.queryByText('−0.10 ± 0.05 stops')).toBeNull();
    expect(screen.getByLabelText('It is being worked out')).toBeTruthy();
    letGo();
    expect(await screen.findByText('−0.20 ± 0.05 stops')).toBeTruthy();
  });
});

describe('the printer', () => {
  const printerPart = async () => within(await screen.findByRole('region', { name: 'Printer' }));

  test('says what to print, and nothing of a curve before anything is read', async () => {
    open();
    const part = await printerPart();
    for (const paper of ['A4', 'Letter'])
      expect(part.getByRole('link', { name: `Print the wedge, ${paper}` }).getAttribute('href')).toBe(
        `/api/calibration/wedge?paper=${paper}`,
      );
    expect(part.getByText(/With the card and three patches it stands here/)).toBeTruthy();
    expect(part.queryByRole('button', { name: 'Take over' })).toBeNull();
  });

  test('a wedge that was read is taken over: gradient cards are of this ink and paper; the usual ones come back', async () => {
    const { kit } = open();
    const part = await printerPart();
    press('Let the stand-ins read it');
    expect(await part.findByText(/Solid ink sends back/)).toBeTruthy();
    expect(kit().printer?.wedge?.patches).toHaveLength(11);
    expect(gradientCard('across', kit()).reflectance).toBe(0.82);
    press('Take over');
    await part.findByText(/counts with the printer as it was on/);
    const tones = kit().printer?.calibrated?.tones ?? [];
    const own = gradientCard('out', kit());
    expect(own.tone).toMatchObject({
      direction: 'out',
      from: tones.at(-1)?.reflectance,
      to: tones[0]?.reflectance,
    });
    expect(own.reflectance).not.toBe(0.82);
    press('Usual ink and paper');
    await waitFor(() => expect(kit().printer?.calibrated).toBeUndefined());
    expect(kit().printer?.wedge?.patches).toHaveLength(11);
    expect(gradientCard('across', kit()).reflectance).toBe(0.82);
  });

  test('a value that the stand-ins are overtaken by stays', async () => {
    const { kit, holdWedge, letWedgeGo } = open();
    const part = await printerPart();
    holdWedge();
    press('Let the stand-ins read it');
    type('the card in the frame', '121');
    await waitFor(() => expect(kit().printer?.wedge?.card).toBe(121));
    letWedgeGo();
    await screen.findByText(/changed elsewhere/);
    expect(kit().printer?.wedge).toMatchObject({ card: 121, patches: [] });
    expect(part.queryByText(/Solid ink sends back/)).toBeNull();
  });

  test('the card is typed as the frame shows it; what cannot be is refused', async () => {
    const { kit } = open();
    const part = await printerPart();
    type('the card in the frame', '300');
    expect(await part.findByText(/a value from 1 to 255/)).toBeTruthy();
    expect(kit().printer).toBeUndefined();
    type('the card in the frame', '118');
    await waitFor(() => expect(kit().printer?.wedge?.card).toBe(118));
  });
});
