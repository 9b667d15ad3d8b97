// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { gateOf, playersOf } from '#core/desk-tests/tap-test/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { PhoneTunes } from './PhoneTunes.tsx';

const rig = demoRig();

describe('tunes on the phone', () => {
  it('are shown only once all that has to be so is ticked, and gone again when one is not', async () => {
    const user = userEvent.setup();
    show(<PhoneTunes rig={rig} />);
    const boxes = screen.getAllByRole('checkbox');
    expect(boxes).toHaveLength(gateOf(rig).length);
    for (const box of boxes) {
      expect(screen.queryByTestId('tune')).toBeNull();
      await user.click(box);
    }
    expect(screen.getByTestId('tune')).toBeTruthy();
    await user.click(boxes[0]!);
    expect(screen.queryByTestId('tune')).toBeNull();
    expect(screen.getByRole('status').textContent).toContain('1 still open');
  });
  it('are those that the desk deals, each named after its source; others can be chosen by number', async () => {
    const user = userEvent.setup();
    show(<PhoneTunes rig={rig} />);
    for (const box of screen.getAllByRole('checkbox')) await user.click(box);
    const choice = screen.getByLabelText<HTMLSelectElement>('This phone plays');
    const names = [...choice.options].map((o) => o.textContent);
    expect(names).toHaveLength(16);
    for (const { sourceId, tune } of playersOf(rig))
      expect(names[tune]).toBe(`tune ${tune + 1}, “${rig.sources.find((s) => s.id === sourceId)!.name}”`);
    await user.selectOptions(choice, 'tune 3, “Couch voices”');
    expect(screen.getByRole('button', { name: /^Play Couch voices/ })).toBeTruthy();
    await user.selectOptions(choice, 'tune 12');
    expect(screen.getByRole('button', { name: /^Play the test tune/ })).toBeTruthy();
  });
});
