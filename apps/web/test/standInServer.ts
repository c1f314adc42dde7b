import { vi } from 'vitest';

/** A server that answers in the page: Node's own Request knows no addresses without a host, nor the page's signals. */
export function standInServer(answer: (request: Request) => Promise<Response> | Response): void {
  const NodeRequest = Request;
  vi.stubGlobal(
    'Request',
    class extends NodeRequest {
      constructor(input: string | Request, init?: RequestInit) {
        const { signal: _signal, ...rest } = init ?? {};
        super(typeof input === 'string' ? new URL(input, 'http://127.0.0.1').href : input, rest);
      }
    },
  );
  vi.stubGlobal('fetch', async (request: Request) => answer(request));
}
