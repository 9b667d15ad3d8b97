import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, findTypes, markDone, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { desk } from './check.testkit.ts';
import { check } from './check.ts';
import { answerKey, askedBy, isAssumed, questionOf, questionsOf } from './questions.ts';

const all = (rig: Rig) => {
  const evaluation = evaluate(rig);
  return questionsOf(rig, evaluation, check(rig, evaluation));
};
const rigs = [boathouse, skerryNet].map((r) => parseRig(JSON.parse(JSON.stringify(r))));
const [relay] = rigs as [Rig, Rig];
const answered = (rig: Rig, changes: Parameters<typeof markDone>[1]): Rig => {
  const done = applyEdit(rig, markDone(rig, changes));
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};

describe('one question by its id', () => {
  it('has the answers that it has among all, each with a key of its own, and the rig is read for what they change', () => {
    for (const rig of rigs) {
      const findings = check(rig, evaluate(rig));
      for (const question of all(rig)) {
        const { id, answers } = question;
        const own = questionOf(rig, findings, id)!;
        expect(own.answers).toEqual(answers);
        const keys = answers.map(answerKey);
        expect(new Set(keys).size).toBe(keys.length);
        expect(keys[answers.findIndex((a) => a.asDrawn)]).toBe('as-drawn');
        expect(Math.max(...keys.map((key) => key.length))).toBeLessThan(4000);
      }
      for (const id of ['lead:none', 'setting:none.none', 'setting:x', 'other', '', 'lead:'])
        expect(questionOf(rig, findings, id), id).toBeNull();
    }
  });
});

describe('questions', () => {
  it('come in the order of how many pairs their answer decides, as a slow count has it', () => {
    for (const rig of rigs) {
      const questions = all(rig);
      // Where nothing is wanted for a listener, nothing is decided: a track that is not used.
      const said = (now: Rig) =>
        evaluate(now).pairs.map((p) => (rig.plan.some((c) => c.listenerId === p.listenerId) ? p.verdict.word : ''));
      const words = said(rig);
      for (const { decides, answers } of questions) {
        const other = answers.slice(1).map(({ changes }) => {
          const after = said(answered(rig, changes));
          return words.filter((w, i) => w !== after[i]).length;
        });
        expect(decides).toBe(Math.max(...other));
      }
      const told = questions.map((q) => q.decides!);
      expect(told).toEqual([...told].sort((a, b) => b - a));
    }
    expect(all(relay).length).toBeGreaterThan(2);
  });
  it('never ask for a mute that nobody touched', () => {
    for (const rig of rigs)
      for (const q of all(rig)) {
        const device = rig.devices.find((d) => d.id === q.deviceId)!;
        const spec = findTypes(rig)
          .get(device.typeId)!
          .settings.find((s) => s.id === q.settingId);
        if (spec?.kind === 'mute' && q.findings.length === 0) expect(device.settings[spec.id], q.id).toBeDefined();
      }
  });
  it('leave out what nobody hears the difference of, and what no finding rests on', () => {
    for (const rig of rigs) for (const q of all(rig)) expect(q.decides! > 0 || q.findings.length > 0).toBe(true);
  });
  it('go when they are answered as assumed, and nothing else changes', () => {
    for (const question of all(relay)) {
      const after = answered(relay, question.answers[0]!.changes);
      expect(question.answers[0]!.asDrawn).toBe(true);
      expect([isAssumed(relay, question), isAssumed(after, question)]).toEqual([true, false]);
      expect(all(after).map((q) => q.id)).not.toContain(question.id);
      expect(evaluate(after).pairs.map((p) => p.verdict.word)).toEqual(
        evaluate(relay).pairs.map((p) => p.verdict.word),
      );
    }
  });
  it('are those of the findings at once, without the cost of the rest', () => {
    const findings = check(relay);
    const quick = askedBy(relay, findings);
    expect(quick.map((q) => q.id)).toEqual(['lead:camera-usb']);
    expect(quick[0]!.decides).toBeNull();
    expect(
      askedBy(
        relay,
        findings.map((f) => ({ ...f, dismissed: { id: f.id, reason: 'so', at: '2026-11-25T10:00:00Z' } })),
      ),
    ).toEqual([]);
  });
  it('say nothing of what is to be done anyway', () => {
    const settingId = 'strip-9-10-mute';
    const task = {
      id: `mixer.${settingId}`,
      deviceId: 'mixer',
      settingId,
      before: { value: false, known: 'assumed' as const },
      openedAt: '2026-11-25T10:00:00Z',
    };
    expect(all({ ...relay, tasks: [task] }).map((q) => q.id)).not.toContain(`setting:mixer.${settingId}`);
  });
  it('about what stands between two plugs are settled by either answer', () => {
    const rig = desk(
      { v: 'person', m: 'lapel-wired', l: 'computer-laptop' },
      ['v.voice > m.capsule', 'm.plug > l.jack-microphone'],
      { sources: ['voice: v.voice'] },
    );
    const [question] = askedBy(rig, check(rig));
    expect(question!.answers.map((a) => a.label)).toMatchObject([
      { code: 'check.noItGoesStraight' },
      { code: 'check.yes' },
    ]);
    const [straight, adapted] = question!.answers.map((a) => check(answered(rig, a.changes)));
    expect(straight!.find((f) => f.rule === 'plug-three-in-four')).toMatchObject({ asks: null });
    expect(adapted!.some((f) => f.rule === 'plug-three-in-four')).toBe(false);
  });
  it('end: answered as assumed, one after another, no finding of any demo asks on', () => {
    for (let rig of rigs)
      for (let n = 0; n < 60; n++) {
        const [next] = askedBy(rig, check(rig));
        if (!next) break;
        expect(n).toBeLessThan(59);
        rig = answered(rig, next.answers[0]!.changes);
      }
  });
});
