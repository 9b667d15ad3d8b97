// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { reconcilePicture } from '#core/desk-tests/reconcile/index.ts';
import { applyEdit } from '#core/model/rig/index.ts';
import { selectRig } from '#web/shared/store/index.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { measurements as say } from '#words/index.ts';
import { MeasurementsScreen } from './index.ts';

const TAKE = '7a4e0000-0000-4000-8000-000000000001';

/** The demo rig with a clap taken in, and besides it what `more` says. */
function measuredRig(...more: ReturnType<typeof demoRig>['measurements']) {
  const rig = demoRig();
  const read = reconcilePicture(rig, {
    id: 'clap',
    label: 'couch clap',
    takeId: TAKE,
    takenAt: '2026-11-02T10:00:00Z',
    sourceId: 'couch',
    listenerId: 'stream',
    madeWith: 'desk',
    offsetMs: 64,
    sdMs: 2,
    count: 4,
  });
  if (!read.ok) throw new Error(textOf(read.reason));
  const done = applyEdit(rig, read.edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return { ...done.rig, measurements: [...done.rig.measurements, ...more] };
}
const open = (rig = measuredRig()) =>
  show(
    <Routes>
      <Route path="/rigs/:rigId/measured" element={<MeasurementsScreen />} />
    </Routes>,
    { rig, at: `/rigs/${RIG_ID}/measured` },
  );

describe('measured figures', () => {
  it('are told to be none, with where they come from', () => {
    open(demoRig());
    expect(screen.getByText(/Nothing measured yet/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'tap test' }).getAttribute('href')).toBe(`/rigs/${RIG_ID}/tap`);
  });
  it('stand with their spread beside what is typical, and lead to their take', () => {
    open();
    const row = screen.getByRole('row', { name: /^“Couch voices” at “Stream”:/ });
    expect(row.textContent).toMatch(/delay [+−][\d.]+ ms, ±4\.00 \(4 readings\)/);
    expect(row.textContent).toMatch(/−?[\d.]+ to [\d.]+ ms/);
    expect(within(row).getByRole('link', { name: 'couch clap' }).getAttribute('href')).toBe(
      `/rigs/${RIG_ID}/bench?takes=${TAKE}`,
    );
  });
  it('tell what rests on them, and are dropped by one step that can be undone', async () => {
    const user = userEvent.setup();
    const { store } = open();
    const rests = screen.getByRole('button', { name: /What depends on/ });
    await user.click(rests);
    expect(rests.getAttribute('aria-expanded')).toBe('true');
    const list = screen.getByRole('list', { name: say.whatDependsOnIt() });
    expect(list.textContent).toMatch(
      /“Couch voices” at “Stream”: audio vs\. video 64\.0 ms \(60\.0 to 68\.0\), without it [−\d.]+ ms \([−\d.]+ to [\d.]+\)/,
    );
    await user.click(screen.getByRole('button', { name: /^Remove “Couch voices/ }));
    expect(selectRig(store.getState())!.measurements).toEqual([]);
    expect(screen.getByText(/Nothing measured yet/)).toBeTruthy();
  });
  it('say where nothing follows from them, and what lies outside of what is typical', () => {
    const base = { label: 'tap', takenAt: '2026-11-03T10:00:00Z', sourceId: 'wren', listenerId: 'stream' } as const;
    open(
      measuredRig(
        { ...base, kind: 'band', id: 'b', deviceIds: ['camera'], lowHz: 'beyond', highHz: [3000, 3400, 3900] },
        { ...base, kind: 'level', id: 'l', db: { mean: 15, sd: 0.5, count: 1 }, means: 'wren' },
        {
          ...base,
          kind: 'offset',
          id: 'o',
          settings: [],
          ms: { mean: 1, sd: 1, count: 1 },
          leftOut: false,
        },
      ),
    );
    expect(screen.getByText(/^3 figures come from takes/).textContent).toContain(
      '2 outside the typical range of such gear. 1 of paths that no longer exist.',
    );
    const band = screen.getByRole('row', { name: /It goes through other devices now\./ });
    expect(band.textContent).toContain('up to 3400 Hz, 3000 to 3900');
    expect(screen.getByText(/^1 take of the/)).toBeTruthy();
  });
});
