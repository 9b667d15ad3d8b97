import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/audio/samples/index.ts';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { casesOf } from '#core/model/units/proofs.testkit.ts';
import { CREST_DB, evaluate } from '#core/signal/index.ts';
import { box, rigOf, through } from '#core/signal/rigs.testkit.ts';
import { quayDeskMixer } from '#demo/quay-desk.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { setTheGains } from './gains.ts';

const HEADROOM_DB = 8;

/** A chain of devices, each with a floor, a gain of a few positions, a ceiling, and a floor after it. */
function aChain(seed: number): Rig {
  const random = seededRandom(seed);
  const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
  const count = whole(2, 3);
  const ids = Array.from({ length: count }, (_, i) => `box-${i}`);
  const types = ids.map((id) => {
    const fader = random() < 0.5;
    const [min, max] = fader ? [-12, 6] : [0, whole(4, 9) * 4];
    return box(
      id,
      1,
      [
        through(
          1,
          1,
          { do: 'noise', db: whole(-128, -90) },
          { do: 'gain', setting: 'gain' },
          { do: 'ceiling', db: whole(0, 20) },
          ...(random() < 0.6 ? [{ do: 'noise' as const, db: whole(-110, -80) }] : []),
          ...(random() < 0.4 ? [{ do: 'fixed-gain' as const, db: whole(-10, 4) }] : []),
        ),
      ],
      {
        settings: [
          {
            id: 'gain',
            name: 'Gain',
            kind: 'gain',
            min,
            max,
            step: fader ? 1.5 : 2,
            default: fader ? 0 : min,
            offAtMin: false,
          },
        ],
      },
    );
  });
  const rig = rigOf({
    types: [box('talker', 1, []), ...types],
    devices: { talker: 'talker', ...Object.fromEntries(ids.map((id) => [id, id])) },
    cables: ids.map((id, i) => `${i === 0 ? 'talker' : ids[i - 1]}.out-1 > ${id}.in-1`),
    source: 'talker.out-1',
    listener: `${ids.at(-1)}.out-1`,
  });
  const level = whole(-70, -40);
  return { ...rig, sources: [{ ...rig.sources[0]!, level: [level, level, level] }] };
}

const withGains = (rig: Rig, gains: readonly number[]): Rig => ({
  ...rig,
  devices: rig.devices.map((d, i) =>
    d.id === 'talker' ? d : { ...d, settings: { gain: { value: gains[i]!, known: 'confirmed' as const } } },
  ),
});

/** Every position of every knob, judged by the program's own evaluation: the best signal to noise at the aim. */
function bruteForce(rig: Rig, aimDb: number): { snrDb: number; endDb: number } | null {
  const boxes = rig.devices.filter((d) => d.id !== 'talker');
  const positions = boxes.map((d) => {
    const spec = rig.types.find((t) => t.id === d.typeId)!.settings[0]!;
    if (spec.kind !== 'gain') return [];
    return Array.from(
      { length: Math.floor((spec.max - spec.min) / spec.step) + 1 },
      (_, n) => spec.min + n * spec.step,
    );
  });
  let best: { snrDb: number; endDb: number } | null = null;
  const go = (at: number, gains: number[]): void => {
    if (at < positions.length) {
      for (const g of positions[at]!) go(at + 1, [...gains, g]);
      return;
    }
    const way = evaluate(withGains(rig, gains)).pairs[0]!.ways[0]!;
    if (Math.abs(way.levelDb.nominal - aimDb) > 0.5) return;
    if (way.headroomDb !== null && way.headroomDb < CREST_DB.nominal + HEADROOM_DB - 1e-9) return;
    const snrDb = way.levelDb.nominal - way.noiseDb!;
    if (!best || snrDb > best.snrDb) best = { snrDb, endDb: way.levelDb.nominal };
  };
  go(0, []);
  return best;
}

describe('set the gains', () => {
  it('is never worse by a tenth of a decibel than every position of every knob tried', () => {
    let compared = 0;
    for (let seed = 0; seed < casesOf(40, 400); seed++) {
      const rig = aChain(seed);
      const random = seededRandom(seed + 5000);
      const evaluation = evaluate(rig);
      const aimDb = evaluation.pairs[0]!.ways[0]!.levelDb.nominal + Math.round(random() * 24);
      const best = bruteForce(rig, aimDb);
      if (!best) continue;
      const found = setTheGains(rig, evaluation, {
        sourceId: rig.sources[0]!.id,
        listenerId: rig.listeners[0]!.id,
        aimDb,
      })!;
      expect(found.met, `seed ${seed}`).toBe(true);
      expect(found.headroomDb!, `seed ${seed}`).toBeGreaterThanOrEqual(HEADROOM_DB - 1e-9);
      expect(found.snrDb!, `seed ${seed}`).toBeGreaterThan(best.snrDb - 0.1);
      compared++;
    }
    expect(compared).toBeGreaterThan(casesOf(20, 40));
  });
  const rig = parseRig(JSON.parse(JSON.stringify(quayTalk)));
  it('brings each source of a demo to its aim, and does what it says', () => {
    const evaluation = evaluate(rig);
    let met = 0;
    for (const pair of evaluation.pairs) {
      if (pair.want !== 'must') continue;
      const found = setTheGains(rig, evaluation, pair);
      if (!found) continue;
      const done = applyEdit(rig, {
        kind: 'batch',
        edits: found.changes.map((c) => ({
          kind: 'set-setting',
          deviceId: c.deviceId,
          settingId: c.settingId,
          setting: { value: c.value, known: 'confirmed' },
        })),
      });
      if (!done.ok) throw new Error(textOf(done.refusal.reason));
      const after = evaluate(done.rig).pairs.find(
        (p) => p.sourceId === pair.sourceId && p.listenerId === pair.listenerId,
      )!;
      expect(after.ways[0]!.levelDb.nominal).toBeCloseTo(found.endDb, 6);
      if (found.met) met++;
    }
    expect(met).toBeGreaterThan(0);
  });
  it('leaves knobs alone that are held', () => {
    const evaluation = evaluate(aChain(3));
    const chain = aChain(3);
    const found = setTheGains(chain, evaluation, {
      sourceId: chain.sources[0]!.id,
      listenerId: chain.listeners[0]!.id,
      aimDb: 0,
      held: ['box-0.gain'],
    })!;
    expect(found.changes.map((c) => c.deviceId)).not.toContain('box-0');
    expect(found.held.map((h) => h.deviceId)).toContain('box-0');
  });
  it('turns a headphone output to half its travel at most, and what comes before it as it needs', () => {
    const rig = parseRig(JSON.parse(JSON.stringify(quayDeskMixer)));
    const found = setTheGains(rig, evaluate(rig), { sourceId: 'host', listenerId: 'recording' })!;
    const value = (settingId: string) => found.changes.find((c) => c.settingId === settingId)?.value;
    expect(found.met).toBe(true);
    expect(found.snrDb!).toBeGreaterThanOrEqual(found.snrBeforeDb!);
    expect(value('volume')).toBe(-15);
    expect(value('gain')).toBeGreaterThan(36);
  });
});
