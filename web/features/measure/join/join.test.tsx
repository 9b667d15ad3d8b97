// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { answer, stubServer } from '#web/server.testkit.ts';
import type { JoinedTakes } from '#web/shared/workers/index.ts';
import { show } from '#web/web.testkit.tsx';
import { work as again, join as say } from '#words/index.ts';
import { JoinScreen } from './index.ts';

const work = vi.hoisted(() => ({ answers: [] as (() => Promise<unknown>)[], asked: 0, stopped: 0 }));
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...(await original<typeof import('#web/shared/workers/index.ts')>()),
  joinAll: () => {
    const next = work.answers[Math.min(work.asked++, work.answers.length - 1)]!;
    return { result: next(), stop: () => void work.stopped++ };
  },
}));

const NAMES = ['camera.mp4', 'first.wav', 'second.wav', 'elsewhere.wav'];
const ids = NAMES.map((_, n) => `7a4e0000-0000-4000-8000-00000000010${n}`);
const peaks = {
  framesPerBin: 480,
  sampleRateHz: 48_000,
  low: new Float32Array(60).fill(-0.1),
  high: new Float32Array(60).fill(0.1),
};
const joined = (contradictsMs = 0): JoinedTakes => ({
  facts: NAMES.map(() => ({ durationMs: 44_000, sampleRateHz: 48_000, peaks })),
  groups: [
    {
      contradictsMs,
      takes: [
        { index: 0, startMs: 0, longerPpm: 0, against: null, confidence: 1 },
        { index: 1, startMs: 805.02, longerPpm: 42.1, against: 0, confidence: 0.98 },
        { index: 2, startMs: 2355, longerPpm: null, against: 1, confidence: 1 },
      ],
    },
    { contradictsMs: 0, takes: [{ index: 3, startMs: 0, longerPpm: 0, against: null, confidence: 1 }] },
  ],
});
beforeEach(() => {
  Object.assign(work, { answers: [async () => joined()], asked: 0, stopped: 0 });
  const record = (id: string, n: number) => ({
    id,
    name: NAMES[n],
    bytes: 10,
    sha256: 'x',
    addedAt: '2026-11-25T10:00:00.000Z',
    revision: 1,
    notes: null,
    usedBy: [],
  });
  stubServer(async () => answer(200, ids.map(record)));
});
const open = () => show(<JoinScreen />, { at: `/bench/join?takes=${ids.join(',')}` });

describe('joined takes', () => {
  it('stand on one timeline with where each begins, and say which hold nothing in common', async () => {
    open();
    const table = await screen.findByTestId('joined');
    const rows = within(table).getAllByRole('row').slice(1);
    expect(rows.map((r) => r.textContent)).toEqual([
      expect.stringMatching(/^camera\.mp40\.0000:44reference/),
      expect.stringMatching(/^first\.wav805\.0200:44\+42\.1camera\.mp4, 98%/),
      expect.stringMatching(/^second\.wav2355\.0000:44too short to sayfirst\.wav, 100%/),
    ]);
    expect(screen.getByRole('img', { name: 'Timeline of 3 takes' })).toBeTruthy();
    expect(screen.getByText(/elsewhere\.wav: nothing in common/)).toBeTruthy();
    expect(within(rows[1]!).getByRole('link', { name: say.compareClosely() }).getAttribute('href')).toBe(
      `/bench?takes=${ids[0]},${ids[1]}`,
    );
    expect(screen.queryByText(/ms: one take may have a dropout\. Compare them/)).toBeNull();
  });
  it('say where two ways round contradict each other', async () => {
    work.answers = [async () => joined(21.3)];
    open();
    expect((await screen.findByText(/Two chains of matches disagree by 21\.3 ms/)).className).toBe('watch');
  });
  it('can be joined again when it failed, and stopped while it lasts', async () => {
    const user = userEvent.setup();
    work.answers = [
      async () => Promise.reject(new Error('One of these takes has no sound.')),
      () => new Promise(() => undefined),
    ];
    open();
    await user.click(await screen.findByRole('button', { name: again.startAgain() }));
    expect(screen.getByRole('progressbar')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    expect(work.stopped).toBeGreaterThan(0);
    expect(screen.getByText(/Stopped\. Nothing changed\./)).toBeTruthy();
  });
});
