// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { variants as say } from '#words/index.ts';
import { VariantsScreen } from './index.ts';
import { nextVariant } from './VariantsScreen.tsx';

const OTHER = '22222222-2222-4222-8222-222222222222';
const AT = '2026-11-25T10:00:00.000Z';

/** A server that keeps one other rig, and takes new ones. */
function keeps(other: { name: string; document: unknown }) {
  const kept = new Map([[OTHER, other]]);
  const made: Rig[] = [];
  stubServer(async (request) => {
    const { pathname } = new URL(request.url);
    const record = (id: string, document: unknown) => ({ id, revision: 1, updatedAt: AT, document });
    if (request.method === 'POST') {
      const { id, document } = await request.json();
      made.push(parseRig(document));
      kept.set(id, { name: document.name, document });
      return answer(201, record(id, document));
    }
    if (pathname === '/api/rigs')
      return answer(
        200,
        [...kept].map(([id, { name }]) => ({
          id,
          name,
          revision: 1,
          updatedAt: AT,
          blockers: 0,
          toFix: 0,
          state: 'judged',
          toWatch: 0,
          toDo: 0,
          measured: 0,
        })),
      );
    const id = pathname.split('/').at(-1)!;
    return kept.has(id) ? answer(200, record(id, kept.get(id)!.document)) : answer(404, {});
  });
  return made;
}

describe('side by side', () => {
  it('lays the variant of this rig beside it, with what each has alone', async () => {
    const rig = demoRig();
    const document = {
      ...rig,
      name: 'Boathouse relay, variant B',
      cables: rig.cables.filter((c) => c.id !== 'phone-line'),
    };
    keeps({ name: document.name, document });
    show(<VariantsScreen />);
    const figures = await screen.findByRole('table', { name: 'In figures' });
    expect(within(figures).getByRole('row', { name: /^Cables 17 16 Boathouse relay, variant B$/ })).toBeTruthy();
    expect(
      within(screen.getByRole('region', { name: say.cablesAndPaths() })).getByText(/^Ambrose’s phone/),
    ).toBeTruthy();
    expect(within(screen.getByRole('region', { name: 'Settings' })).getByText('No difference.')).toBeTruthy();
  });
  it('makes a variant under the next free letter, by key, and shows it', async () => {
    const made = keeps({ name: 'Quay talk', document: { ...demoRig(), name: 'Quay talk' } });
    show(<VariantsScreen />);
    expect(await screen.findByText(/A variant is a copy of this rig\. Change it/)).toBeTruthy();
    await userEvent.keyboard('v');
    expect(await screen.findByRole('button', { name: 'Open “Boathouse relay, variant B”' })).toBeTruthy();
    expect(made).toEqual([{ ...demoRig(), name: 'Boathouse relay, variant B' }]);
  });
  it('says why another rig cannot be read, and loses nothing', async () => {
    keeps({ name: 'Boathouse relay, variant C', document: { schemaVersion: 99 } });
    show(<VariantsScreen />);
    expect((await screen.findByRole('alert')).textContent).toMatch(/version 99/);
  });
  it('finds names for many variants', () => {
    expect(nextVariant('Desk', ['Desk', 'Desk, variant B'])).toBe('Desk, variant C');
    expect(nextVariant('x'.repeat(120), []).length).toBeLessThanOrEqual(120);
  });
});
