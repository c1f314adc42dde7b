import { messageOf } from '@fendrix/workers';
import { enqueueSnackbar } from 'notistack';
import { SessionClosed } from '../picture/remoteSession';

/**
 * Tells that something could not be worked out, and why: a failure is never shown as nothing found. The same is told
 * once at a time, and nothing of a bench that was left.
 * @param what begins the sentence: "The background"
 */
export function tellFailure(what: string, error: unknown): void {
  if (error instanceof SessionClosed) return;
  const words = `${what} could not be worked out: ${messageOf(error)}.`;
  enqueueSnackbar(words, { variant: 'warning', key: words, preventDuplicate: true });
}
