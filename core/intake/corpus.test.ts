import { describe, expect, it } from 'vitest';
import { check } from '#core/rules/index.ts';
import { evaluate, type ListenerRole, rolesOf, type SourceRole } from '#core/signal/index.ts';
import { CORPUS } from './corpus.testkit.ts';
import { type DeskRead, readDesk } from './index.ts';

const SOURCES: Readonly<Record<string, SourceRole>> = {
  voice: 'voice',
  second: 'second-voice',
  far: 'far-voice',
  game: 'game',
  music: 'music',
};
const LISTENERS: Readonly<Record<string, ListenerRole>> = {
  mix: 'mix',
  track: 'track',
  ears: 'ears',
  far: 'far-ears',
  room: 'room',
};

const unknownOf = ({ typed }: DeskRead): string[] =>
  typed.boxes.flatMap((b) => (b.type === null ? b.word.split(' ') : [...b.left]));

/** Each line is read once. */
const known = new Map<string, DeskRead>();
function read(line: string): DeskRead {
  const found = known.get(line) ?? readDesk(line);
  known.set(line, found);
  return found;
}

/** What of a desk does not come out as it has to. */
function wrongWith(line: string, { types, hears, true: told = '' }: (typeof CORPUS)[number]): string[] {
  const { rig, typed } = read(line);
  if (!rig) return ['nothing is understood'];
  const there = typed.boxes.flatMap((b) => Array.from({ length: b.type ? b.count : 0 }, () => b.type!.id));
  const missing = types.split(' ').filter((id) => {
    const at = there.indexOf(id);
    if (at >= 0) there.splice(at, 1);
    return at < 0;
  });
  const evaluation = evaluate(rig);
  const roles = rolesOf(rig);
  const role = {
    source: (id: string) => roles.source(rig.sources.find((s) => s.id === id)!),
    listener: (id: string) => roles.listener(rig.listeners.find((l) => l.id === id)!),
  };
  const unheard = hears
    .split(' ')
    .filter(Boolean)
    .filter((pair) => {
      const [source, listener] = pair.split('>') as [string, string];
      return !evaluation.pairs.some(
        (p) =>
          p.ways.length > 0 &&
          role.source(p.sourceId) === SOURCES[source] &&
          role.listener(p.listenerId) === LISTENERS[listener],
      );
    });
  const against = evaluation.pairs.filter((p) =>
    p.want === 'must' ? p.ways.length === 0 : p.want === 'must-not' && p.ways.length > 0,
  );
  const findings = check(rig, evaluation).filter((f) => !f.dismissed);
  const claimed = findings.filter(
    (f) => !f.asks && ['stop', 'fix'].includes(f.severity) && !told.split(' ').includes(f.rule),
  );
  return [
    ...missing.map((t) => `no ${t}`),
    ...unheard.map((p) => `not heard: ${p}`),
    ...against.map((p) => `against the plan: ${p.sourceId} at ${p.listenerId}`),
    ...claimed.map((f) => `${f.rule}: ${f.says}`),
    ...(findings.length > 7 ? [`${findings.length} findings`] : []),
  ];
}

describe('desks typed as people say them', () => {
  it.each(CORPUS.map((c) => [c.lines[0], c] as const))('%s, in three wordings', (_, desk) => {
    expect(desk.lines.map((line) => wrongWith(line, desk))).toEqual(desk.lines.map(() => []));
  });
  it('are understood, 98 words of a hundred and more', () => {
    const lines = CORPUS.flatMap((c) => c.lines);
    const words = lines.join(' ').split(/[\s>;,&]+/).length;
    expect(lines.length).toBeGreaterThanOrEqual(300);
    expect(lines.flatMap((line) => unknownOf(read(line))).length / words).toBeLessThan(0.02);
  });
});
