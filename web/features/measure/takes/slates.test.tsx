// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { TakeNotes } from '#api/index.ts';
import { slateReading } from '#core/desk-tests/slates/slate.testkit.ts';
import { skewOf } from '#web/shared/take/index.ts';
import { look } from '#web/shared/take/look.testkit.ts';
import { show } from '#web/web.testkit.tsx';
import { common } from '#words/index.ts';
import { restingTake } from './bench.testkit.ts';
import { Slates } from './Slates.tsx';

const slate = slateReading({ id: 1, fromMs: 5000, toMs: 9000, zeroMs: -1000, offsetMs: 90 });
const seen = (slates: readonly (typeof slate)[]) => ({ ...look(), picture: { ...look().picture!, slates } });

describe('slates on the bench', () => {
  it('say what each reads, how its pictures came, and at which rate', () => {
    show(<Slates take={restingTake('a', { look: seen([slate]) })} />);
    const row = within(screen.getByTestId('slates')).getAllByRole('row')[1]!.textContent;
    for (const said of [
      'number 2, 60 fps',
      '90',
      '±2',
      '200 of 216',
      '1, 0, 0',
      '60.001',
      '+17 ppm',
      'by a camera',
      'shutter about 8 ms',
    ])
      expect(row).toContain(said);
  });
  it('keep what a clap beside the slate says of the player, and forget it again', async () => {
    const user = userEvent.setup();
    const changes: TakeNotes[] = [];
    // Its two claps stand 65 ms after their flashes.
    show(<Slates take={restingTake('a', { look: seen([slate]), change: (n) => changes.push(n) })} />);
    expect(screen.getByTestId('skew').textContent).toMatch(/unknown, ±40 ms/);
    await user.click(screen.getByRole('button', { name: /claps beside it measure \+25\.0 ms/ }));
    expect(skewOf(1)).toMatchObject({ skewMs: 25 });
    expect(screen.getByTestId('skew').textContent).toMatch(/\+25\.0 ms.*The path: 65/);
    expect(changes).toHaveLength(1);
    await user.click(screen.getByRole('button', { name: common.reset() }));
    expect(skewOf(1)).toBeNull();
  });
  it('tell two screens apart by how much later one shows the same', () => {
    const right = slateReading({ id: 1, fromMs: 5000, toMs: 9000, zeroMs: -966, offsetMs: null, left: 340 });
    show(<Slates take={restingTake('a', { look: seen([slate, right]) })} />);
    expect(screen.getByTestId('between-screens').textContent).toMatch(/right is 34\.0 ms later/);
    expect(screen.getAllByText('not heard')).toHaveLength(1);
  });
  it('say so where a slate is heard and not seen, and nothing where there is none', () => {
    const heard = {
      ...look(),
      sound: { ...look().sound!, chirps: [0, 2000, 4000].map((atMs) => ({ atMs, kind: 0 as const, likeness: 1 })) },
    };
    const page = show(<Slates take={restingTake('a', { look: heard })} />);
    expect(page.container.textContent).toMatch(/3 sync slate beats are heard .*but no slate is seen/);
    page.unmount();
    expect(show(<Slates take={restingTake('b')} />).container.textContent).toBe('');
  });
});
