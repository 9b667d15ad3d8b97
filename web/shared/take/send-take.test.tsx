// @vitest-environment happy-dom
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { answer, noServer, stubServer } from '#web/server.testkit.ts';
import { queue } from '#web/shared/jobs/index.ts';
import { makeStore } from '#web/shared/store/index.ts';
import { take as say } from '#words/index.ts';
import { useSendTake } from './index.ts';

const TAKE = '22222222-2222-4222-8222-222222222222';
const KEPT = {
  id: TAKE,
  name: 'a.wav',
  bytes: 1,
  sha256: 'a'.repeat(64),
  addedAt: '2026-11-29T10:00:00.000Z',
  revision: 1,
  notes: null,
  usedBy: [],
};
const sender = () => {
  const store = makeStore();
  const wrapper = ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>;
  return renderHook(() => useSendTake(), { wrapper });
};
const file = new File(['x'], 'a.wav');

describe('a take on its way', () => {
  beforeEach(() => void vi.useFakeTimers({ shouldAdvanceTime: true }));
  afterEach(() => {
    for (const t of queue.tasks()) queue.drop(t.id);
    vi.useRealTimers();
  });
  it('goes on when its page is left', async () => {
    let arrive: (response: Response) => void = () => undefined;
    stubServer(() => new Promise((resolve) => (arrive = resolve)));
    const { result, unmount } = sender();
    const sent = result.current(TAKE, file);
    await waitFor(() => expect(queue.tasks()[0]).toMatchObject({ name: 'a.wav', state: 'running', what: 'sending' }));
    unmount();
    await act(async () => arrive(answer(201, KEPT)));
    expect((await sent)!.id).toBe(TAKE);
    expect(queue.tasks()).toEqual([]);
  });
  it('says what to do where nobody answers, and goes on from there when it is started again', async () => {
    stubServer(noServer);
    const { result } = sender();
    const sent = result.current(TAKE, file);
    // A dozen tries, a quarter of a minute apart at most.
    for (let tries = 0; tries < 15; tries++) await vi.advanceTimersByTimeAsync(15_000);
    expect(queue.tasks()[0]!.state).toBe('failed');
    expect(queue.tasks()[0]!.error).toMatchObject({ message: say.uploadInterrupted() });
    stubServer(async () => answer(201, KEPT));
    act(() => queue.again(queue.tasks()[0]!.id));
    expect((await sent)!.id).toBe(TAKE);
  });
  it('says why it was refused', async () => {
    stubServer(async () =>
      answer(413, { type: 'x', title: 'No', status: 413, detail: 'The take is larger than 8 GB.' }),
    );
    void sender().result.current(TAKE, file);
    await waitFor(() => expect(queue.tasks()[0]).toMatchObject({ state: 'failed' }));
    expect(queue.tasks()[0]!.error).toMatchObject({ message: 'The take is larger than 8 GB.' });
  });
});
