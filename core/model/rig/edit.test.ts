import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import {
  addTasks,
  applyEdit,
  asAtDesk,
  commit,
  dropTask,
  Edit,
  markDone,
  parseRig,
  type Rig,
  redo,
  startHistory,
  tickTask,
  undo,
} from './index.ts';
import { anEdit, demoJson } from './rig.testkit.ts';

const rig = parseRig(demoJson());

describe('edits', () => {
  it('are undone by their inverse, keep the rig valid, and leave what they were given alone', () => {
    let accepted = 0;
    let refused = 0;
    const before = JSON.stringify(rig);
    fc.assert(
      fc.property(anEdit(rig), (edit) => {
        const done = applyEdit(rig, edit);
        expect(JSON.stringify(rig)).toBe(before);
        if (!done.ok) {
          refused++;
          expect(textOf(done.refusal.reason).length).toBeGreaterThan(10);
          return;
        }
        accepted++;
        expect(parseRig(JSON.parse(JSON.stringify(done.rig)))).toEqual(done.rig);
        expect(applyEdit(done.rig, done.inverse)).toMatchObject({ ok: true, rig });
      }),
      { numRuns: 400 },
    );
    // Were all refused, the law would say nothing.
    expect(accepted).toBeGreaterThan(100);
    expect(refused).toBeGreaterThan(20);
  });
  it('survive being written down', () => {
    fc.assert(
      fc.property(anEdit(rig), (edit) => {
        expect(Edit.parse(JSON.parse(JSON.stringify(edit)))).toEqual(edit);
      }),
    );
  });
  it('of a batch are all made, or none', () => {
    const done = applyEdit(rig, {
      kind: 'batch',
      edits: [
        { kind: 'rename', name: 'Another' },
        { kind: 'unplug', cableId: 'not-there' },
      ],
    });
    expect(done).toMatchObject({ ok: false });
  });
  it('in any order of undo and redo come back to the same rig', () => {
    fc.assert(
      fc.property(fc.array(anEdit(rig), { minLength: 1, maxLength: 8 }), (edits) => {
        let history = startHistory(rig);
        const seen: Rig[] = [rig];
        for (const edit of edits) {
          const stepped = commit(history, edit, 'a step', 'person');
          if (!stepped.ok) continue;
          history = stepped.history;
          seen.push(history.rig);
        }
        for (let i = seen.length - 1; i > 0; i--) {
          expect(history.rig).toEqual(seen[i]);
          const back = undo(history);
          if (!back.ok) throw new Error(textOf(back.refusal.reason));
          history = back.history;
        }
        expect(history.rig).toEqual(rig);
        for (let i = 1; i < seen.length; i++) {
          const again = redo(history);
          if (!again.ok) throw new Error(textOf(again.refusal.reason));
          history = again.history;
          expect(history.rig).toEqual(seen[i]);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('a new step forgets what had been undone; nothing to undo changes nothing', () => {
    const start = startHistory(rig);
    expect(undo(start)).toEqual({ ok: true, history: start });
    expect(redo(start)).toEqual({ ok: true, history: start });
    const one = commit(start, { kind: 'rename', name: 'One' }, 'one', 'person');
    if (!one.ok) throw new Error();
    const back = undo(one.history);
    if (!back.ok) throw new Error();
    const two = commit(back.history, { kind: 'rename', name: 'Two' }, 'two', 'fix');
    if (!two.ok) throw new Error();
    expect(two.history.future).toHaveLength(0);
    expect(two.history.past.map((s) => s.label)).toEqual(['two']);
  });
});

describe('drawn and done', () => {
  const change = { deviceId: 'mixer', settingId: 'strip-1-delay', value: 128 };
  const at = '2026-11-25T10:00:00Z';
  const apply = (r: Rig, edit: Edit): Rig => {
    const done = applyEdit(r, edit);
    if (!done.ok) throw new Error(textOf(done.refusal.reason));
    return done.rig;
  };
  const settingOf = (r: Rig) => r.devices.find((d) => d.id === 'mixer')!.settings['strip-1-delay'];

  it('what is already so is seen at once and leaves no task', () => {
    const done = apply(rig, markDone(rig, [change]));
    expect(settingOf(done)).toEqual({ value: 128, known: 'confirmed' });
    expect(done.tasks).toHaveLength(0);
  });
  it('what is to be done is assumed until it is ticked', () => {
    const drawn = apply(rig, addTasks(rig, [change], at));
    expect(settingOf(drawn)).toEqual({ value: 128, known: 'assumed' });
    expect(drawn.tasks).toMatchObject([{ id: 'mixer.strip-1-delay', before: { value: 0 } }]);
    const done = apply(drawn, tickTask(drawn, drawn.tasks[0]!));
    expect(settingOf(done)).toEqual({ value: 128, known: 'confirmed' });
    expect(done.tasks).toHaveLength(0);
  });
  it('a second proposal replaces the first and still knows what stood before', () => {
    const first = apply(rig, addTasks(rig, [change], at));
    const second = apply(first, addTasks(first, [{ ...change, value: 64 }], at));
    expect(second.tasks).toMatchObject([{ before: { value: 0 } }]);
    const back = apply(second, addTasks(second, [{ ...change, value: 0 }], at));
    expect(back.tasks).toHaveLength(0);
  });
  it('a dropped task brings back what stands at the desk', () => {
    const seen = apply(rig, markDone(rig, [{ ...change, value: 10 }]));
    const drawn = apply(seen, addTasks(seen, [change], at));
    const dropped = apply(drawn, dropTask(drawn, drawn.tasks[0]!));
    expect(settingOf(dropped)).toEqual({ value: 10, known: 'confirmed' });
  });
  it('what stands at the desk is the drawing without what is still to be done', () => {
    expect(asAtDesk(rig)).toBe(rig);
    const planned = apply(rig, addTasks(rig, [change], at));
    expect(asAtDesk(planned).devices).toEqual(apply(planned, dropTask(planned, planned.tasks[0]!)).devices);
    expect(asAtDesk(planned).tasks).toEqual([]);
  });
  it('saying that it is so closes the task', () => {
    const drawn = apply(rig, addTasks(rig, [change], at));
    expect(apply(drawn, markDone(drawn, [change])).tasks).toHaveLength(0);
  });
});
