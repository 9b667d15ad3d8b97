import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import {
  amplifies,
  type Cable,
  catalogue,
  type Device,
  type DeviceType,
  isProgram,
  parseRig,
  type Rig,
  showsPicture,
  soundsIntoRoom,
} from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import {
  changedSince,
  type DayEvent,
  type ListId,
  listOfDay,
  nextOfToday,
  openSession,
  orderDown,
  orderUp,
  type Step,
  sessionsOf,
  todayOf,
  unchangedSince,
} from './index.ts';

const copy = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const DEMOS = [boathouse, quayTalk, gliderCorner, skerryNet, clayHour, mothNight].map(copy);
const typeOf = (rig: Rig, deviceId: string) => {
  const { typeId } = rig.devices.find((d) => d.id === deviceId)!;
  return [...rig.types, ...catalogue].find((t) => t.id === typeId)!;
};

/** Any devices of the library, joined any way round, loops too; some carried about, some fed by others. */
const aRig = (): fc.Arbitrary<Rig> =>
  fc
    .tuple(
      fc.array(fc.tuple(fc.nat(catalogue.length - 1), fc.boolean()), { minLength: 2, maxLength: 14 }),
      fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat(), fc.nat(), fc.double({ min: 0.2, max: 9, noNaN: true })), {
        maxLength: 24,
      }),
      fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 3 }),
    )
    .map(([kinds, joins, feeds]) => {
      const devices: Device[] = kinds.map(([t, moves], i) => ({
        id: `d${i}`,
        typeId: catalogue[t]!.id,
        name: `Box ${i}`,
        settings: {},
        ...(moves && { moves: true }),
      }));
      for (const [a, b] of feeds)
        if (a % devices.length !== b % devices.length) devices[a % devices.length]!.fedBy = `d${b % devices.length}`;
      const cables = joins.flatMap(([a, b, p, q, lengthM], i): Cable[] => {
        const [from, to] = [devices[a % devices.length]!, devices[b % devices.length]!];
        const outs = catalogue.find((t) => t.id === from.typeId)!.ports.filter((x) => x.direction === 'out');
        const ins = catalogue.find((t) => t.id === to.typeId)!.ports.filter((x) => x.direction === 'in');
        if (from === to || outs.length === 0 || ins.length === 0) return [];
        const ends = {
          from: { deviceId: from.id, portId: outs[p % outs.length]!.id },
          to: { deviceId: to.id, portId: ins[q % ins.length]!.id },
        };
        return [{ id: `c${i}`, ...ends, medium: 'lead', lengthM, known: 'confirmed' }];
      });
      return {
        ...copy(quayTalk),
        devices,
        cables,
        sources: [],
        listeners: [],
        plan: [],
        tasks: [],
        moments: [],
        measurements: [],
      };
    });

const isLoudspeaker = (type: DeviceType) =>
  (soundsIntoRoom(type) || amplifies(type)) && !showsPicture(type) && !type.hosts;

