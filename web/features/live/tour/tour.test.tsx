// @vitest-environment happy-dom
import { act, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, noServer, stubServer } from '#web/server.testkit.ts';
import { applyStep, selectTour, tourBegun, tourMoved, undoStep } from '#web/shared/store/index.ts';
import { RIG_ID, show } from '#web/web.testkit.tsx';
import { TourLine, useStartTour } from './index.ts';
import { TOUR } from './steps.ts';

beforeEach(() => stubServer(noServer));

const line = () => within(screen.getByRole('region', { name: 'Tour' }));

function Start() {
  const { start, failed } = useStartTour();
  return (
    <button type="button" onClick={() => void start()}>
      start {failed}
    </button>
  );
}

describe('the line of the tour', () => {
  it('says that a step is done, and that it was once it is undone', async () => {
    const { store } = show(<TourLine rigId={RIG_ID} />, { at: `/rigs/${RIG_ID}/next` });
    act(() => void store.dispatch(tourBegun(RIG_ID)));
    expect(line().getByText('Tour, 1 of 7')).toBeTruthy();
    expect(line().getByRole('button', { name: /Skip/ })).toBeTruthy();
    const dismissal = { id: 'x', reason: 'y', at: '2026-11-01T00:00:00Z' };
    act(() => void store.dispatch(applyStep({ kind: 'dismiss', dismissal }, 'Ignored')));
    expect(line().getByRole('button', { name: /Continue/ })).toBeTruthy();
    act(() => void store.dispatch(undoStep()));
    // Done once is done: the way on stays open.
    expect(line().getByRole('button', { name: /Continue/ })).toBeTruthy();
  });

  it('leads back to where its step is done, goes on by key, and is left at any step', async () => {
    const user = userEvent.setup();
    const { store } = show(<TourLine rigId={RIG_ID} />, { at: `/rigs/${RIG_ID}/plan` });
    act(() => void store.dispatch(tourBegun(RIG_ID)));
    await user.click(line().getByRole('button', { name: 'Go to Next steps' }));
    expect(line().queryByRole('button', { name: /^Go to/ })).toBeNull();
    for (let at = 1; at < TOUR.length; at++) {
      await user.keyboard('{Shift>}C{/Shift}');
      expect(line().getByText(`Tour, ${at + 1} of 7`)).toBeTruthy();
    }
    await user.click(line().getByRole('button', { name: 'Back' }));
    expect(line().getByText('Tour, 6 of 7')).toBeTruthy();
    await user.click(line().getByRole('button', { name: 'Leave the tour' }));
    expect(screen.queryByRole('region', { name: 'Tour' })).toBeNull();
    expect(selectTour(store.getState())).toEqual({ rigId: RIG_ID, step: null, wasDone: false });
  });

  it('marks what is to be pressed, and hears that it was', async () => {
    const user = userEvent.setup();
    const { store } = show(
      <>
        <TourLine rigId={RIG_ID} />
        {/* biome-ignore lint/a11y/useSemanticElements: cells as the pages have them */}
        <div role="grid" tabIndex={0} />
      </>,
      { at: `/rigs/${RIG_ID}/route` },
    );
    act(() => void store.dispatch(tourBegun(RIG_ID)));
    act(() => void store.dispatch(tourMoved(TOUR.findIndex((step) => step.id === 'route'))));
    const grid = screen.getByRole('grid');
    expect(grid.hasAttribute('data-tour')).toBe(true);
    await user.click(grid);
    expect(line().getByText('Done.')).toBeTruthy();
    expect(grid.hasAttribute('data-tour')).toBe(false);
  });

  it('is on its own rig alone, and goes on after a reload', () => {
    const first = show(<TourLine rigId={RIG_ID} />, { at: `/rigs/${RIG_ID}/next` });
    act(() => void first.store.dispatch(tourBegun(RIG_ID)));
    act(() => void first.store.dispatch(tourMoved(3)));
    first.unmount();
    show(<TourLine rigId="another" />);
    expect(screen.queryByRole('region', { name: 'Tour' })).toBeNull();
    show(<TourLine rigId={RIG_ID} />);
    expect(line().getByText('Tour, 4 of 7')).toBeTruthy();
  });
});

describe('its start', () => {
  const record = { revision: 1, updatedAt: '2026-11-01T00:00:00Z' };

  it('makes a practice rig each time, and deletes the one before', async () => {
    const sent: string[] = [];
    const kept: { id: string; document: unknown }[] = [];
    stubServer(async (request) => {
      sent.push(`${request.method} ${new URL(request.url).pathname}`);
      if (request.method === 'POST') {
        kept.push(await request.json());
        return answer(201, { ...record, ...kept.at(-1) });
      }
      if (request.method === 'DELETE') return new Response(null, { status: 204 });
      const counts = { blockers: 0, toFix: 0, toWatch: 0, toDo: 0, measured: 0, state: 'pending' };
      return answer(
        200,
        kept.map(({ id }) => ({ id, name: 'x', ...record, ...counts })),
      );
    });
    const user = userEvent.setup();
    const { store } = show(<Start />);
    await user.click(screen.getByRole('button', { name: /start/ }));
    await expect.poll(() => selectTour(store.getState()).rigId).toBe(kept[0]!.id);
    expect(kept[0]!.document).toMatchObject({ name: 'Practice rig: Boathouse relay' });
    await user.click(screen.getByRole('button', { name: /start/ }));
    await expect.poll(() => selectTour(store.getState()).rigId).toBe(kept[1]?.id);
    expect(sent).toContain(`DELETE /api/rigs/${kept[0]!.id}`);
    expect(sent).not.toContain(`DELETE /api/rigs/${kept[1]!.id}`);
  });

  it('without a server says so, and begins nothing', async () => {
    const { store } = show(<Start />);
    await userEvent.click(screen.getByRole('button', { name: /start/ }));
    expect(await screen.findByText(/server isn’t responding/)).toBeTruthy();
    expect(selectTour(store.getState()).step).toBeNull();
  });
});
