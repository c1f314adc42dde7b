// @vitest-environment jsdom
import type { Backup, BackupList, BackupLook } from '@fendrix/contract';
import { fireEvent, render, screen, within } from '@testing-library/react';
import { SnackbarProvider } from 'notistack';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { createStore } from '../src/app/createStore';
import { BackupsView } from '../src/features/backups/pages';
import { standInBrowser } from './openBench';
import { soon } from './soon';
import { standInServer } from './standInServer';

standInBrowser();
afterEach(() => vi.unstubAllGlobals());

const backup = (name: string, change: Partial<Backup> = {}): Backup => ({
  name,
  bytes: 2_345_678,
  madeAt: '2026-05-01T08:00:00.000Z',
  reason: 'by hand',
  jobs: 1,
  sets: 2,
  pictures: 3,
  ...change,
});
const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

/** The page over a server that keeps a list, and notes what it is asked. */
function open(list: Partial<BackupList>, answers: Record<string, () => Response> = {}) {
  const asked: string[] = [];
  standInServer(({ method, url }) => {
    const path = decodeURIComponent(new URL(url).pathname);
    asked.push(`${method} ${path}`);
    const own = answers[`${method} ${path}`];
    if (own) return own();
    return json({ folder: '/studio/backups', keep: 7, backups: [], unreadable: [], damaged: null, ...list });
  });
  const { store } = createStore();
  render(
    <Provider store={store}>
      <SnackbarProvider>
        <MemoryRouter>
          <BackupsView />
        </MemoryRouter>
      </SnackbarProvider>
    </Provider>,
  );
  return asked;
}

const LOOK: BackupLook = { backup: backup('a.zip'), lost: ['Since'], back: ['Gone'], changed: ['Other'] };

describe('the page of backups', () => {
  test('an empty one says what a backup is; where none is made by itself it says that', async () => {
    open({ keep: 0 });
    expect(await screen.findByText(/No backup yet. One holds all jobs/)).toBeTruthy();
    expect(screen.getByText(/switched off on this server/)).toBeTruthy();
  });

  test('each is told by when, why and what it holds, and can be saved as a file', async () => {
    open({ backups: [backup('fendrix a.zip'), backup('b.zip', { bytes: 900, jobs: 0, reason: 'daily' })] });
    const [first, second] = await screen.findAllByRole('rowheader');
    const row = (header: HTMLElement | undefined) => header?.closest('tr') as HTMLElement;
    expect(row(first).textContent).toContain('1 job, 2 sets, 3 pictures');
    expect(row(first).textContent).toContain('2.3 MB');
    expect(row(second).textContent).toMatch(/daily.*0 jobs.*1 kB/);
    expect(within(row(first)).getByRole('link').getAttribute('href')).toBe('/api/backups/fendrix%20a.zip');
  });

  test('nothing is put back before what would change was shown and agreed to', async () => {
    const asked = open(
      { backups: [backup('a.zip')] },
      {
        'GET /api/backups/a.zip/look': () => json(LOOK),
        'POST /api/backups/a.zip/restore': () => json(backup('a.zip')),
      },
    );
    fireEvent.click(await screen.findByRole('button', { name: /^Look into/ }));
    const dialog = await screen.findByRole('dialog', { name: 'What would change' });
    expect(await within(dialog).findByText('Since')).toBeTruthy();
    for (const name of ['Gone', 'Other']) expect(within(dialog).getByText(name)).toBeTruthy();
    expect(asked.some((one) => one.includes('restore'))).toBe(false);
    fireEvent.click(within(dialog).getByRole('button', { name: 'Put it back' }));
    expect(await screen.findByText('The studio is as it was in that backup.')).toBeTruthy();
    expect(asked).toContain('POST /api/backups/a.zip/restore');
  });

  test('what the server refuses is told in its words', async () => {
    const message = 'This backup was not read: its database is missing.';
    open(
      { backups: [backup('a.zip')] },
      {
        'POST /api/backups/a.zip/verify': () =>
          json(
            { error: { code: 'bad-input', message, hint: 'Choose another one. Nothing was changed.' } },
            400,
          ),
      },
    );
    fireEvent.click(await screen.findByRole('button', { name: /^Check/ }));
    expect(await screen.findByText(`${message} Choose another one. Nothing was changed.`)).toBeTruthy();
  });

  test('a damaged database is told, and the newest backup offered to be looked into', async () => {
    open(
      {
        damaged: { setAside: '/studio/fendrix.sqlite.damaged-1' },
        backups: [backup('new.zip'), backup('old.zip')],
      },
      { 'GET /api/backups/new.zip/look': () => json({ ...LOOK, lost: [], back: [], changed: [] }) },
    );
    expect(await screen.findByText(/set aside as \/studio\/fendrix.sqlite.damaged-1/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Look into the newest backup' }));
    expect(await screen.findByText(/All jobs and sets are the same as now/)).toBeTruthy();
  });

  test('one is removed only when that is said twice; a file that is none stands apart', async () => {
    const asked = open(
      { backups: [backup('a.zip')], unreadable: [{ name: 'holiday.zip', why: 'It is no backup.' }] },
      { 'DELETE /api/backups/a.zip': () => new Response(null, { status: 204 }) },
    );
    expect(await screen.findByText('holiday.zip: It is no backup.')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /^Remove that/ }));
    fireEvent.click(await screen.findByRole('button', { name: 'Keep it' }));
    expect(asked.some((one) => one.startsWith('DELETE'))).toBe(false);
    fireEvent.click(screen.getByRole('button', { name: /^Remove that/, hidden: true }));
    fireEvent.click((await screen.findAllByRole('button', { name: 'Remove it' })).at(-1) as HTMLElement);
    await soon(() => expect(asked).toContain('DELETE /api/backups/a.zip'));
  });
});
