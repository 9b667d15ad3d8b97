// @vitest-environment happy-dom
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { SLATE_RATES } from '#core/desk-tests/slates/index.ts';
import type { MadeFile, Progress, SlateFilm } from '#web/shared/workers/index.ts';
import { show } from '#web/web.testkit.tsx';
import { slate as say, work as working } from '#words/index.ts';
import { SlateFiles } from './SlateFiles.tsx';

const work = vi.hoisted(() => ({
  asked: [] as { what: string; film: SlateFilm; progress: (p: Progress) => void }[],
  answer: null as null | { done: (m: MadeFile) => void; fail: (e: Error) => void },
  stopped: 0,
}));
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...(await original<typeof import('#web/shared/workers/index.ts')>()),
  makeSlate: (what: string, film: SlateFilm, progress: (p: Progress) => void) => {
    work.asked.push({ what, film, progress });
    const result = new Promise<MadeFile>((done, fail) => {
      work.answer = { done, fail };
    });
    return { result, stop: () => void work.stopped++ };
  },
}));
const slate = { rate: SLATE_RATES[3]!, id: 6 };
beforeEach(() => {
  Object.assign(work, { asked: [], answer: null, stopped: 0 });
  URL.createObjectURL = () => 'blob:made';
  URL.revokeObjectURL = () => undefined;
});

describe('a slate as a file', () => {
  it('is made in the size and length that were chosen, with its name in it', async () => {
    const user = userEvent.setup();
    show(<SlateFiles slate={slate} />);
    await user.selectOptions(screen.getByLabelText(say.videoSize()), '1920 × 1080');
    await user.selectOptions(screen.getByLabelText(say.videoLength()), '1 min');
    await user.click(screen.getByRole('button', { name: 'Video' }));
    expect(work.asked[0]).toMatchObject({ what: 'film', film: { slate, width: 1920, height: 1080 } });
    // Whole loops only: the film may be played over and over.
    expect(work.asked[0]!.film.seconds).toBeCloseTo(4 * 16.016, 6);
    act(() => work.asked[0]!.progress({ what: 'writing', done: 0.25 }));
    expect(screen.getByRole('progressbar', { name: working.stages.writing() }).getAttribute('aria-valuenow')).toBe(
      '0.25',
    );
    await act(async () => work.answer!.done({ blob: new Blob(['x'.repeat(1000)]), ending: 'webm' }));
    expect(screen.getByRole('status').textContent).toMatch(/sync slate/);
  });
  it('may be its sound alone; can be stopped; says what went wrong', async () => {
    const user = userEvent.setup();
    show(<SlateFiles slate={slate} />);
    await user.click(screen.getByRole('button', { name: /Audio only, WAV/ }));
    expect(work.asked[0]!.what).toBe('sound');
    await user.click(screen.getByRole('button', { name: 'Stop' }));
    expect(work.stopped).toBe(1);
    await user.click(screen.getByRole('button', { name: 'Video' }));
    await act(async () => work.answer!.fail(new Error('This browser writes no video.')));
    expect(screen.getByText('This browser writes no video.').className).toBe('fix');
    expect(screen.getByRole('button', { name: 'Video' })).toBeTruthy();
  });
});
