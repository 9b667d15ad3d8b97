// @vitest-environment happy-dom
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { slateReading } from '#core/desk-tests/slates/slate.testkit.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { makeStore } from '#web/shared/store/index.ts';
import { look } from '#web/shared/take/look.testkit.ts';
import type { Job, Progress, TakeLook } from '#web/shared/workers/index.ts';
import { type Heap, useHeap } from './useHeap.ts';

/** Looks that are answered by hand, one after another. */
const desk = vi.hoisted(() => ({
  jobs: [] as {
    stopped: boolean;
    progress: (p: Progress) => void;
    done: (l: TakeLook) => void;
    fail: (e: Error) => void;
  }[],
}));
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...(await original<typeof import('#web/shared/workers/index.ts')>()),
  lookAtTake: (_: unknown, __: boolean, progress: (p: Progress) => void): Job<TakeLook> => {
    const job = {
      stopped: false,
      progress,
      done: (_: TakeLook) => undefined,
      fail: (_: Error) => undefined,
    };
    const result = new Promise<TakeLook>((done, fail) => Object.assign(job, { done, fail }));
    desk.jobs.push(job);
    return {
      result,
      stop: () => {
        job.stopped = true;
      },
    };
  },
}));

const file = (name: string) => new File(['x'], name, { type: 'video/mp4' });
let sent: string[];
beforeEach(() => {
  desk.jobs.length = 0;
  sent = [];
  stubServer(async (request) => {
    if (request.method !== 'GET') sent.push(request.url);
    return answer(200, []);
  });
});
const heapHook = () => {
  const store = makeStore();
  const wrapper = ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>;
  return renderHook(() => useHeap(), { wrapper });
};

const states = (hook: { current: Heap }) => hook.current.items.map((i) => hook.current.taskOf(i.id)?.state);

describe('a heap of takes', () => {
  it('is looked at one after another, and sent to the server as each is read', async () => {
    const { result } = heapHook();
    act(() => result.current.addFiles([file('a.mp4'), file('b.mp4')]));
    expect(states(result)).toEqual(['running', 'waiting']);
    expect(desk.jobs).toHaveLength(1);
    act(() => desk.jobs[0]!.progress({ what: 'picture', done: 0.4 }));
    expect(result.current.taskOf(result.current.items[0]!.id)!.done).toBe(0.4);
    act(() => desk.jobs[0]!.done(look()));
    await waitFor(() => expect(states(result)).toEqual([undefined, 'running']));
    expect(result.current.items[0]!.read).toMatchObject({ by: 'claps', offsetMs: 65 });
    act(() => desk.jobs[1]!.fail(new Error('It is neither sound nor video.')));
    await waitFor(() =>
      expect(result.current.taskOf(result.current.items[1]!.id)).toMatchObject({
        state: 'failed',
        error: { message: 'It is neither sound nor video.' },
      }),
    );
  });
  it('says of each that tells nothing why', async () => {
    const { result } = heapHook();
    const plain = look();
    const quiet = {
      ...plain,
      sound: { ...plain.sound!, claps: [], chirps: [] },
      picture: { ...plain.picture!, flashes: [] },
    };
    const chirps = [{ atMs: 1000, kind: 0 as const, likeness: 1 }];
    const slate = slateReading({ id: 0, fromMs: 0, toMs: 5000, zeroMs: 0, offsetMs: null });
    const looks: [TakeLook, RegExp][] = [
      [{ ...quiet, picture: null }, /No video, so there’s nothing to compare the/],
      [{ ...quiet, sound: null }, /No audio, so there’s nothing to compare the/],
      [{ ...quiet, sound: { ...quiet.sound, chirps } }, /The sync slate is heard but not seen\./],
      [{ ...quiet, picture: { ...quiet.picture, slates: [slate] } }, /The sync slate is seen but not heard\./],
      [quiet, /No sync slate and no clap with its flash was/],
    ];
    act(() => result.current.addKept(looks.map((_, n) => ({ id: `k${n}`, name: `k${n}.mp4` }))));
    for (const [n, [seen, says]] of looks.entries()) {
      await waitFor(() => expect(desk.jobs).toHaveLength(n + 1));
      act(() => desk.jobs[n]!.done(seen));
      await waitFor(() => expect(result.current.items[n]!.says).not.toBeNull());
      expect(result.current.items[n]!.says).toMatch(says);
    }
    // What the server keeps already is not sent again.
    expect(sent).toEqual([]);
  });
  it('takes nothing twice, and stops what is taken off while it is looked at', async () => {
    const { result, unmount } = heapHook();
    act(() => result.current.addKept([{ id: 'k', name: 'k.mp4' }]));
    act(() => result.current.addKept([{ id: 'k', name: 'k.mp4' }]));
    expect(result.current.items).toHaveLength(1);
    act(() => result.current.remove('k'));
    expect(desk.jobs[0]!.stopped).toBe(true);
    expect(result.current.items).toEqual([]);
    act(() => result.current.addFiles([file('c.mp4')]));
    await waitFor(() => expect(desk.jobs).toHaveLength(2));
    unmount();
    expect(desk.jobs[1]!.stopped).toBe(true);
  });
});