/** What is wrong with an order, in words; empty for none. */
function broken(rig: Rig, steps: readonly Step[]): string[] {
  const at = new Map(steps.map((s, i) => [s.id, i]));
  const of = (kind: Step['kind']) => steps.filter((s) => s.kind === kind);
  const first = (all: readonly Step[]) => Math.min(...all.map((s) => at.get(s.id)!), Number.POSITIVE_INFINITY);
  const last = (all: readonly Step[]) => Math.max(...all.map((s) => at.get(s.id)!), Number.NEGATIVE_INFINITY);
  const wrong: string[] = [];
  const must = (ok: boolean, says: string) => void (ok || wrong.push(says));
  for (const s of steps) for (const a of s.after) must(at.get(a)! < at.get(s.id)!, `${s.id} before ${a}`);
  must(new Set(steps.map((s) => s.id)).size === steps.length, 'a step twice');
  const loud = (s: Step) => isLoudspeaker(typeOf(rig, s.deviceIds[0]!));
  const isCall = (s: Step) => typeOf(rig, s.deviceIds[0]!).ports.some((p) => p.does === 'call-microphone');
  const plugs = of('plug');
  must(last(of('quiet')) < first(plugs), 'a plug before silence');
  must(last(of('phantom-off')) < first(plugs), 'a plug under phantom power');
  must(last(plugs) < first(of('power-on')), 'a plug after power');
  must(last(plugs) < first(of('start').filter(isCall)), 'a plug after the call was started');
  must(last(of('power-on').filter((s) => !loud(s))) < first(of('power-on').filter(loud)), 'loudspeakers not last');
  must(last(of('power-on')) < first(of('volume-up')), 'loud before all is on');
  must(last(of('phantom-on')) < first(of('volume-up')), 'loud before phantom power stands');
  must(last(of('start').filter((s) => !isCall(s))) < first(of('start').filter(isCall)), 'a call before other programs');
  const picture = (s: Step) => s.why.code === 'run.videoBeforeAudioSources';
  must(last(plugs.filter(picture)) < first(plugs.filter((s) => !picture(s))), 'sound before picture');
  for (const b of of('balance'))
    for (const f of of('fasten'))
      if (f.deviceIds.includes(b.deviceIds[0]!))
        must(at.get(f.id)! < at.get(b.id)!, `${b.id} balanced before it is fast`);
  for (const s of [...of('quiet'), ...of('volume-up')])
    must(s.cautions.includes('ears'), `${s.id} without care for ears`);
  for (const s of [...of('phantom-on'), ...of('phantom-off')])
    must(s.cautions.includes('phantom'), `${s.id} without care`);
  for (const s of plugs) {
    const long = rig.cables.find((c) => c.id === s.cableId)!.lengthM > 3;
    must(!long || s.cautions.includes('floor'), `${s.id} across the floor`);
  }
  for (const s of of('power-on'))
    must(!typeOf(rig, s.deviceIds[0]!).power!.earthed || s.cautions.includes('earth'), `${s.id} earth`);
  for (const s of of('start').filter(isCall)) must(s.cautions.includes('consent'), `${s.id} consent`);
  return wrong;
}

describe('the order on the day', () => {
  it.each(DEMOS)('breaks no rule: $name', (rig) => {
    const steps = orderUp(rig);
    expect(broken(rig, steps)).toEqual([]);
    expect(steps.length).toBeGreaterThan(rig.cables.filter((c) => c.medium === 'lead').length / 2);
    for (const s of steps) {
      expect(`${textOf(s.says)} ${textOf(s.why)}`).not.toMatch(/undefined|NaN/);
    }
  });
  it('breaks none on any rig, however it is joined', () => {
    let plugs = 0;
    fc.assert(
      fc.property(aRig(), (rig) => {
        const steps = orderUp(rig);
        plugs += steps.filter((s) => s.kind === 'plug').length;
        expect(broken(rig, steps)).toEqual([]);
      }),
      { numRuns: 500 },
    );
    expect(plugs).toBeGreaterThan(1000);
  });
  it('switches on everything that has a supply, once, and starts every program', () => {
    const [relay] = DEMOS as [Rig];
    const steps = orderUp(relay);
    const on = steps.filter((s) => s.kind === 'power-on').map((s) => s.deviceIds[0]);
    expect(new Set(on).size).toBe(on.length);
    expect(on).toContain('mixer');
    const started = steps.filter((s) => s.kind === 'start').map((s) => s.deviceIds[0]!);
    expect(started.sort()).toEqual(
      relay.devices
        .filter((d) => isProgram(typeOf(relay, d.id)))
        .map((d) => d.id)
        .sort(),
    );
  });
  it('is short for a desk that stands: one look in place of every plug', () => {
    const [relay] = DEMOS as [Rig];
    const [full, short] = [orderUp(relay), orderUp(relay, { kind: 'standing' })];
    expect(short.some((s) => s.kind === 'plug')).toBe(false);
    expect(short.filter((s) => s.kind === 'look')).toHaveLength(1);
    expect(short.length).toBeLessThan(full.length * 0.7);
    expect(broken(relay, short)).toEqual([]);
  });
  it('is only what changed since it was last good', () => {
    const [relay] = DEMOS as [Rig];
    const last: Rig = {
      ...relay,
      cables: relay.cables.filter(
        (c) => c.medium !== 'lead' || c.id !== relay.cables.find((d) => d.medium === 'lead')!.id,
      ),
      devices: relay.devices.map((d) =>
        d.id === 'mixer'
          ? { ...d, settings: { ...d.settings, 'strip-1-delay': { value: 77, known: 'confirmed' as const } } }
          : d,
      ),
    };
    const since = orderUp(relay, { kind: 'since', last });
    expect(since.filter((s) => s.kind === 'plug')).toHaveLength(1);
    expect(since.filter((s) => s.kind === 'set').map((s) => s.says)).toEqual([
      {
        code: 'run.settingsChanged',
        params: expect.objectContaining({
          what: [expect.objectContaining({ params: { s: 'Channel 1, delay', value: '77', value2: '0' } })],
        }),
      },
    ]);
    const kept = unchangedSince(relay, last);
    expect(kept.cables).toBe(relay.cables.filter((c) => c.medium === 'lead').length - 1);
    expect(relay.devices.map((d) => d.id).filter((id) => !kept.deviceIds.includes(id))).toEqual(['mixer']);
    expect(changedSince(relay, last)).toBe(2);
    expect(changedSince(relay, relay)).toBe(0);
    const back = orderUp(last, { kind: 'since', last: relay });
    expect(back.filter((s) => s.kind === 'unplug')).toHaveLength(1);
    expect(broken(relay, since)).toEqual([]);
    expect(
      orderUp(relay, { kind: 'since', last: relay }).filter((s) => ['plug', 'unplug', 'set'].includes(s.kind)),
    ).toEqual([]);
  });
});

