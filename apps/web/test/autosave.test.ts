// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { benchSet } from '../src/features/bench/state/benchSlice';
import { renameSet } from '../src/features/bench/state/edits';
import { edit, openSet } from '../src/features/bench/state/thunks';
import { setsApi } from '../src/features/sets';
import { keepWhatIsOpen } from '../src/shared/document/autosave';
import { dropDraft, keepDraft, readDrafts } from '../src/shared/document/drafts';
import { shortened } from '../src/shared/longTexts';
import { refusalsOf } from '../src/shared/refusals';
import { openStore, STORED } from './benchStore';
import { soon } from './soon';
import { standInServer } from './standInServer';

interface Sent {
  revision: number;
  document: { name: string; note?: unknown };
}

const sent: Sent[] = [];
let answer: (body: Sent) => Response | Promise<Response>;

const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
const accept = ({ revision, document }: Sent) =>
  json(200, { ...STORED, revision: revision + 1, name: document.name, document });

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  sent.length = 0;
  answer = accept;
  standInServer(async (request) => {
    const body = (await request.json()) as Sent;
    sent.push(body);
    return answer(body);
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** What is kept of the set in this browser, newest first. */
const drafts = async () => (await readDrafts(STORED.id)).map(({ document }) => document);

const pass = (milliseconds: number) => vi.advanceTimersByTimeAsync(milliseconds);

describe('autosave', () => {
  test('many changes in a moment are one save of the last, and the state says so', async () => {
    const { store } = openStore({ autosave: true });
    for (const name of ['a', 'b', 'c']) store.dispatch(edit(renameSet(name)));
    expect(store.getState().benchSet.file.save).toBe('saving');
    await pass(1500);
    expect(sent.map(({ revision, document }) => [revision, document.name])).toEqual([[3, 'c']]);
    expect(store.getState().benchSet.file.save).toBe('saved');
    expect(store.getState().benchSet.file.stored?.revision).toBe(4);
    expect(await drafts()).toEqual([]);
  });

  test('a change during a save is saved after it, on the new revision', async () => {
    const { store } = openStore({ autosave: true });
    answer = async (body) => {
      if (sent.length === 1) await new Promise((resolve) => setTimeout(resolve, 500));
      return accept(body);
    };
    store.dispatch(edit(renameSet('first')));
    await pass(700);
    store.dispatch(edit(renameSet('second')));
    await pass(3000);
    expect(sent.map(({ revision, document }) => [revision, document.name])).toEqual([
      [3, 'first'],
      [4, 'second'],
    ]);
    expect(store.getState().benchSet.file.save).toBe('saved');
  });

  test('without the server the set is kept here and tried again', async () => {
    const { store } = openStore({ autosave: true });
    answer = () => Promise.reject(new TypeError('no network'));
    store.dispatch(edit(renameSet('offline')));
    await pass(1000);
    expect(store.getState().benchSet.file).toMatchObject({ save: 'offline', kept: true });
    expect(await drafts()).toMatchObject([{ name: 'offline' }]);
    answer = accept;
    await pass(5000);
    expect(store.getState().benchSet.file.save).toBe('saved');
    expect(await drafts()).toEqual([]);
  });

  test('a long text goes to the server once; named afterwards, and sent again where it is not known', async () => {
    vi.useRealTimers();
    const long = 'A'.repeat(70_000);
    const document = { ...STORED.document, note: long };
    const store = openStore().store;
    const save = (revision: number) =>
      store.dispatch(setsApi.endpoints.saveSet.initiate({ id: STORED.id, revision, document })).unwrap();
    const notes = () => sent.map(({ document: { note } }) => (note === long ? 'whole' : typeof note));
    await save(3);
    await soon(() => expect(shortened(document)).not.toBe(document));
    await save(4);
    expect(notes()).toEqual(['whole', 'object']);
    answer = (body) =>
      body.document.note === long ? accept(body) : json(400, { error: { code: 'bad-input' } });
    expect(await save(5)).toMatchObject({ revision: 6 });
    expect(notes()).toEqual(['whole', 'object', 'object', 'whole']);
  });

  test('a newer set elsewhere stops saving until one is chosen', async () => {
    const newer = { ...STORED, revision: 9, document: { ...STORED.document, name: 'Theirs' } };
    const conflict = () => json(409, { error: { code: 'conflict', message: 'Changed elsewhere.', newer } });
    for (const [keep, name] of [
      ['mine', 'Mine'],
      ['newer', 'Theirs'],
    ] as const) {
      const { store, set } = openStore({ autosave: true });
      answer = conflict;
      store.dispatch(edit(renameSet('Mine')));
      await pass(1500);
      expect(store.getState().benchSet.file.save).toBe('conflict');
      answer = accept;
      store.dispatch(benchSet.settleConflict(keep));
      await pass(1500);
      expect(set().name).toBe(name);
      expect(store.getState().benchSet.file.newer).toBeNull();
      expect(store.getState().benchSet.file.save).toBe('saved');
      // Mine is saved over the newer revision; the newer one needs no saving.
      expect(sent.at(-1)).toMatchObject({ revision: keep === 'mine' ? 9 : 3, document: { name: 'Mine' } });
    }
  });

  test('a change made just before the set is closed is saved after it', async () => {
    answer = accept;
    const { store } = openStore({ autosave: true });
    store.dispatch(edit(renameSet('In a hurry')));
    store.dispatch(benchSet.closed());
    await pass(50);
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject({ revision: 3, document: { name: 'In a hurry' } });
    expect(await drafts()).toEqual([]);
    await pass(2000);
    expect(sent).toHaveLength(1);
  });

  test('closed in a hurry after it was opened anew, it is saved over what was opened, not over an older call', async () => {
    const { store } = openStore({ autosave: true });
    store.dispatch(edit(renameSet('Once')));
    await pass(1000);
    store.dispatch(openSet({ ...STORED, revision: 9 }, null));
    store.dispatch(edit(renameSet('Twice')));
    store.dispatch(benchSet.closed());
    await pass(50);
    expect(sent.map(({ revision }) => revision)).toEqual([3, 9]);
  });

  test('closed while the server is away, it stays in the browser', async () => {
    answer = () => Promise.reject(new TypeError('offline'));
    const { store } = openStore({ autosave: true });
    store.dispatch(edit(renameSet('Away')));
    store.dispatch(benchSet.closed());
    await pass(100);
    expect(await drafts()).toMatchObject([{ name: 'Away' }]);
  });

  test('an answer that comes when another set is open is not taken for that one', async () => {
    let settle: (response: Response) => void = () => {};
    answer = () =>
      new Promise((resolve) => {
        settle = resolve;
      });
    const { store } = openStore({ autosave: true });
    store.dispatch(edit(renameSet('First')));
    await pass(800);
    expect(sent).toHaveLength(1);
    const other = { ...STORED, id: '00000000-0000-4000-8000-000000000002', revision: 7 };
    store.dispatch(openSet(other, null));
    settle(accept({ revision: 3, document: { name: 'First' } }));
    await pass(100);
    expect(store.getState().benchSet.file.stored).toEqual({ id: other.id, revision: 7 });
    expect(store.getState().benchSet.file.save).toBe('saved');
  });

  test('the same document saved meanwhile is no conflict', async () => {
    const { store, set } = openStore({ autosave: true });
    store.dispatch(edit(renameSet('Twice')));
    const newer = { ...STORED, revision: 4, document: set() };
    answer = () => json(409, { error: { code: 'conflict', message: 'Changed elsewhere.', newer } });
    await pass(2000);
    expect(store.getState().benchSet.file).toMatchObject({ save: 'saved', newer: null });
    expect(store.getState().benchSet.file.stored?.revision).toBe(4);
  });

  test('opening a set is no change of it', async () => {
    openStore({ autosave: true });
    await pass(2000);
    expect(sent).toEqual([]);
  });

  test('each window keeps its own draft; none is dropped for another; what is no draft is passed over', async () => {
    await keepDraft(STORED.id, 3, { name: 'here' });
    const other = JSON.stringify({
      revision: 2,
      at: '2026-01-01T00:00:00.000Z',
      document: { name: 'there' },
    });
    localStorage.setItem(`fendrix.unsaved.${STORED.id}.other-window`, other);
    localStorage.setItem(`fendrix.unsaved.${STORED.id}`, '{"revision":1,"document":{"name":"before"}}');
    localStorage.setItem(`fendrix.unsaved.${STORED.id}.broken`, 'not json');
    expect(await drafts()).toEqual([{ name: 'here' }, { name: 'there' }, { name: 'before' }]);
    dropDraft(STORED.id);
    expect(await drafts()).toEqual([{ name: 'there' }, { name: 'before' }]);
    dropDraft(STORED.id, 'before');
    expect(await drafts()).toEqual([{ name: 'there' }]);
  });

  test('a browser that keeps nothing is told: nothing says that it is kept', async () => {
    answer = () => Promise.reject(new TypeError('no network'));
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const { store } = openStore({ autosave: true });
    store.dispatch(edit(renameSet('large')));
    await pass(1000);
    full.mockRestore();
    expect(store.getState().benchSet.file).toMatchObject({ save: 'offline', kept: false });
  });

  test.each([
    [404, 'gone', false],
    [400, 'refused', false],
    [413, 'too-large', false],
    [507, 'storage', true],
    [500, 'failed', true],
  ] as const)('an answer of %d has words and a way out of its own', async (status, save, again) => {
    answer = () => json(status, { error: { code: 'internal', message: 'In words.' } });
    const { store } = openStore({ autosave: true });
    store.dispatch(edit(renameSet('Not taken')));
    await pass(1000);
    expect(store.getState().benchSet.file).toMatchObject({ save, why: 'In words.', kept: true });
    expect(await drafts()).toMatchObject([{ name: 'Not taken' }]);
    await pass(5000);
    expect(sent.length > 1).toBe(again);
    // The next change is tried whatever was before.
    answer = accept;
    store.dispatch(edit(renameSet('Taken')));
    await pass(5000);
    expect(store.getState().benchSet.file.save).toBe('saved');
    expect(await drafts()).toEqual([]);
  });

  test('when the page goes, the last change is kept at once', async () => {
    const { store } = openStore({ autosave: true });
    store.dispatch(edit(renameSet('In the last moment')));
    keepWhatIsOpen(benchSet, store.getState);
    expect(JSON.stringify({ ...localStorage })).toContain('In the last moment');
  });

  test('of two versions either can be gone back to', async () => {
    const { store, set } = openStore({ autosave: true });
    const newer = { ...STORED, revision: 9, document: { ...STORED.document, name: 'Theirs' } };
    answer = () => json(409, { error: { code: 'conflict', message: 'Changed elsewhere.', newer } });
    store.dispatch(edit(renameSet('Mine')));
    await pass(1500);
    answer = accept;
    store.dispatch(benchSet.settleConflict('newer'));
    expect(set().name).toBe('Theirs');
    store.dispatch(benchSet.undo());
    expect(set().name).toBe('Mine');
    await pass(1500);
    expect(sent.at(-1)).toMatchObject({ revision: 9, document: { name: 'Mine' } });
  });

  test('a draft of an older revision is gone on with by choice, and can be undone', async () => {
    const { store, set } = openStore({ autosave: true });
    const draft = {
      window: 'other-window',
      revision: 2,
      at: '',
      document: { ...STORED.document, name: 'Late' },
    };
    store.dispatch(benchSet.draftsMet([draft]));
    expect(set().name).toBe(STORED.name);
    expect(store.dispatch(benchSet.takeDraft(draft))).toBe(true);
    expect(set().name).toBe('Late');
    expect(store.getState().benchSet.file.offered).toEqual([]);
    await pass(1500);
    expect(sent.at(-1)).toMatchObject({ revision: 3, document: { name: 'Late' } });
    store.dispatch(benchSet.undo());
    expect(set().name).toBe(STORED.name);
    const broken = { ...draft, document: { ...STORED.document, lights: 'none' } };
    store.dispatch(benchSet.draftsMet([broken]));
    const told = refusalsOf(() => expect(store.dispatch(benchSet.takeDraft(broken))).toBe(false));
    expect(told).toHaveLength(1);
    expect(store.getState().benchSet.file.offered).toHaveLength(1);
  });
});
