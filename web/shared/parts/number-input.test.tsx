// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';
import { show } from '#web/web.testkit.tsx';
import { parts as say } from '#words/index.ts';
import { NumberInput } from './NumberInput.tsx';

it('a number that is out of its range is said beside it, and taken by nobody', async () => {
  const user = userEvent.setup();
  const onValue = vi.fn();
  show(<NumberInput label="Delay, ms" value={20} min={0} max={500} onValue={onValue} />);
  const field = screen.getByLabelText('Delay, ms');
  await user.clear(field);
  await user.type(field, '501{Tab}');
  expect(screen.getByText(say.numberFromTo({ min: 0, max: 500 }))).toBeTruthy();
  expect(field.getAttribute('aria-invalid')).toBe('true');
  expect(onValue).not.toHaveBeenCalled();
  await user.clear(field);
  await user.type(field, '−x');
  expect(field.getAttribute('aria-invalid')).toBe('true');
  await user.clear(field);
  await user.type(field, '12,5{Tab}');
  expect(onValue).toHaveBeenCalledWith(12.5);
  expect(screen.queryByText(say.numberFromTo({ min: 0, max: 500 }))).toBeNull();
  await user.clear(field);
  await user.tab();
  expect(onValue).toHaveBeenLastCalledWith(undefined);
});

it('where any will do, what is none is said', async () => {
  const user = userEvent.setup();
  show(<NumberInput id="low" label="Low" value={1} onValue={() => undefined} />);
  // A key may go to it by its id.
  expect(document.getElementById('low')).toBe(screen.getByLabelText('Low'));
  await user.type(screen.getByLabelText('Low'), 'x');
  expect(screen.getByText(say.aNumber())).toBeTruthy();
});