describe('one day after another', () => {
  it('goes through every step and every required check once, none before what it waits for', () => {
    for (const rig of DEMOS)
      for (const [list, last] of [
        ['first', null],
        ['standing', null],
        ['since', rig],
      ] as const) {
        const today = todayOf(rig, list, last);
        const done = new Map<ListId, string[]>();
        const events: DayEvent[] = [];
        const base = { sessionId: '11111111-1111-4111-8111-111111111111', by: 'desk', at: '2026-12-01T10:00:00.000Z' };
        const id = (n: number) => `22222222-2222-4222-8222-${String(n).padStart(12, '0')}`;
        events.push({ ...base, id: id(0), kind: 'begin', name: 'x' });
        for (let n = 1; ; n++) {
          const session = openSession(sessionsOf(events))!;
          const now = nextOfToday(today, session);
          if (!now) break;
          expect(now.at).toBe(n);
          const ticked = done.get(now.list) ?? [];
          if ('after' in now.item) for (const before of now.item.after) expect(ticked).toContain(before);
          done.set(now.list, [...ticked, now.item.id]);
          events.push({ ...base, id: id(n), kind: 'tick', list: now.list, itemId: now.item.id });
        }
        expect([...(done.get(list) ?? [])].sort()).toEqual(today.steps.map((s) => s.id).sort());
        expect([...(done.get('checks') ?? [])].sort()).toEqual(
          today.checks
            .filter((c) => c.must)
            .map((c) => c.id)
            .sort(),
        );
        expect(listOfDay(openSession(sessionsOf(events)), null)).toBe(today.steps.length > 0 ? list : 'first');
      }
  });
  it('asks for no switch that a device has not, and for nothing at the far side of a call', () => {
    const [rig] = DEMOS as [Rig];
    const says = orderUp(rig).map((s) => `${s.kind} ${s.deviceIds.join()}`);
    expect(says).not.toContain('power-on desk-webcam');
    expect(says.some((s) => s.includes('ilse'))).toBe(false);
    expect(says).toContain('power-on mixer');
  });
});

describe('the way down', () => {
  it('closes files, is silent, switches loudspeakers off first, phantom before plugs, plugs last', () => {
    fc.assert(
      fc.property(fc.oneof(aRig(), fc.constantFrom(...DEMOS)), (rig) => {
        const steps = orderDown(rig);
        const place = new Map(steps.map((s, i) => [s.id, i]));
        for (const s of steps) for (const a of s.after) expect(place.get(a)!).toBeLessThan(place.get(s.id)!);
        const order = (kind: Step['kind'], test: (s: Step) => boolean = () => true) =>
          steps.filter((s) => s.kind === kind && test(s)).map((s) => place.get(s.id)!);
        const loud = (s: Step) => isLoudspeaker(typeOf(rig, s.deviceIds[0]!));
        const precedes = (a: readonly number[], b: readonly number[]) =>
          expect(Math.max(-1, ...a)).toBeLessThan(Math.min(steps.length, ...b));
        precedes(order('end'), order('quiet'));
        precedes(order('quiet'), order('power-off'));
        precedes(
          order('power-off', loud),
          order('power-off', (s) => !loud(s)),
        );
        precedes(order('phantom-off'), order('unplug'));
        precedes(order('power-off'), order('unplug'));
      }),
      { numRuns: 200 },
    );
  });
});
