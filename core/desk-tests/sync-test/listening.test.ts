import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { listeningDelays } from './index.ts';

const copy = (rig: unknown) => JSON.parse(JSON.stringify(rig)) as Rig;
const delaysOf = (rig: unknown) => {
  const parsed = parseRig(rig);
  return listeningDelays(parsed, evaluate(parsed));
};

describe('what is heard while it goes on', () => {
  it('holds the player’s own sound against its picture, and talk over a call against its limit', () => {
    const relay = delaysOf(copy(boathouse));
    expect(relay.filter((d) => d.kind === 'play').map((d) => [d.sourceIds[0], d.state])).toEqual([
      ['couch-game', 'good'],
      ['desk-game', 'good'],
    ]);
    const talk = relay.find((d) => d.kind === 'conversation' && d.listenerId === 'ilse' && d.sourceIds[0] === 'wren')!;
    expect(talk).toMatchObject({ state: 'watch', goodMs: 150, badMs: 400, source: { code: 'paths.ituTGOne' } });
    expect(talk.delay.value.nominal).toBeGreaterThan(200);
    // No one talks with the stream, and those in one room talk without it.
    expect(relay.some((d) => d.kind === 'conversation' && ['stream', 'backup'].includes(d.listenerId))).toBe(false);
    expect(delaysOf(copy(gliderCorner)).filter((d) => d.kind === 'conversation')).toHaveLength(2);
  });
  it('is not borne where a call takes too long', () => {
    const slow = copy(clayHour);
    slow.measurements.push({
      kind: 'delay',
      id: 'slow',
      label: 'slow call',
      takenAt: '2026-11-26T10:00:00Z',
      sourceId: 'teacher',
      listenerId: 'pupil',
      terms: [{ figure: 'call.sound-out', sign: 1 }],
      ms: { mean: 480, sd: 2, count: 5 },
      offsetMs: 480,
    });
    const talk = delaysOf(slow).find((d) => d.kind === 'conversation' && d.listenerId === 'pupil')!;
    expect(talk).toMatchObject({
      state: 'fix',
      says: { code: 'paths.noRealConversationOne' },
    });
    expect(talk.delay.kind).toBe('typical');
  });
  it('keeps music and voice in time where both come by one way, and says what to move where they do not', () => {
    const shed = copy(clayHour);
    expect(delaysOf(shed).find((d) => d.kind === 'together')).toMatchObject({ listenerId: 'pupil', state: 'good' });
    const shared = {
      ...shed,
      cables: shed.cables.map((c) => (c.id === 'music' ? { ...c, to: { deviceId: 'call', portId: 'near-share' } } : c)),
    };
    const apart = delaysOf(shared).find((d) => d.kind === 'together')!;
    expect(apart.state).toBe('fix');
    expect(apart.sourceIds).toEqual(['music', 'teacher']);
    expect(apart.says).toMatchObject({
      params: { mend: { code: 'paths.theyEnterOverTwo', params: { where: 'Call with the pupils' } } },
    });
    const relay = copy(boathouse);
    const late = {
      ...relay,
      devices: relay.devices.map((d) =>
        d.id === 'mixer'
          ? { ...d, settings: { ...d.settings, 'strip-1-delay': { value: 90, known: 'confirmed' as const } } }
          : d,
      ),
    };
    const limp = delaysOf(late).find((d) => d.kind === 'together' && d.listenerId === 'stream')!;
    expect(limp).toMatchObject({ state: 'fix', sourceIds: ['wren', 'jingles'] });
    expect(limp.says).toMatchObject({ code: 'paths.withMend', params: { mend: { code: 'paths.theyOnlyMeetAt' } } });
  });
  it('tells the own voice where it comes back soon and loud, and leaves echoes to their own rule', () => {
    const relay = copy(boathouse);
    const own = delaysOf(relay).filter((d) => d.kind === 'own-voice');
    for (const d of own) expect(d.delay.value.nominal).toBeLessThan(30);
    expect(delaysOf(relay).every((d) => d.goodMs < d.badMs && textOf(d.source).length > 5)).toBe(true);
  });
});
