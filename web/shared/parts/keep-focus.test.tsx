// @vitest-environment happy-dom
import { act, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { useKeptFocus } from './keep-focus.ts';

/** Questions that go when they are answered, one after another; then nothing for a moment. */
function Questions() {
  useKeptFocus();
  const [left, setLeft] = useState(['one', 'two', 'three']);
  return (
    <main id="page" tabIndex={-1}>
      <button type="button">elsewhere</button>
      <section aria-label="questions">
        {left.map((q) => (
          <p key={q}>
            <button type="button" onClick={() => setLeft(left.filter((l) => l !== q))}>
              {q}
            </button>
          </p>
        ))}
      </section>
      <button type="button" onClick={() => setLeft(['four'])}>
        more
      </button>
    </main>
  );
}

const settled = () => act(() => new Promise((resolve) => setTimeout(resolve, 60)));
const focused = () => document.activeElement!.textContent;

it('moves to what came in the place of what went, waits where nothing is, and leaves other things alone', async () => {
  render(<Questions />);
  const press = async (name: string) => {
    screen.getByRole('button', { name }).focus();
    act(() => screen.getByRole('button', { name }).click());
    await settled();
  };
  await press('two');
  expect(focused()).toBe('three');
  await press('three');
  expect(focused()).toBe('one');
  await press('one');
  // Nothing is left in this part: one waits there, and has what comes first.
  expect(document.activeElement).toBe(screen.getByRole('region', { name: 'questions' }));
  act(() => screen.getByRole('button', { name: 'more' }).click());
  await settled();
  expect(focused()).toBe('four');
  // What has the focus keeps it whatever goes elsewhere.
  screen.getByRole('button', { name: 'elsewhere' }).focus();
  act(() => screen.getByRole('button', { name: 'four' }).click());
  await settled();
  expect(focused()).toBe('elsewhere');
});
