import type { SetDocument } from '@fendrix/contract';
import type { Task, TaskResult } from '@fendrix/workers';
import { sessionWorker } from '../early';
import type { Shown } from '../figures/shown';
import type { FrameWindow } from './frameWindow';
import type { PictureFormat } from './pictureFile';
import type { SessionEvents } from './session';
import type { FromSession, PlatesShown, ToSession } from './sessionProtocol';

/** The worker of a session, as far as the page needs it. */
export interface SessionPort {
  post(message: ToSession, transfer?: Transferable[]): void;
  terminate(): void;
}

/** Starts a worker; it tells what it says, and when it has died. */
export type OpenSession = (
  say: (message: FromSession) => void,
  died: (reason: string) => void,
) => SessionPort;

/** How often the session is asked whether it is alive, and how long it may take to say so, ms. */
const PULSE_MS = 2000;
const SILENCE_MS = 6000;
/** A session that dies so often without a picture between is not started again. */
const MOST_DEATHS = 3;

function openWorker(...[say, died]: Parameters<OpenSession>): SessionPort {
  const worker = sessionWorker();
  worker.addEventListener('message', ({ data }: MessageEvent<FromSession>) => say(data));
  worker.addEventListener('error', ({ message }) => died(message || 'it could not start'));
  return {
    post: (message, transfer = []) => worker.postMessage(message, transfer),
    terminate: () => worker.terminate(),
  };
}

/** Why a question of a bench that was left has no answer. */
export class SessionClosed extends Error {}

interface Question {
  resolve(result: TaskResult<Task> | null): void;
  reject(reason: Error): void;
}

/**
 * The page's end of a picture session that lives in a worker: there the answers of the render workers are taken at
 * once, however busy the page is with drawing.
 */
export class RemoteSession {
  private port: SessionPort | null = null;
  /** Newest message of each kind but questions: told again to a session that takes the place of a dead one. */
  private readonly told = new Map<ToSession['type'], ToSession>();
  private readonly questions = new Map<number, Question>();
  private nextQuestion = 1;
  private deaths = 0;
  private closed = false;
  private readonly pulse: ReturnType<typeof setInterval>;
  /** When the session was last asked whether it is alive, and has not said so yet; null otherwise. */
  private askedAt: number | null = null;

  constructor(
    private readonly events: SessionEvents,
    private readonly open: OpenSession = openWorker,
  ) {
    this.start();
    this.pulse = setInterval(() => this.listen(), PULSE_MS);
  }

  /** Takes the set as it is now. */
  update(set: SetDocument): void {
    // Takes play no part in the picture, plates are told when they change: both would be copied at every step of a drag.
    this.tell({ type: 'update', set: { ...set, takes: [], plates: [] } });
  }

  /** Sets the width at which the refined picture is shown, px. */
  resize(width: number): void {
    this.tell({ type: 'resize', width });
  }

  /** Magnifies a part of the frame. */
  lookAt(window: FrameWindow): void {
    this.tell({ type: 'lookAt', window });
  }

  /** Says what is looked at, from which follows what is worked out besides the picture. */
  show(shown: Shown): void {
    this.tell({ type: 'show', shown });
  }

  /** Lays plates over the picture; null for none. */
  showPlates(shown: PlatesShown | null): void {
    this.tell({ type: 'showPlates', shown });
  }

  /** Asks the workers something about the set as it is now, or as it would be; null before there is a set. */
  ask<T extends Task>(task: T, set?: SetDocument, signal?: AbortSignal): Promise<TaskResult<T> | null> {
    return new Promise((resolve, reject) => {
      if (signal?.aborted) return reject(signal.reason);
      const id = this.nextQuestion++;
      if (!this.port) return reject(this.ended());
      const onAbort = () => this.port?.post({ type: 'askNoLonger', id });
      const settled = () => signal?.removeEventListener('abort', onAbort);
      this.questions.set(id, {
        resolve: (result) => {
          settled();
          (resolve as Question['resolve'])(result);
        },
        reject: (reason) => {
          settled();
          reject(reason);
        },
      });
      this.port.post({ type: 'ask', id, task, ...(set ? { set } : {}) });
      signal?.addEventListener('abort', onAbort, { once: true });
    });
  }

