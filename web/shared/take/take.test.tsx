// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, stubServer } from '#web/server.testkit.ts';
import { show } from '#web/web.testkit.tsx';
import { take as say } from '#words/index.ts';
import { rememberFile, type SoundAtHand, TakeGate, Working } from './index.ts';

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

describe('work under way', () => {
  const at = (more: Partial<SoundAtHand>): { sound: SoundAtHand; calls: string[] } => {
    const calls: string[] = [];
    return {
      calls,
      sound: {
        desk: null,
        facts: null,
        working: null,
        failed: null,
        run: async () => null,
        stop: () => void calls.push('stop'),
        again: () => void calls.push('again'),
        ...more,
      },
    };
  };
  it('says how far it is, and can be stopped', () => {
    const { sound, calls } = at({ working: { what: 'mixing', done: 0.42 } });
    show(<Working sound={sound} />);
    expect(screen.getByRole('status').textContent).toContain('mixing, 42%');
    fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(calls).toEqual(['stop']);
  });
  it('says what went wrong, and begins again', () => {
    const { sound, calls } = at({ failed: 'The take is not there any more.' });
    show(<Working sound={sound} />);
    expect(screen.getByRole('alert').textContent).toContain('not there any more');
    fireEvent.click(screen.getByRole('button', { name: say.startOver() }));
    expect(calls).toEqual(['again']);
  });
  it('says nothing at rest', () => {
    const page = show(<Working sound={at({}).sound} />);
    expect(page.container.textContent).toBe('');
  });
});
