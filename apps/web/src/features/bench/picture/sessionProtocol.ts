import type { Plate, SetDocument, Take } from '@fendrix/contract';
import type { Task, TaskResult } from '@fendrix/workers';
import type { Shown } from '../figures/shown';
import type { FrameWindow } from './frameWindow';
import type { PictureFormat } from './pictureFile';
import type { SessionEvents } from './session';

/** Plates that are laid over the picture, with the takes that they are made on. */
export interface PlatesShown {
  plates: readonly Plate[];
  takes: readonly Take[];
  /** Plate whose mask is looked at. */
  maskOf: string | null;
}

/** From the page to the worker in which the picture session lives. */
export type ToSession =
  | { type: 'update'; set: SetDocument }
  | { type: 'resize'; width: number }
  | { type: 'lookAt'; window: FrameWindow }
  | { type: 'show'; shown: Shown }
  | { type: 'showPlates'; shown: PlatesShown | null }
  /** A question about the set as it is, or as it would be. */
  | { type: 'ask'; id: number; task: Task; set?: SetDocument }
  /** Nobody waits for that answer any more. */
  | { type: 'askNoLonger'; id: number }
  /** The picture on show as a file, to whom the port belongs. */
  | { type: 'file'; format: PictureFormat; port: MessagePort }
  /** The plates as files packed in one, with a list that goes with them. */
  | { type: 'plateFiles'; list: string; port: MessagePort }
  /** Is the session alive? */
  | { type: 'ping' };

/** From the session to the page. */
export type FromSession =
  | SessionEvent
  | { type: 'answer'; id: number; result: TaskResult<Task> | null }
  | { type: 'refused'; id: number; reason: string }
  | { type: 'pong' };

/** One of the calls of `SessionEvents`. */
export type SessionEvent = {
  [Name in keyof SessionEvents]: { type: 'event'; name: Name; values: Parameters<SessionEvents[Name]> };
}[keyof SessionEvents];
