// @vitest-environment happy-dom
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { TakeNotes } from '#api/index.ts';
import type { MenuClick } from '#core/audio/measure/index.ts';
import type { Region } from '#web/shared/workers/index.ts';
import { show } from '#web/web.testkit.tsx';
import { takes as say } from '#words/index.ts';
import { restingTake } from './bench.testkit.ts';
import { MenuRegion } from './MenuRegion.tsx';

const work = vi.hoisted(() => ({
  regions: [] as Region[],
  answer: null as null | ((c: MenuClick[]) => void),
  stopped: 0,
}));
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...(await original<typeof import('#web/shared/workers/index.ts')>()),
  framesBetween: () => ({ result: Promise.resolve([]), stop: () => undefined }),
  matchMenu: (_: unknown, region: Region) => {
    work.regions.push(region);
    const result = new Promise<MenuClick[]>((done) => {
      work.answer = done;
    });
    return { result, stop: () => void work.stopped++ };
  },
}));
beforeEach(() => void Object.assign(work, { regions: [], answer: null, stopped: 0 }));

async function opened() {
  const user = userEvent.setup();
  const changes: TakeNotes[] = [];
  show(<MenuRegion take={restingTake('a', { change: (n) => changes.push(n) })} atMs={1000} />);
  await user.click(screen.getByText(/Menu clicks instead of claps/));
  return { user, changes };
}

describe('a menu’s region', () => {
  it('is typed as well as drawn, and what is matched becomes the marks', async () => {
    const { user, changes } = await opened();
    const left = await screen.findByLabelText('Region, left, %');
    await user.clear(left);
    await user.type(left, '55{Enter}');
    await user.click(screen.getByRole('button', { name: say.matchClicks() }));
    expect(work.regions).toEqual([{ x: 0.55, y: 0.3, width: 0.4, height: 0.4 }]);
    const clicks = [1000, 2000, 3000, 4000, 5000].map((changeMs, i) => ({
      changeMs,
      clickMs: i === 2 ? null : changeMs + 90,
    }));
    await act(async () => work.answer!(clicks));
    expect(screen.getByRole('status').textContent).toMatch(/^4 of 5 changes have their click/);
    expect(changes[0]!.claps.map((m) => m.atMs)).toEqual([1090, 2090, 4090, 5090]);
  });
  it('says what to mark otherwise, and leaves the marks alone', async () => {
    const { user, changes } = await opened();
    for (const [clicks, says] of [
      [[{ changeMs: 1, clickMs: null }], /changes 1 times\. Mark what changes with each click/],
      [
        Array.from({ length: 9 }, (_, i) => ({ changeMs: 1000 * i, clickMs: null })),
        /times, but the sound doesn’t match\. Choose/,
      ],
    ] as const) {
      await user.click(await screen.findByRole('button', { name: say.matchClicks() }));
      await act(async () => work.answer!([...clicks]));
      expect(screen.getByRole('status').textContent).toMatch(says);
    }
    await user.click(screen.getByRole('button', { name: say.matchClicks() }));
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    expect(work.stopped).toBe(1);
    expect(changes).toEqual([]);
  });
});
