// @vitest-environment happy-dom
import { act, fireEvent, renderHook, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Job, Progress } from '#web/shared/workers/index.ts';
import { show } from '#web/web.testkit.tsx';
import { common, work as say } from '#words/index.ts';
import { aTask } from './jobs.testkit.ts';
import { type Asked, makeQueue, queue } from './queue.ts';
import { useJob } from './useJob.ts';
import { useWork, useWorkList } from './useWork.ts';
import { WorkBar } from './WorkBar.tsx';
import { WorkLine } from './WorkLine.tsx';

/** A job that is answered by hand. */
function byHand<T>() {
  const jobs: { heard: (p: Progress) => void; done: (r: T) => void; fail: (e: unknown) => void; stopped: boolean }[] =
    [];
  const start = (heard: (p: Progress) => void): Job<T> => {
    const job = { heard, stopped: false } as (typeof jobs)[number];
    const result = new Promise<T>((done, fail) => Object.assign(job, { done, fail }));
    jobs.push(job);
    return { result, stop: () => Object.assign(job, { stopped: true }) };
  };
  return { jobs, start };
}
const settled = () => act(async () => undefined);

describe('the queue', () => {
  const states = (q: ReturnType<typeof makeQueue>) => q.tasks().map((t) => `${t.name} ${t.state}`);
  it('works on so many of a lane at once, the others in their order; lanes do not wait for each other', async () => {
    const q = makeQueue({ core: 2, batch: 1, network: 1 });
    const { jobs, start } = byHand<string>();
    const results = ['a', 'b', 'c'].map((name) => q.add({ name, start }).result);
    q.add({ name: 'up', lane: 'network', start });
    expect(states(q)).toEqual(['a running', 'b running', 'c waiting', 'up running']);
    jobs[1]!.done('B');
    expect(await results[1]).toBe('B');
    expect(states(q)).toEqual(['a running', 'c running', 'up running']);
  });
  it('tells how far a job is, and how long its stage still takes', () => {
    vi.useFakeTimers();
    const q = makeQueue({ core: 1, batch: 1, network: 1 });
    const { jobs, start } = byHand();
    q.add({ name: 'a', start });
    const at = (what: Progress['what'], done: number, afterMs: number) => {
      vi.advanceTimersByTime(afterMs);
      jobs[0]!.heard({ what, done });
      return q.tasks()[0]!.leftS;
    };
    expect(at('decoding', 0.01, 500)).toBeNull();
    expect(at('decoding', 0.5, 4500)).toBeCloseTo(4.5, 0);
    // Another stage has a pace of its own.
    expect(at('claps', 0.1, 100)).toBeNull();
    expect(at('claps', 0.5, 2000)).toBeCloseTo(2, 1);
    vi.useRealTimers();
  });
  it('keeps what failed or was stopped until it is started again or dropped, and lets the next one begin', async () => {
    const q = makeQueue({ core: 1, batch: 1, network: 1 });
    const { jobs, start } = byHand<string>();
    const first = q.add({ name: 'a', start });
    const second = q.add({ name: 'b', start });
    jobs[0]!.fail(new Error('It broke.'));
    await settled();
    expect(states(q)).toEqual(['a failed', 'b running']);
    expect(q.tasks()[0]!.error).toMatchObject({ message: 'It broke.' });
    q.stop(second.id);
    expect(jobs[1]!.stopped).toBe(true);
    expect(states(q)).toEqual(['a failed', 'b stopped']);
    q.again(first.id);
    q.again(second.id);
    expect(states(q)).toEqual(['a running', 'b waiting']);
    // What a stopped job says later is not heard.
    jobs[1]!.done('late');
    jobs[1]!.heard({ what: 'claps', done: 0.9 });
    await settled();
    expect(states(q)).toEqual(['a running', 'b waiting']);
    jobs[2]!.done('A');
    expect(await first.result).toBe('A');
    q.drop(second.id);
    expect(await second.result).toBeNull();
    expect(q.tasks()).toEqual([]);
  });
  it('takes a job that cannot even begin for one that failed', async () => {
    const q = makeQueue({ core: 1, batch: 1, network: 1 });
    const start: Asked<never>['start'] = () => {
      throw new Error('No worker here.');
    };
    q.add({ name: 'a', start });
    await settled();
    expect(q.tasks()[0]).toMatchObject({ state: 'failed', error: { message: 'No worker here.' } });
  });
  it('never runs more than it may, whatever is asked of it in whatever order', async () => {
    const most = { core: 2, batch: 1, network: 1 } as const;
    for (let seed = 1; seed <= 40; seed++) {
      let state = seed;
      const random = (n: number) => {
        state = (state * 48271) % 2147483647;
        return state % n;
      };
      const q = makeQueue(most);
      const { jobs, start } = byHand<number>();
      const lanes = new Map<string, keyof typeof most>();
      for (let turn = 0; turn < 60; turn++) {
        const ids = q.tasks().map((t) => t.id);
        const id = ids[random(Math.max(1, ids.length))];
        const job = jobs[random(Math.max(1, jobs.length))];
        const act = random(6);
        if (act < 2 || !id) {
          const lane = (['core', 'batch', 'network'] as const)[random(3)]!;
          lanes.set(q.add({ name: `${turn}`, lane, start }).id, lane);
        } else if (act === 2) q.stop(id);
        else if (act === 3) q.again(id);
        else if (act === 4) q.drop(id);
        else if (random(2)) job!.done(1);
        else job!.fail(new Error('no'));
        await Promise.resolve();
        await Promise.resolve();
        for (const lane of ['core', 'batch', 'network'] as const) {
          const mine = q.tasks().filter((t) => lanes.get(t.id) === lane);
          const running = mine.filter((t) => t.state === 'running').length;
          expect(running).toBeLessThanOrEqual(most[lane]);
          // Nobody waits while there is room.
          if (mine.some((t) => t.state === 'waiting')) expect(running).toBe(most[lane]);
        }
      }
    }
  });
});

