// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import { parseRig } from '#core/model/rig/index.ts';
import { OWN, optionsFor } from '#core/routing/plan/index.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { alternatives as say } from '#words/index.ts';
import { AlternativesScreen } from './index.ts';

const rig = demoRig();
const options = optionsFor(rig);
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...((await original()) as object),
  drawWays: () => ({ result: Promise.resolve(options), stop: () => undefined }),
}));

const open = () => {
  const made: { id: string; document: unknown }[] = [];
  stubServer(async (request) => {
    const body = (await request.json()) as (typeof made)[number];
    made.push(body);
    return answer(201, { id: body.id, revision: 1, updatedAt: '2026-11-26T10:00:00.000Z', document: body.document });
  });
  show(
    <Routes>
      <Route path="/rigs/:rigId/ways" element={<AlternativesScreen />} />
      <Route path="/rigs/:rigId/wire" element={<p>wired</p>} />
    </Routes>,
    { rig, at: `/rigs/${RIG_ID}/ways` },
  );
  return made;
};
const rows = () => within(screen.getByRole('table')).getAllByRole('row').slice(1);

describe('ways to build it', () => {
  it('stand in the order of one’s own weights, and only the unbeaten ones where one wants', async () => {
    const user = userEvent.setup();
    open();
    await waitFor(() => expect(rows()).toHaveLength(options.length));
    for (const slider of await screen.findAllByRole('slider')) {
      slider.focus();
      await user.keyboard('{Home}');
    }
    screen.getByRole('slider', { name: /^Weight of Cables/ }).focus();
    await user.keyboard('{End}');
    const [own, ...others] = options;
    const fewest = others.sort((a, b) => a.figures.leads - b.figures.leads)[0]!;
    // One's own desk stands first, whatever counts.
    expect(rows()[0]!.textContent).toContain(own!.kind.name);
    expect(rows()[1]!.textContent).toContain(fewest.kind.name);
    await user.click(screen.getByRole('button', { name: say.onlyBestTradeOffs() }));
    expect(rows()).toHaveLength(options.filter((o) => o.unbeaten || o.kind.id === OWN).length);
    await user.click(screen.getByRole('button', { name: say.resetWeights() }));
    expect(screen.getByRole('slider', { name: /^Weight of Cables/ }).getAttribute('aria-valuenow')).toBe('1');
  });
  it('say what each cannot, and become a rig', async () => {
    const user = userEvent.setup();
    const made = open();
    await waitFor(() => expect(rows()).toHaveLength(options.length));
    await user.click(screen.getByRole('button', { name: 'Digital mixer that is its own interface' }));
    const card = screen.getByLabelText(say.selectedAlternative());
    expect(card.textContent).toContain(say.meetsWholePlan());
    expect(card.textContent).toContain('Two schools:');
    await user.click(screen.getByRole('button', { name: 'Your rig as it is' }));
    expect(screen.queryByRole('button', { name: /Create this rig/ })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Digital mixer that is its own interface' }));
    await user.click(screen.getByRole('button', { name: /Create this rig/ }));
    expect(await screen.findByText('wired')).toBeTruthy();
    expect(parseRig(made[0]!.document).name).toBe('Boathouse relay: Digital mixer that is its own interface');
  });
});
