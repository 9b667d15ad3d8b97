// @vitest-environment happy-dom
import { renderHook } from '@testing-library/react';
import { act } from 'react';
import { expect, it } from 'vitest';
import type { Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { demoRig } from '#web/web.testkit.tsx';
import { useFoldedListeners, useListenersByWeight } from './listener-order.ts';

const rig = demoRig();
const [first] = rig.listeners;
/** As many tracks more on the device of the first listener, with nothing asked of them. */
const withTracks = (count: number): Rig => ({
  ...rig,
  listeners: [
    ...rig.listeners,
    ...Array.from({ length: count }, (_, i) => ({
      ...first!,
      id: `more-${i}`,
      name: `More ${i}`,
      sound: { ...first!.sound, deviceId: 'nowhere' },
    })),
  ],
});
const hook = (of: Rig, at = 0) =>
  renderHook(({ column }) => useFoldedListeners(of, () => ({ pairs: evaluate(rig).pairs }), column), {
    initialProps: { column: at },
  });

it('folds tracks of one device that nothing is asked of, from three on, until they are asked for', () => {
  expect(hook(withTracks(2)).result.current.folded).toBe(0);
  const { result, rerender } = hook(withTracks(5));
  expect(result.current).toMatchObject({ folded: 5, isOpen: false });
  expect(result.current.columns).toHaveLength(rig.listeners.length);
  act(() => result.current.toggle());
  expect(result.current.columns).toHaveLength(rig.listeners.length + 5);
  act(() => result.current.toggle());
  // The cell that is looked at is never folded away.
  rerender({ column: rig.listeners.length + 1 });
  expect(result.current).toMatchObject({ isOpen: true });
  expect(result.current.columns).toContain(rig.listeners.length + 1);
});

it('puts what is wrong first, then what is asked for, and leaves no one out', () => {
  const { result } = renderHook(() => useListenersByWeight(rig, () => evaluate(rig)));
  expect([...result.current].sort((a, b) => a - b)).toEqual(rig.listeners.map((_, i) => i));
  const { pairs } = evaluate(rig);
  const isWrong = (i: number) =>
    pairs.some((p) => p.listenerId === rig.listeners[i]!.id && ['stop', 'fix'].includes(p.verdict.state));
  const wrong = result.current.map(isWrong);
  expect(wrong).toEqual([...wrong].sort((a, b) => Number(b) - Number(a)));
});