describe('the work of a page', () => {
  it('is one job at a time, and ends with the page', async () => {
    const { jobs, start } = byHand<string>();
    const { result, unmount } = renderHook(() => useWork());
    const first: Promise<string | null>[] = [];
    act(() => void first.push(result.current.run({ name: 'a', start })));
    expect(result.current.task).toMatchObject({ name: 'a', state: 'running' });
    act(() => void result.current.run({ name: 'b', start }));
    expect(await first[0]).toBeNull();
    expect(jobs[0]!.stopped).toBe(true);
    expect(result.current.task!.name).toBe('b');
    unmount();
    expect(jobs[1]!.stopped).toBe(true);
    expect(queue.tasks()).toEqual([]);
  });
  it('goes on in the background where it was asked to', () => {
    const { jobs, start } = byHand();
    const { result, unmount } = renderHook(() => useWorkList());
    act(() => void result.current.run({ id: 'up', name: 'a', background: true, start }));
    unmount();
    expect(jobs[0]!.stopped).toBe(false);
    expect(queue.tasks()).toHaveLength(1);
    queue.drop('up');
  });
  it('is done once for each thing', async () => {
    const { jobs, start } = byHand<string>();
    const known = new WeakMap<object, string>();
    const [one, other] = [{}, {}];
    const begin = (_: object, heard: (p: Progress) => void) => start(heard);
    const { result, rerender } = renderHook(({ key }) => useJob(key, known, 'a', begin), {
      initialProps: { key: one },
    });
    expect(result.current.work.task!.state).toBe('running');
    await act(async () => jobs[0]!.done('one'));
    expect(result.current.result).toBe('one');
    rerender({ key: other });
    expect(result.current.result).toBeUndefined();
    rerender({ key: one });
    expect(result.current.result).toBe('one');
    expect(jobs[1]!.stopped).toBe(true);
    expect(jobs).toHaveLength(2);
  });
});

describe('what is said of a job', () => {
  it('is how far it is, how long it takes, and how to stop it', () => {
    const onStop = vi.fn();
    const page = show(<WorkLine task={aTask({ done: 0.42, leftS: 11.2 })} onStop={onStop} />);
    expect(screen.getByRole('status').textContent).toBe('Measuring: 42%, 12 s left');
    fireEvent.click(screen.getByRole('button', { name: common.stop() }));
    expect(onStop).toHaveBeenCalled();
    page.unmount();
    show(<WorkLine task={aTask({ state: 'waiting' })} name="b.wav" onStop={onStop} />);
    expect(screen.getByRole('status').textContent).toBe('b.wav: Waiting for its turn');
  });
  it('is why it ended, and how to start it again', () => {
    const onAgain = vi.fn();
    const page = show(
      <WorkLine task={aTask({ state: 'failed', error: new Error('Gone.') })} onStop={vi.fn()} onAgain={onAgain} />,
    );
    expect(screen.getByRole('alert').textContent).toContain('Gone.');
    fireEvent.click(screen.getByRole('button', { name: say.startAgain() }));
    expect(onAgain).toHaveBeenCalled();
    page.unmount();
    show(<WorkLine task={aTask({ state: 'stopped' })} onStop={vi.fn()} />);
    expect(screen.getByRole('alert').textContent).toContain(say.stopped());
  });
  it('is nothing at rest', () => {
    expect(show(<WorkLine task={null} onStop={vi.fn()} />).container.textContent).toBe('');
  });
});

describe('what goes on in the background', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => {
    vi.useRealTimers();
    for (const t of queue.tasks()) queue.drop(t.id);
  });
  it('is shown on every page once it takes a while; what failed at once, and until it is dealt with', async () => {
    const { jobs, start } = byHand();
    show(<WorkBar />);
    act(() => void queue.add({ name: 'a.mp4', lane: 'network', background: true, start }));
    act(() => void queue.add({ name: 'seen on its page', start }));
    expect(screen.queryByRole('region', { name: say.title() })).toBeNull();
    act(() => void vi.advanceTimersByTime(2000));
    expect(screen.getByRole('region', { name: say.title() }).textContent).toMatch(/^a\.mp4: /);
    await act(async () => jobs[0]!.fail(new Error('The disk is full.')));
    expect(screen.getByRole('alert').textContent).toContain('a.mp4: The disk is full.');
    fireEvent.click(screen.getByRole('button', { name: say.startAgain() }));
    await act(async () => jobs[2]!.done('kept'));
    expect(screen.queryByRole('region', { name: say.title() })).toBeNull();
  });
});
