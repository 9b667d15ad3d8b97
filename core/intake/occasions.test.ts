import { describe, expect, it } from 'vitest';
import { applyEdit } from '#core/model/rig/index.ts';
import { check } from '#core/rules/index.ts';
import { evaluate, rolesOf } from '#core/signal/index.ts';
import { OCCASIONS, type Occasion, type OccasionAnswers, readDesk, rigFor, takenOf, wordsFor } from './index.ts';

/** As it is usually answered, and with each other answer in turn. */
const answersOf = ({ asks }: Occasion): OccasionAnswers[] => [
  {},
  ...asks.flatMap((ask) => ask.options.slice(1).map((o): OccasionAnswers => ({ [ask.id]: o.id }))),
];

describe('desks to start from', () => {
  it('are twelve or more, each with at most four questions', () => {
    expect(OCCASIONS.length).toBeGreaterThanOrEqual(12);
    for (const { asks } of OCCASIONS) {
      expect(asks.length).toBeLessThanOrEqual(4);
      for (const ask of asks) expect(ask.options.length).toBeGreaterThan(0);
    }
  });
  it.each(OCCASIONS.map((o) => [o.name, o] as const))('%s: opens right, however it is answered', (_, occasion) => {
    for (const answers of answersOf(occasion)) {
      const words = wordsFor(occasion, answers);
      const { typed } = readDesk(words);
      const said = `${JSON.stringify(answers)}: ${words}`;
      expect(
        typed.boxes.filter((b) => b.type === null || b.left.length > 0),
        said,
      ).toEqual([]);
      expect(
        typed.leads.filter((l) => l.offer === null),
        said,
      ).toEqual([]);
      const rig = rigFor(occasion, answers);
      const evaluation = evaluate(rig);
      const wrong = evaluation.pairs.filter((p) =>
        p.want === 'must'
          ? p.ways.length === 0 || ['stop', 'fix'].includes(p.verdict.state)
          : p.want === 'must-not' && p.ways.length > 0,
      );
      expect(
        wrong.map((p) => `${p.sourceId} at ${p.listenerId}`),
        said,
      ).toEqual([]);
      const findings = check(rig, evaluation);
      // Nothing that would not work is claimed of a desk that no one has looked at.
      expect(
        findings.filter((f) => ['stop', 'fix'].includes(f.severity) && !f.asks).map((f) => f.says),
        said,
      ).toEqual([]);
      expect(findings.length, said).toBeLessThan(8);
      const known = [...rig.cables, ...rig.devices.flatMap((d) => Object.values(d.settings))].map((x) => x.known);
      expect(known).not.toContain('seen');
      expect(
        rig.plan.some((c) => c.want === 'must'),
        said,
      ).toBe(true);
      // No one is missing: whoever speaks here is heard by a mix, a track, a room or who is far.
      const roles = rolesOf(rig);
      for (const source of rig.sources.filter((s) => roles.source(s).endsWith('voice')))
        expect(
          evaluation.pairs.some((p) => p.sourceId === source.id && p.ways.length > 0),
          `${said} ${source.name}`,
        ).toBe(true);
    }
  });
  it('leave out a question that another answer has settled', () => {
    const stream = OCCASIONS.find((o) => o.id === 'pc-stream')!;
    const ears = stream.asks.find((a) => a.id === 'ears')!;
    expect(takenOf(stream, ears, {})?.id).toBe('headphones');
    expect(takenOf(stream, ears, { mic: 'headset' })).toBeNull();
    expect(wordsFor(stream, { mic: 'headset' })).not.toContain('headphones');
  });
  it('bear the name that they are given', () => {
    const rig = rigFor(OCCASIONS[0]!, {}, 'Stream desk, Tuesday');
    expect(rig.name).toBe('Stream desk, Tuesday');
    expect(applyEdit(rig, { kind: 'batch', edits: [] }).ok).toBe(true);
  });
});
