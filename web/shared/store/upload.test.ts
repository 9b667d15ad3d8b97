import { beforeEach, describe, expect, it, vi } from 'vitest';
import { answer, stubServer } from '#web/server.testkit.ts';
import { forgetUpload, isOffline, makeStore, sayProblem, uploadIdOf, uploads } from './index.ts';

const TAKE = '22222222-2222-4222-8222-222222222222';
const bytes = Uint8Array.from({ length: 9_000_000 }, (_, i) => i % 251);
const wait = async () => undefined;
const { sendTake, sendBackup } = uploads.endpoints;
const send = (file: Blob, onProgress: (share: number) => void = () => undefined) =>
  makeStore().dispatch(sendTake.initiate({ id: TAKE, file, name: 'a.wav', wait, onProgress }));

/** A server that keeps what comes; the line to it breaks, or it has no room, when it is told to. */
function uploadServer() {
  const state = { came: new Uint8Array(0), breaksAfter: [] as number[], full: 0, refuses: false, pieces: 0 };
  const take = {
    id: TAKE,
    name: 'a.wav',
    sha256: 'a'.repeat(64),
    addedAt: '2026-11-29T10:00:00.000Z',
    revision: 1,
    notes: null,
    usedBy: [],
  };
  stubServer(async (request) => {
    const url = new URL(request.url);
    if (request.method === 'GET') return answer(200, { at: state.came.length });
    if (state.refuses)
      return answer(413, { type: 'x', title: 'No', status: 413, detail: 'The take is larger than 8 GB.' });
    if (state.full-- > 0) return answer(507, { type: 'x', title: 'No', status: 507, detail: 'The disk is full.' });
    const at = Number(url.searchParams.get('at'));
    if (at !== state.came.length)
      return answer(409, { type: 'x', title: 'No', status: 409, detail: 'Elsewhere', at: state.came.length });
    state.pieces++;
    const piece = new Uint8Array(await request.arrayBuffer());
    const breaks = state.breaksAfter.shift();
    state.came = Uint8Array.from([...state.came, ...piece.subarray(0, breaks)]);
    if (breaks !== undefined) throw new TypeError('the line broke');
    const whole = state.came.length === Number(url.searchParams.get('bytes'));
    return whole && url.pathname.includes('/takes/')
      ? answer(201, { ...take, bytes: state.came.length })
      : answer(202, { at: state.came.length });
  });
  return state;
}
let server: ReturnType<typeof uploadServer>;
beforeEach(() => {
  server = uploadServer();
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  });
});

describe('a file on its way to the server', () => {
  it('goes by pieces, and on from where a broken line has left it', async () => {
    server.breaksAfter = [1_000_000, 0, 300_000];
    const shares: number[] = [];
    const take = await send(new Blob([bytes]), (s) => shares.push(s)).unwrap();
    expect(take.bytes).toBe(bytes.length);
    expect(Buffer.from(server.came).equals(Buffer.from(bytes))).toBe(true);
    expect(shares.at(-1)).toBe(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    // Pieces are shorter after each break, and no byte that has arrived is sent again but those of a broken piece.
    expect(server.pieces).toBeGreaterThan(4);
  });
  it('waits while the disk is full, and is not given up at that', async () => {
    server.full = 3;
    expect((await send(new Blob([bytes.subarray(0, 1000)])).unwrap()).id).toBe(TAKE);
  });
  it('is refused at once where the server says no, and given up after long where nobody answers', async () => {
    server.refuses = true;
    expect(sayProblem((await send(new Blob([bytes]))).error)).toContain('larger than 8 GB');
    stubServer(async () => {
      throw new TypeError('no connection');
    });
    expect(isOffline((await send(new Blob([bytes]))).error)).toBe(true);
  });
  it('has the same id again until it has arrived, so that choosing it once more goes on', () => {
    const file = new File(['x'], 'a.wav', { lastModified: 5 });
    const id = uploadIdOf(file);
    expect(uploadIdOf(new File(['x'], 'a.wav', { lastModified: 5 }))).toBe(id);
    expect(uploadIdOf(new File(['x'], 'a.wav', { lastModified: 6 }))).not.toBe(id);
    forgetUpload(file);
    expect(uploadIdOf(file)).not.toBe(id);
  });
  it('is a backup as well as a take', async () => {
    server.breaksAfter = [10];
    const sent = makeStore().dispatch(sendBackup.initiate({ file: new Blob([bytes]), wait }));
    expect(await sent.unwrap()).toMatch(/^restores\/[0-9a-f-]{36}$/);
    expect(server.came.length).toBe(bytes.length);
  });
});
