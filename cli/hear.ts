import type { Rig } from '#core/model/rig/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import { deviceName, evaluate, type Pair, type ReceivedPath } from '#core/signal/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';
import { inMoment, readRig } from './rig-file.ts';

const UNITS = { spl: 'dB SPL', dbu: 'dBu', dbfs: 'dBFS' } as const;
const round = (x: number): number => Math.round(x * 1000) / 1000;
const limits = (f: Figure) => ({
  low: round(f.value.low),
  nominal: round(f.value.nominal),
  high: round(f.value.high),
  kind: f.kind,
});

/** For every listener, every source that arrives: how loud, how late, by which way; and what the plan wanted. */
export const hear: Command = async ([path], { values }) => {
  const rig = inMoment(await readRig(path!), values.moment);
  const { pairs, loops, dropped } = evaluate(rig);
  const listeners = rig.listeners.map((listener) => {
    const here = pairs.filter((p) => p.listenerId === listener.id);
    return {
      listener: listener.id,
      name: listener.name,
      arrivals: here.flatMap((pair) => pair.ways.map((way) => arrivalJson(rig, pair, way))),
      missing: here.filter((p) => p.verdict.word === 'missing').map((p) => p.sourceId),
    };
  });
  return { json: { rig: rig.name, listeners, loops, dropped }, text: listeners.map(listenerText).join('\n\n') };
};

function arrivalJson(rig: Rig, pair: Pair, way: ReceivedPath) {
  return {
    source: pair.sourceId,
    level: {
      value: round(way.levelDb.nominal),
      low: round(way.levelDb.low),
      high: round(way.levelDb.high),
      unit: UNITS[way.scale],
    },
    noise: way.noiseDb === null ? null : { value: round(way.noiseDb), unit: UNITS[way.scale] },
    delayMs: limits(way.delay),
    offsetMs: way.offset && limits(way.offset),
    inTimeWith: pair.picture?.sourceId ?? null,
    conversions: way.conversions,
    polarity: way.polarity,
    clock: way.clock,
    sides: way.sides,
    way: way.deviceIds.map((id) => ({ device: id, name: deviceName(rig, id) })),
    wanted: pair.want,
    verdict: way === pair.ways[0] ? pair.verdict.word : null,
  };
}

function listenerText({
  name,
  arrivals,
  missing,
}: {
  name: string;
  arrivals: ReturnType<typeof arrivalJson>[];
  missing: string[];
}): string {
  const lines = arrivals.map((a) => {
    const offset = a.offsetMs
      ? say.vsVideo({ offset: `${a.offsetMs.nominal > 0 ? '+' : ''}${a.offsetMs.nominal.toFixed(0)}` })
      : '';
    return `${say.arrives({ source: a.source, level: a.level.value.toFixed(1), unit: a.level.unit, delay: a.delayMs.nominal.toFixed(0), low: a.delayMs.low.toFixed(0), high: a.delayMs.high.toFixed(0), offset, verdict: a.verdict ? `, ${a.verdict}` : '' })}\n    ${a.way.map((w) => w.name).join(' > ')}`;
  });
  return [name, ...lines, ...missing.map((m) => say.missing({ source: m }))].join('\n');
}
