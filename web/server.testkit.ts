import { vi } from 'vitest';

/** Answers every request of the page with what the handler says; relative addresses need a page, and there is none here. */
export function stubServer(handle: (request: Request) => Promise<Response>): void {
  const NativeRequest = Request;
  vi.stubGlobal(
    'Request',
    class extends NativeRequest {
      constructor(input: RequestInfo | URL, init?: RequestInit) {
        super(typeof input === 'string' && input.startsWith('/') ? `http://127.0.0.1${input}` : input, init);
      }
    },
  );
  vi.stubGlobal('fetch', async (input: RequestInfo | URL, init?: RequestInit) => handle(new Request(input, init)));
}

export const answer = (status: number, body: unknown): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });

/** Another window was first: what the server says then, with the newer one. */
export const overtaken = (newer: unknown): Response =>
  answer(412, {
    type: 'about:blank',
    title: 'Changed elsewhere',
    status: 412,
    detail: 'Another window was first.',
    newer,
  });

export const noServer = async (): Promise<never> => Promise.reject(new TypeError('no connection'));
