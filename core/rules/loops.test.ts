import { describe, expect, it } from 'vitest';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { twoWays } from '#core/signal/rigs.testkit.ts';
import { desk } from './check.testkit.ts';
import { check, fixesOf } from './index.ts';

const of = (rig: Rig, rule: string) => check(rig).filter((f) => f.rule === rule);

/** A voice into a microphone, by a mixer into two speakers; one of them, or both, heard by the microphone. */
const stage = (sides: 'one' | 'both' | 'two boxes', distanceM: number): Rig => {
  const back = (box: string) => `${box}.front > m.capsule ${distanceM} air${sides === 'one' ? ' left=mono' : ''}`;
  const boxes = sides === 'two boxes' ? ['s', 't'] : ['s'];
  return desk(
    {
      v: 'person',
      m: 'microphone-dynamic',
      x: 'mixer-usb-10',
      ...Object.fromEntries(boxes.map((b) => [b, 'loudspeakers-active'])),
    },
    ['v.voice > m.capsule 0.15 air', 'm.xlr > x.strip-1', ...boxes.flatMap((b) => [`x.main-out > ${b}.line`, back(b)])],
    { set: { 'x.strip-1-gain': 60 } },
  );
};

describe('loops that are found', () => {
  it('are judged by all ways round together: one loudspeaker rings, with its twin or another pair it howls', () => {
    const limit = (rig: Rig) => of(rig, 'loop-howls').map((f) => f.severity);
    // The distance from which one speaker alone does not howl.
    let distanceM = 0.5;
    while (limit(stage('one', distanceM))[0] === 'stop' && distanceM < 1000) distanceM *= 1.1;
    expect(distanceM).toBeGreaterThan(0.5);
    expect(limit(stage('one', distanceM))).toEqual(['watch']);
    expect(limit(stage('both', distanceM))).toEqual(['stop']);
    // Two pairs, each a little too quiet to howl alone.
    let two = distanceM * 2;
    while (limit(stage('both', two))[0] === 'stop' && two < 2000) two *= 1.1;
    expect(limit(stage('both', two))).toEqual(['watch']);
    expect(limit(stage('two boxes', two))).toEqual(['stop', 'stop']);
    expect(of(stage('two boxes', two), 'loop-howls')[0]!.says).toMatchObject({
      params: { round: { code: 'check.withOtherLoops' }, says: { code: 'check.howls' } },
    });
  });
});

describe('copies that cancel', () => {
  it('have a finding of their own, with what mends it; as copies that only add have not', () => {
    const rig = twoWays({ db: 0, invert: true });
    const [finding, ...more] = of(rig, 'cancels');
    expect(more).toEqual([]);
    expect(finding).toMatchObject({ severity: 'fix', where: { sourceId: 's', deviceIds: ['bus', 'wire'] } });
    const fixes = fixesOf(rig, finding!);
    expect(fixes.map((f) => f.label)).toEqual([{ code: 'check.on', params: { label: 'fork, Second' } }]);
    const done = applyEdit(rig, fixes[0]!.edit);
    expect(done.ok && of(done.rig, 'cancels')).toEqual([]);
    expect(of(twoWays({ db: 0, invert: false }), 'cancels')).toEqual([]);
    expect(of(twoWays({ db: -30, invert: true }), 'cancels')).toEqual([]);
  });
  it('are watched where they may not be in step, and left where an unwanted source is taken away so', () => {
    // Nominally at once and equally uncertain in their ends: it may cancel, and may not.
    const loose = twoWays({ db: 0, invert: true, ms: [0, 0, 0.019] });
    expect(of(loose, 'cancels')[0]).toMatchObject({ severity: 'fix' });
    const rig = twoWays({ db: 0, invert: true });
    const unwanted: Rig = { ...rig, plan: [{ sourceId: 's', listenerId: 'l', want: 'must-not' }] };
    expect(of(unwanted, 'cancels')).toEqual([]);
  });
});
