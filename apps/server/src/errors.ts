import type { ApiError, Problem, Stored } from '@fendrix/contract';
import type { Middleware } from 'koa';
import type { Logger } from 'pino';

type Code = ApiError['error']['code'];

const STATUS: Record<Code, number> = {
  'bad-input': 400,
  'not-paired': 401,
  forbidden: 403,
  'not-found': 404,
  'not-allowed': 405,
  conflict: 409,
  'too-large': 413,
  unsupported: 415,
  'too-many': 429,
  unreadable: 500,
  storage: 507,
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
  const told = storageError(error) ?? requestError(status, error);
  if (told) return told;
  log.error({ err: briefly(error) }, 'request failed');
  return new AppError('internal', 'Something went wrong on the server; nothing was changed.', {
    hint: 'Try again. If it stays, look into the server log.',
  });
}

/** What the client sent wrong, as far as the parts that read it say so. */
function requestError(status: unknown, error: unknown): AppError | null {
  const { code, type } = (error ?? {}) as { code?: string; type?: string };
  if (status === 415 || type === 'encoding.unsupported') {
    return new AppError('unsupported', 'The request is packed or written in a way that is not known here.', {
      hint: 'Send it plain or as gzip, in UTF-8.',
    });
  }
  if (status === 403 || status === 404) return new AppError('not-found', 'There is nothing at this address.');
  const unpacking = typeof code === 'string' && /^(Z_|ERR_.*ZLIB|ERR_BROTLI)/.test(code);
  if (unpacking || (typeof status === 'number' && status >= 400 && status < 500)) {
    return new AppError('bad-input', 'The request cannot be read.', {
      hint: 'Send one JSON object, with content-type application/json.',
    });
  }
  return null;
}

/** A disk that takes nothing more, or nothing at all. */
function storageError(error: unknown): AppError | null {
  for (let here = error; typeof here === 'object' && here !== null; here = (here as Error).cause) {
    const { code, message } = here as { code?: string; message?: string };
    if (code === 'ENOSPC' || code === 'SQLITE_FULL' || /database or disk is full/.test(message ?? '')) {
      return new AppError('storage', 'The disk of the server is full: nothing was saved.', {
        hint: 'Free some space there, then save again. What you did stays in this browser meanwhile.',
      });
    }
    const locked = code === 'EROFS' || code === 'EACCES' || code === 'EPERM';
    if (locked || code?.startsWith('SQLITE_READONLY') || /readonly database/.test(message ?? '')) {
      return new AppError('storage', 'The data folder of the server cannot be written: nothing was saved.', {
        hint: 'Give the server the right to write there, then save again. What you did stays in this browser meanwhile.',
      });
    }
  }
  return null;
}

/** An error for the log, without what was being stored: queries carry whole documents. */
export function briefly(error: unknown): object {
  if (!(error instanceof Error)) return { message: String(error).slice(0, 300) };
  const { name, message, stack, cause } = error;
  const frames = (stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  const short = message.split(/\n?params:/i)[0] ?? '';
  return {
    name,
    message: short.slice(0, 300),
    stack: frames.slice(0, 12).join('\n'),
    ...(cause ? { cause: briefly(cause) } : {}),
  };
}
