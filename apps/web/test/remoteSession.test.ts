import type { SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import type { Task } from '@fendrix/workers';
import { describe, expect, test, vi } from 'vitest';
import { NOTHING_SHOWN } from '../src/features/bench/figures/shown';
import { WHOLE_FRAME } from '../src/features/bench/picture/frameWindow';
import { RemoteSession } from '../src/features/bench/picture/remoteSession';
import { serveSession } from '../src/features/bench/picture/serveSession';
import type { PictureSession, SessionEvents } from '../src/features/bench/picture/session';
import type { FromSession, ToSession } from '../src/features/bench/picture/sessionProtocol';

const set = demoSet('mill');

/** A session at the far end of a line over which all is copied, as between page and worker. */
function connect(
  answer: (task: Task, other?: SetDocument) => Promise<unknown> = async () => null,
  hangs: () => boolean = () => false,
) {
  const sessions: {
    calls: unknown[][];
    events: SessionEvents;
    die(reason: string): void;
    ended: boolean;
  }[] = [];
  const told: unknown[][] = [];
  const tell =
    (name: string) =>
    (...values: unknown[]) =>
      void told.push([name, ...values]);
  const events = Object.fromEntries(
    ['picture', 'figure', 'status', 'crash', 'failure'].map((name) => [name, tell(name)]),
  ) as unknown as SessionEvents;
  const remote = new RemoteSession(events, (say, died) => {
    const calls: unknown[][] = [];
    const own = { calls, events: {} as SessionEvents, die: died, ended: false };
    sessions.push(own);
    const receive = serveSession(
      (message, transfer) => say(structuredClone<FromSession>(message, { transfer })),
      (farEvents) => {
        own.events = farEvents;
        const call =
          (name: string) =>
          (...values: unknown[]) =>
            void calls.push([name, ...values]);
        return {
          update: call('update'),
          resize: call('resize'),
          lookAt: call('lookAt'),
          show: call('show'),
          ask: answer,
        } as unknown as PictureSession;
      },
    );
    return {
      post: (message) => {
        if (!hangs()) receive(structuredClone<ToSession>(message));
      },
      terminate: () => {
        own.ended = true;
      },
    };
  });
  return { remote, sessions, told };
}

describe('a picture session in a worker', () => {
  test('what the page tells arrives in order, without the takes', () => {
    const { remote, sessions } = connect();
    remote.update({ ...demoSet('bottle') });
    remote.resize(500);
    remote.lookAt(WHOLE_FRAME);
    remote.show({ ...NOTHING_SHOWN, overlay: 'mirrors' });
    expect(sessions[0]?.calls.map(([name]) => name)).toEqual(['update', 'resize', 'lookAt', 'show']);
    const [, sent] = (sessions[0]?.calls[0] ?? []) as [string, SetDocument];
    expect(demoSet('bottle').takes.length).toBeGreaterThan(0);
    expect(sent).toEqual({ ...demoSet('bottle'), takes: [], plates: [] });
    expect(sessions[0]?.calls.slice(1)).toEqual([
      ['resize', 500],
      ['lookAt', WHOLE_FRAME],
      ['show', { ...NOTHING_SHOWN, overlay: 'mirrors' }],
    ]);
  });

  test('a picture is sent straight to whom it was asked by; without one, or when the session ends, that is an error', async () => {
    const ports: MessagePort[] = [];
    let ended = (_reason: string) => {};
    const remote = new RemoteSession({ crash: () => {}, failure: () => {} } as never, (_say, died) => {
      ended = died;
      return {
        post: (message) => void (message.type === 'file' && ports.push(message.port)),
        terminate: () => {},
      };
    });
    const [first, second, third] = [0, 1, 2].map(() => remote.pictureFile('png'));
    ports[0]?.postMessage('a file');
    expect(await first).toBe('a file');
    ports[1]?.postMessage(null);
    await expect(second).rejects.toThrow('no picture yet');
    ended('it fell over');
    await expect(third).rejects.toThrow('it fell over');
    const abort = new AbortController();
    const given = remote.pictureFile('png', abort.signal);
    abort.abort(new Error('nobody waits'));
    await expect(given).rejects.toThrow('nobody waits');
    await expect(remote.pictureFile('png', abort.signal)).rejects.toThrow('nobody waits');
    remote.close();
    await expect(remote.pictureFile('png')).rejects.toThrow('ended');
  });

  test('all that the session tells reaches the page; pixels are given away, not copied', () => {
    const { sessions, told } = connect();
    const far = sessions[0]?.events as SessionEvents;
    const pixels = new Uint8ClampedArray([1, 2, 3, 4]);
    const layer = { overlay: 'stops', pixels: new Uint8ClampedArray(4), labels: [], lost: {}, byThing: [] };
    far.picture({
      picture: 1,
      width: 1,
      height: 1,
      samples: 1,
      pixels,
      window: WHOLE_FRAME,
      tones: layer,
    } as never);
    far.figure('spots', { traces: [], settled: true });
    far.status({ phase: 'done', progress: 1 });
    far.failure('no light');
    expect(pixels.length).toBe(0);
    expect(layer.pixels.length).toBe(0);
    const [picture, ...rest] = told as [[string, { pixels: Uint8ClampedArray }], ...unknown[][]];
    expect([...picture[1].pixels]).toEqual([1, 2, 3, 4]);
    expect(rest).toEqual([
      ['figure', 'spots', { traces: [], settled: true }],
      ['status', { phase: 'done', progress: 1 }],
      ['failure', 'no light'],
    ]);
  });

  test('questions get their own answers, in any order, or the reason why not', async () => {
    const { remote } = connect(async (task, other) => {
      if (task.kind === 'zones') throw new Error('no product');
      await new Promise((resolve) => setTimeout(resolve, task.kind === 'ambient' ? 20 : 1));
      return [task.kind, other?.name ?? 'as it is'];
    });
    const asked = [
      remote.ask({ kind: 'ambient' }),
      remote.ask({ kind: 'things' }, { ...set, name: 'as it would be' }),
    ];
    await expect(remote.ask({ kind: 'zones', options: {} as never })).rejects.toThrow('no product');
    expect(await Promise.all(asked)).toEqual([
      ['ambient', 'as it is'],
      ['things', 'as it would be'],
    ]);
  });

  test('one that dies is replaced, told anew what it has to know, and its questions fail', async () => {
    const { remote, sessions, told } = connect(() => new Promise(() => undefined));
    remote.update({ ...set, name: 'old' });
    remote.resize(300);
    remote.update(set);
    const question = remote.ask({ kind: 'ambient' });
    sessions[0]?.die('out of memory');
    await expect(question).rejects.toThrow('out of memory');
    expect(sessions[0]?.ended).toBe(true);
    expect(told).toEqual([['crash', 'out of memory']]);
    expect(sessions[1]?.calls).toEqual([
      ['update', { ...set, takes: [], plates: [] }],
      ['resize', 300],
    ]);
    // What the dead one still had to say is not heard, and does not count as its successor's death.
    sessions[0]?.events.failure('late');
    sessions[0]?.die('again');
    expect(told.length).toBe(1);
    expect(sessions.length).toBe(2);
  });

  test('one that keeps dying is given up, in words; a picture between starts the count anew', async () => {
    const { remote, sessions, told } = connect();
    sessions[0]?.die('one');
    sessions[1]?.events.picture({ pixels: new Uint8ClampedArray(4), tones: null } as never);
    for (let i = 1; i <= 3; i++) sessions[i]?.die('gone');
    expect(sessions.length).toBe(4);
    expect(told.map(([name]) => name)).toEqual(['crash', 'picture', 'crash', 'crash', 'failure']);
    await expect(remote.ask({ kind: 'ambient' })).rejects.toThrow('has ended');
    remote.update(set);
  });

  test('closing ends it and fails what was asked', async () => {
    const { remote, sessions } = connect(() => new Promise(() => undefined));
    const question = remote.ask({ kind: 'ambient' });
    const failed = vi.fn();
    const settled = question.catch(failed);
    remote.close();
    await settled;
    expect(failed).toHaveBeenCalledOnce();
    expect(sessions[0]?.ended).toBe(true);
  });
});

describe('a session that says nothing any more', () => {
  test('is noticed within ten seconds, told, and another takes its place; one that lives is left alone', () => {
    vi.useFakeTimers();
    let hung = false;
    const { remote, sessions, told } = connect(undefined, () => hung && sessions.length === 1);
    remote.update(set);
    vi.advanceTimersByTime(60_000);
    expect(sessions).toHaveLength(1);
    hung = true;
    vi.advanceTimersByTime(10_000);
    expect(sessions).toHaveLength(2);
    expect(sessions[0]?.ended).toBe(true);
    expect(told.filter(([name]) => name === 'crash')).toEqual([['crash', 'it gave no answer']]);
    // Told what it has to know.
    expect(sessions[1]?.calls[0]?.[0]).toBe('update');
    vi.advanceTimersByTime(60_000);
    expect(sessions).toHaveLength(2);
    remote.close();
    vi.useRealTimers();
  });
});
