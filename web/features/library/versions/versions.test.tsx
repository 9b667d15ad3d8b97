// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { selectRig, undoStep } from '#web/shared/store/index.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { RescueScreen, VersionsScreen } from './index.ts';
import { sayJudged, sayMoved } from './say.ts';

const judged = (toFix: number, blockers = 0) => ({ blockers, toFix, toWatch: 0, toDo: 0, measured: 0 });
const VERSIONS = [
  { revision: 1, savedAt: '2026-11-28T21:00:00.000Z', changes: [], judged: judged(20) },
  {
    revision: 3,
    savedAt: '2026-11-29T09:00:00.000Z',
    changes: ['Unplug the couch camera', 'Gain to 20 dB'],
    judged: judged(17),
  },
  { revision: 4, savedAt: '2026-11-29T09:05:00.000Z', changes: [], judged: null },
].reverse();

let earlier: Rig;
let brought: string[];
beforeEach(() => {
  brought = [];
  const rig = demoRig();
  const unplugged = applyEdit(rig, { kind: 'unplug', cableId: rig.cables[0]!.id });
  earlier = unplugged.ok ? unplugged.rig : rig;
  vi.stubGlobal('URL', Object.assign(URL, { createObjectURL: () => 'blob:x', revokeObjectURL: () => undefined }));
  stubServer(async (request) => {
    const { pathname } = new URL(request.url);
    if (pathname.endsWith('/versions')) return answer(200, VERSIONS);
    if (request.method === 'POST') brought.push(pathname);
    return answer(200, { id: RIG_ID, revision: 1, updatedAt: '2026-11-28T21:00:00.000Z', document: earlier });
  });
});
const openScreen = () =>
  show(
    <Routes>
      <Route path="/rigs/:rigId/versions" element={<VersionsScreen />} />
    </Routes>,
    { at: `/rigs/${RIG_ID}/versions` },
  );

describe('earlier versions', () => {
  it('are listed by day with what changed and how the verdict moved', async () => {
    openScreen();
    const row = await screen.findByRole('row', { name: /Unplug the couch camera; Gain to 20 dB/ });
    expect(row.textContent).toContain('17 to fix (3 fewer)');
    expect(screen.getByRole('row', { name: /First version kept/ }).textContent).toContain('20 to fix');
    expect(screen.getByRole('row', { name: /Changed outside this page/ }).textContent).toContain('not checked');
    expect(screen.getAllByText(/2026$/)).toHaveLength(2);
  });
  it('are looked at without leaving the present, and brought back as one step that undo takes back', async () => {
    const { store } = openScreen();
    const before = selectRig(store.getState());
    const user = userEvent.setup();
    const row = await screen.findByRole('row', { name: /Unplug the couch camera/ });
    await user.click(within(row).getByRole('button', { name: 'Look' }));
    const look = await screen.findByRole('region', { name: 'Version' });
    await waitFor(() => expect(look.textContent).toContain('Now, not in this version'));
    expect(selectRig(store.getState())).toBe(before);
    await user.click(within(look).getByRole('button', { name: 'Bring back this version' }));
    expect(selectRig(store.getState())!.cables).toHaveLength(earlier.cables.length);
    store.dispatch(undoStep());
    expect(selectRig(store.getState())).toEqual(before);
  });
  it('of a rig that cannot be opened are brought back by the server', async () => {
    show(
      <Routes>
        <Route path="/versions/:rigId" element={<RescueScreen />} />
        <Route path="*" element={<p>opened</p>} />
      </Routes>,
      { at: `/versions/${RIG_ID}` },
    );
    const user = userEvent.setup();
    const row = await screen.findByRole('row', { name: /First version kept/ });
    await user.click(within(row).getByRole('button', { name: 'Look' }));
    await user.click(await screen.findByRole('button', { name: 'Bring back this version' }));
    await screen.findByText('opened');
    expect(brought).toEqual([`/api/rigs/${RIG_ID}/versions/1/bring-back`]);
  });
  it('say their verdict in words', () => {
    expect(sayJudged(null)).toBe('not checked');
    expect(sayJudged({ ...judged(0), toWatch: 1 })).toBe('1 warning');
    expect([judged(3), judged(3, 1), judged(2, 2)].map(sayJudged)).toEqual([
      '3 to fix',
      '1 blocker, 2 to fix',
      '2 blockers',
    ]);
    expect(sayJudged(judged(0))).toBe('nothing to fix');
    expect(sayMoved(judged(2), judged(5))).toBe(' (3 more)');
    expect(sayMoved(null, judged(5))).toBe('');
    expect(sayMoved(judged(5), judged(5))).toBe('');
  });
});
