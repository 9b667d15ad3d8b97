// @vitest-environment happy-dom
import { fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { orderUp } from '#core/run/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { clearPage, demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { RunScreen } from './index.ts';
import {
  keepTicks,
  lastTicked,
  nextStep,
  openBefore,
  orderToMarkdown,
  readTicks,
  withoutTick,
  withTick,
} from './ticks.ts';

const steps = orderUp(demoRig());
const at = (n: number) => `2026-11-26T10:00:${String(n).padStart(2, '0')}.000Z`;
beforeEach(() => {
  stubServer(noServer);
  localStorage.clear();
});

describe('the ticks of an order', () => {
  it('lead from step to step, none before what it rests on', () => {
    let ticks = {};
    const seen: string[] = [];
    for (let n = 0; n < steps.length; n++) {
      const step = nextStep(steps, ticks)!;
      expect(openBefore(step, steps, ticks)).toEqual([]);
      seen.push(step.id);
      ticks = withTick(ticks, step.id, { at: at(n % 60) });
    }
    expect(seen).toEqual(steps.map((s) => s.id));
    expect(nextStep(steps, ticks)).toBeNull();
  });
  it('say what is open before a step, and which was ticked last', () => {
    const plug = steps.find((s) => s.kind === 'plug')!;
    expect(openBefore(plug, steps, {}).every((s) => ['quiet', 'phantom-off'].includes(s.kind))).toBe(true);
    expect(lastTicked(steps, {})).toBeNull();
    const two = withTick(withTick({}, steps[3]!.id, { at: at(9) }), steps[0]!.id, { at: at(4) });
    expect(lastTicked(steps, two)!.id).toBe(steps[3]!.id);
    expect(withoutTick(two, steps[3]!.id)).toEqual({ [steps[0]!.id]: { at: at(4) } });
  });
  it('are kept by rig and by way, and what cannot be read is none', () => {
    keepTicks(RIG_ID, 'first', { a: { at: at(1), leftOut: 'not there' } });
    expect(readTicks(RIG_ID, 'first')).toEqual({ a: { at: at(1), leftOut: 'not there' } });
    expect(readTicks(RIG_ID, 'down')).toEqual({});
    localStorage.setItem(`mellow-tap.run.${RIG_ID}.down`, '{"a": 7}');
    expect(readTicks(RIG_ID, 'down')).toEqual({});
  });
  it('go along as a task list, with reasons and cautions', () => {
    const text = orderToMarkdown('Relay', steps.slice(0, 3), { [steps[0]!.id]: { at: at(1), leftOut: 'broken' } });
    expect(text).toMatch(
      /^# Relay\n\n- \[x\] .*\(left out: broken\)\n {2}Plugs and switches.*\n {2}\*\*Mind:\*\* Headphones off/,
    );
    expect(text.match(/- \[ \]/g)).toHaveLength(2);
  });
});

const open = (way = 'first') =>
  show(
    <Routes>
      <Route path="/rigs/:rigId/run" element={<RunScreen />} />
    </Routes>,
    { at: `/rigs/${RIG_ID}/run?way=${way}` },
  );
const now = () => screen.getByTestId('run-step').textContent!;
const press = (key: string) => fireEvent.keyDown(document.body, { key, code: `Key${key.toUpperCase()}` });

describe('the run', () => {
  it('shows one step at a time, ticked by one key, and again where one left off after a reload', () => {
    open();
    expect(now()).toContain(steps[0]!.says);
    press('d');
    expect(now()).toContain(steps[1]!.says);
    press('d');
    expect(screen.getByRole('status').textContent).toContain(`2 of ${steps.length} done`);
    clearPage();
    open();
    expect(now()).toContain(steps[2]!.says);
    press('b');
    expect(now()).toContain(steps[1]!.says);
  });
  it('says what comes first where one looks ahead, and leaves a step out only with a reason', async () => {
    const user = userEvent.setup();
    open();
    const list = screen.getByLabelText('All steps');
    const plugAt = steps.findIndex((s) => s.kind === 'plug');
    await user.click(within(list).getAllByRole('button')[plugAt]!);
    expect(now()).toMatch(/Not yet: first/);
    await user.click(within(list).getAllByRole('button')[0]!);
    await user.click(screen.getByRole('button', { name: /^Leave it out/ }));
    expect((screen.getByRole('button', { name: 'Leave it out' }) as HTMLButtonElement).disabled).toBe(true);
    await user.type(screen.getByLabelText('Why it is left out'), 'it has no knob{Enter}');
    expect(within(list).getAllByRole('listitem')[0]!.textContent).toContain('Left out: it has no knob.');
    await user.click(within(list).getAllByRole('button')[0]!);
    await user.click(screen.getByRole('button', { name: 'Not done after all' }));
    expect(screen.getByRole('status').textContent).toContain('0 of');
  });
  it('has an order for a desk that stands, and one for the way down; each with ticks of its own', async () => {
    const user = userEvent.setup();
    open('standing');
    press('d');
    await user.selectOptions(screen.getByLabelText('Which order'), 'The way down');
    expect(screen.getByRole('status').textContent).toContain('0 of');
    expect(now()).toMatch(/stop, and wait until its file is closed|say goodbye/);
    await user.selectOptions(screen.getByLabelText('Which order'), 'The desk stands as it was');
    expect(screen.getByRole('status').textContent).toContain('1 of');
    await user.click(screen.getByRole('button', { name: 'Begin anew' }));
    expect(screen.getByRole('status').textContent).toContain('0 of');
  });
});