  /**
   * The picture on show as a file.
   * @throws there is none, the session ended meanwhile, or the signal's reason
   */
  pictureFile(format: PictureFormat, signal?: AbortSignal): Promise<Blob> {
    return this.fileOf((port) => ({ type: 'file', format, port }), 'there is no picture yet', signal);
  }

  /**
   * The plates and their masks as files packed in one, with a list that goes with them.
   * @throws one is still on its way, the session ended meanwhile, or the signal's reason
   */
  plateFiles(list: string, signal?: AbortSignal): Promise<Blob> {
    return this.fileOf(
      (port) => ({ type: 'plateFiles', list, port }),
      'not all plates are there yet',
      signal,
    );
  }

  private fileOf(
    question: (port: MessagePort) => ToSession,
    missing: string,
    signal?: AbortSignal,
  ): Promise<Blob> {
    return new Promise((resolve, reject) => {
      if (signal?.aborted) return reject(signal.reason);
      if (!this.port) return reject(this.ended());
      const id = this.nextQuestion++;
      const { port1, port2 } = new MessageChannel();
      const settle = (settled: () => void) => {
        this.questions.delete(id);
        signal?.removeEventListener('abort', onAbort);
        port1.close();
        settled();
      };
      const onAbort = () => settle(() => reject(signal?.reason));
      signal?.addEventListener('abort', onAbort, { once: true });
      this.questions.set(id, { resolve: () => {}, reject: (reason) => settle(() => reject(reason)) });
      port1.onmessage = ({ data }: MessageEvent<Blob | null>) =>
        settle(() => (data ? resolve(data) : reject(new Error(missing))));
      this.port.post(question(port2), [port2]);
    });
  }

  close(): void {
    clearInterval(this.pulse);
    this.closed = true;
    this.end(this.ended());
  }

  private ended(): Error {
    return this.closed
      ? new SessionClosed('the picture session has ended')
      : new Error('the picture session has ended');
  }

  private start(): void {
    const port: SessionPort = this.open(
      (message) => {
        if (this.port === port) this.receive(message);
      },
      (reason) => {
        if (this.port === port) this.replace(reason);
      },
    );
    this.port = port;
    this.askedAt = null;
    for (const message of this.told.values()) port.post(message);
  }

  private tell(message: ToSession): void {
    this.told.set(message.type, message);
    this.port?.post(message);
  }

  /** A worker that hangs, or was closed without a word, tells nothing: it is asked now and then. */
  private listen(): void {
    if (!this.port) return;
    if (this.askedAt !== null && performance.now() - this.askedAt >= SILENCE_MS) {
      this.replace('it gave no answer');
      return;
    }
    if (this.askedAt !== null) return;
    this.askedAt = performance.now();
    this.port.post({ type: 'ping' });
  }

  private receive(message: FromSession): void {
    if (message.type === 'pong') {
      this.askedAt = null;
      return;
    }
    if (message.type === 'event') {
      if (message.name === 'picture') this.deaths = 0;
      (this.events[message.name] as (...values: unknown[]) => void)(...message.values);
      return;
    }
    const question = this.questions.get(message.id);
    this.questions.delete(message.id);
    if (message.type === 'answer') question?.resolve(message.result);
    else question?.reject(new Error(message.reason));
  }

  private replace(reason: string): void {
    this.end(new Error(reason));
    if (++this.deaths >= MOST_DEATHS) {
      this.events.failure(reason);
      return;
    }
    this.events.crash(reason);
    this.start();
  }

  private end(reason: Error): void {
    this.port?.terminate();
    this.port = null;
    for (const { reject } of this.questions.values()) reject(reason);
    this.questions.clear();
  }
}
