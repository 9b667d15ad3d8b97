import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, findTypes, parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { type BlockingSetting, evaluate, type Stop, whereItStops } from './index.ts';

const demos = [boathouse, quayTalk, gliderCorner, skerryNet].map((r) => parseRig(JSON.parse(JSON.stringify(r))));

const opened = (rig: Rig, doors: readonly BlockingSetting[]): Rig => {
  const edits = doors.map(
    ({ deviceId, settingId, opensAt }): Edit => ({
      kind: 'set-setting',
      deviceId,
      settingId,
      setting: { value: opensAt, known: 'confirmed' },
    }),
  );
  const done = applyEdit(rig, { kind: 'batch', edits });
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};

/** Every source at every listener, with where it stops. */
function all(rig: Rig): { pair: string; arrives: boolean; stop: Stop | null }[] {
  const { graph, arrivals } = evaluate(rig);
  return rig.sources.flatMap((source, i) =>
    rig.listeners.map((listener) => ({
      pair: `${source.id}>${listener.id}`,
      arrives: graph.nodesOf(listener.sound).some((n) => arrivals[n]!.some((a) => a.sourceIndex === i)),
      stop: whereItStops(graph, source.sound, listener.sound),
    })),
  );
}
const arrives = (rig: Rig, pair: string): boolean => all(rig).find((p) => p.pair === pair)!.arrives;

describe('where a sound stops', () => {
  it('is nowhere, exactly where it arrives', () => {
    for (const rig of demos) for (const { arrives: heard, stop } of all(rig)) expect(stop === null).toBe(heard);
  });
  it('is told by doors that, all open, let it through, and none of which can stay shut', () => {
    let shut = 0;
    for (const rig of demos) {
      for (const { pair, stop } of all(rig)) {
        if (stop?.kind !== 'shut') continue;
        shut++;
        expect(arrives(opened(rig, stop.doors), pair), pair).toBe(true);
        for (const door of stop.doors)
          expect(
            arrives(
              opened(
                rig,
                stop.doors.filter((d) => d !== door),
              ),
              pair,
            ),
            `${pair} ${door.settingId}`,
          ).toBe(false);
      }
    }
    expect(shut).toBeGreaterThan(15);
  });
  it('tells no fewer doors where one alone would do: as trying each of them has it', () => {
    const [rig] = demos as [Rig];
    const { graph } = evaluate(rig);
    const single = new Map(
      graph.shut.flatMap((s) =>
        s.doors.map((d) => [`${s.deviceId}.${d.settingId}=${d.opensAt}`, { deviceId: s.deviceId, ...d }]),
      ),
    );
    const mended = new Set<string>();
    for (const door of single.values()) for (const p of all(opened(rig, [door]))) if (p.arrives) mended.add(p.pair);
    let one = 0;
    for (const { pair, arrives: heard, stop } of all(rig)) {
      if (heard || stop?.kind !== 'shut') continue;
      expect(stop.doors.length === 1, pair).toBe(mended.has(pair));
      if (stop.doors.length === 1) one++;
    }
    expect(one).toBeGreaterThan(10);
  });
  it('is a lead that is not there: how far it comes, and what feeds the place', () => {
    const [rig] = demos as [Rig];
    const cut: Rig = { ...rig, cables: rig.cables.filter((c) => c.id !== 'wren-xlr') };
    const source = cut.sources.find((s) => s.id === 'wren')!;
    const listener = cut.listeners.find((l) => l.id === 'backup')!;
    const stop = whereItStops(
      evaluate({ ...cut, cables: cut.cables.filter((c) => c.medium !== 'air' || c.to.deviceId === 'wren-microphone') })
        .graph,
      source.sound,
      listener.sound,
    );
    expect(stop).toMatchObject({ kind: 'no-way', fedBy: ['mixer'] });
    expect(stop?.kind === 'no-way' && stop.reaches.every((id) => findTypes(cut).size > 0 && id !== 'mixer')).toBe(true);
  });
});
