// @vitest-environment happy-dom
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { memo } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { show } from '#web/web.testkit.tsx';
import { useMore, useSteady } from './index.ts';

function Long({ all, kept }: { all: readonly number[]; kept?: number }) {
  const { shown, more } = useMore(all, (n) => n === kept);
  return (
    <>
      <output>{shown.join(' ')}</output>
      {more}
    </>
  );
}
const numbers = (n: number) => Array.from({ length: n }, (_, i) => i);
const said = () => screen.getByRole('status').textContent!.split(' ').map(Number);

describe('a long list', () => {
  it('is shown by the hundred, with the one in hand wherever it stands, until one asks for more', async () => {
    show(<Long all={numbers(620)} kept={555} />);
    expect(said()).toEqual([...numbers(100), 555]);
    expect(screen.getByText(/101 of 620 shown/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Show more' }));
    expect(said()).toHaveLength(501);
    await userEvent.click(screen.getByRole('button', { name: 'Show more' }));
    expect(said()).toHaveLength(620);
    expect(screen.queryByRole('button', { name: 'Show more' })).toBeNull();
  });
  it('that is short is shown whole', () => {
    show(<Long all={numbers(100)} />);
    expect(said()).toHaveLength(100);
  });
});

const drawn = vi.fn();
const told = vi.fn();
const Child = memo(function Child({ onPress }: { onPress: (word: string) => void }) {
  drawn();
  return (
    <button type="button" onClick={() => onPress('pressed')}>
      press
    </button>
  );
});
function Parent({ name }: { name: string }) {
  return <Child onPress={useSteady((word: string) => told(`${name} ${word}`))} />;
}

describe('a steady function', () => {
  it('stays the same one, draws nothing anew, and does what the latest one does', async () => {
    const page = render(<Parent name="first" />);
    page.rerender(<Parent name="second" />);
    await userEvent.click(screen.getByRole('button', { name: 'press' }));
    expect(drawn).toHaveBeenCalledTimes(1);
    expect(told.mock.calls).toEqual([['second pressed']]);
  });
});
