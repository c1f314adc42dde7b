import type { ApiError, Problem, Stored } from '@fendrix/contract';
import type { Middleware } from 'koa';
import type { Logger } from 'pino';

type Code = ApiError['error']['code'];

const STATUS: Record<Code, number> = {
  'bad-input': 400,
  forbidden: 403,
  'not-found': 404,
  'not-allowed': 405,
  conflict: 409,
  'too-large': 413,
  unavailable: 503,
  internal: 500,
};

/** A failure that the caller is told about. */
export class AppError extends Error {
  constructor(
    readonly code: Code,
    message: string,
    readonly details: { hint?: string; problems?: Problem[]; newer?: Stored<unknown> } = {},
  ) {
    super(message);
  }
}

/** The one place where failures become answers. What is not an AppError is logged and told as "internal". */
export function errorExit(log: Logger): Middleware {
  return async (ctx, next) => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined) {
        throw new AppError('not-found', 'There is nothing at this address.');
      }
      if (ctx.status === 405 || ctx.status === 501) {
        throw new AppError('not-allowed', 'This address does not take that method.');
      }
    } catch (error) {
      const failure = asAppError(error, log);
      ctx.status = STATUS[failure.code];
      const body: ApiError = { error: { code: failure.code, message: failure.message, ...failure.details } };
      ctx.body = body;
    }
  };
}

function asAppError(error: unknown, log: Logger): AppError {
  if (error instanceof AppError) return error;
  const status = typeof error === 'object' && error !== null && 'status' in error ? error.status : undefined;
  if (status === 413) {
    return new AppError('too-large', 'What was sent is too large.', {
      hint: 'A document is at most 24 MB: thin out its meshes and pictures. A picture is at most 30 MB, an archive 300 MB.',
    });
  }
  if (status === 400) {
    return new AppError('bad-input', 'The request is not readable JSON.', {
      hint: 'Send one JSON object, with content-type application/json.',
    });
  }
  log.error({ err: error }, 'request failed');
  return new AppError('internal', 'Something went wrong on the server; nothing was changed.', {
    hint: 'Try again. If it stays, look into the server log.',
  });
}
