// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, stubServer } from '#web/server.testkit.ts';
import { show } from '#web/web.testkit.tsx';
import { rememberFile, TakeGate } from './index.ts';

const KEPT = {
  id: '22222222-2222-4222-8222-222222222222',
  name: 'host.wav',
  bytes: 10,
  sha256: 'x',
  addedAt: '2026-11-26T10:00:00.000Z',
  revision: 1,
  notes: null,
  usedBy: [],
};
const OTHER = '33333333-3333-4333-8333-333333333333';

describe('a page about takes', () => {
  beforeEach(() => stubServer(async () => answer(200, [KEPT])));
  const open = (takes: string, least = 1) =>
    show(
      <TakeGate title="Balance" most={2} least={least} asks="Choose a take.">
        {(found, bench) => (
          <p>
            {found.map((t) => t.name).join(' and ')}, back to {bench}
          </p>
        )}
      </TakeGate>,
      { at: `/bench/balance?takes=${takes}` },
    );
  it('opens with those that are kept, and knows the way back', async () => {
    open(KEPT.id);
    expect(await screen.findByText(`host.wav, back to /bench?takes=${KEPT.id}`)).toBeTruthy();
  });
  it('asks for takes where there are none, or too few', async () => {
    const page = open('');
    expect((await screen.findByRole('link', { name: 'Choose a take.' })).getAttribute('href')).toBe('/bench');
    page.unmount();
    open(KEPT.id, 2);
    expect(await screen.findByRole('link', { name: 'Choose a take.' })).toBeTruthy();
  });
  it('says that a take was not kept, unless its file was chosen in this page', async () => {
    const page = open(OTHER);
    expect(await screen.findByText(/One of these takes wasn’t saved\./)).toBeTruthy();
    page.unmount();
    rememberFile(OTHER, new File(['x'], 'guest.wav'));
    open(OTHER);
    expect(await screen.findByText(/^guest\.wav, back/)).toBeTruthy();
  });
});
