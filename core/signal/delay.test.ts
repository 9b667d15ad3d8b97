import { describe, expect, it } from 'vitest';
import type { Rig } from '#core/model/rig/index.ts';
import { delayOf, evaluate, throughBox } from './index.ts';
import { box, latencyFigure, rigOf, through } from './rigs.testkit.ts';

/** A chain that takes 10 to 90 ms as typed, with its output fed back to itself at -20 dB; measured: 64.2 ms. */
function measured(takes: readonly { figures: readonly string[]; ms: number }[]): Rig {
  const slow = box(
    'slow',
    2,
    [
      through(1, 1, { do: 'latency', figure: 'ms' }),
      through(2, 1, { do: 'fixed-gain', db: -20 }, { do: 'latency', figure: 'ms' }),
    ],
    { figures: { ms: latencyFigure(10, 50, 90) } },
  );
  const pass = box('pass', 2, [through(1, 1, { do: 'latency', figure: 'ms' }), through(1, 2)], {
    figures: { ms: latencyFigure(0, 5, 10) },
  });
  const rig = rigOf({
    types: [slow, pass, box('src', 1, [])],
    devices: { src: 'src', a: 'slow', b: 'pass' },
    cables: ['src.out-1 > a.in-1', 'a.out-1 > b.in-1', 'b.out-2 > a.in-2'],
    source: 'src.out-1',
    listener: 'b.out-1',
  });
  return {
    ...rig,
    measurements: takes.map(({ figures, ms }, i) => ({
      id: `m-${i}`,
      label: `take ${i}`,
      takenAt: '2026-11-29T10:00:00.000Z',
      kind: 'delay',
      sourceId: 's',
      listenerId: 'l',
      terms: figures.map((figure) => ({ figure, sign: 1 })),
      ms: { mean: ms, sd: 0.5, count: 4 },
      offsetMs: ms,
    })),
  };
}

describe('a delay that was measured', () => {
  it('is read the same at the listener, at the tap, through the box and round the loop', () => {
    const rig = measured([{ figures: ['a.ms'], ms: 64.2 }]);
    const evaluation = evaluate(rig);
    const [way] = evaluation.pairs[0]!.ways;
    expect(way!.delay.value).toMatchObject({ low: 63.2, nominal: 69.2, high: 75.2 });
    expect(delayOf(evaluation, way!.arrival).value).toEqual(way!.delay.value);
    // Upstream, at another socket of the way.
    const [node] = evaluation.graph.nodesOf({ deviceId: 'a', portId: 'out-1' });
    const first = evaluation.arrivals[node!]!.find((a) => a.levelDb === 0)!;
    expect(delayOf(evaluation, first)).toMatchObject({ value: { low: 63.2, nominal: 64.2, high: 65.2 } });
    expect(throughBox(rig, 'a').at('in-1', 'out-1')).toMatchObject({
      passes: true,
      delay: { value: { nominal: 64.2 } },
    });
    expect(evaluation.loops).toMatchObject([{ gainDb: expect.closeTo(-20, 6), delay: { value: { nominal: 64.2 } } }]);
  });
  it('that was measured over several boxes together holds where all of them are on the way, and nowhere by halves', () => {
    const rig = measured([{ figures: ['a.ms', 'b.ms'], ms: 80 }]);
    const evaluation = evaluate(rig);
    const [way] = evaluation.pairs[0]!.ways;
    expect(delayOf(evaluation, way!.arrival).value).toMatchObject({ low: 79, nominal: 80, high: 81 });
    expect(throughBox(rig, 'a').at('in-1', 'out-1')).toMatchObject({ delay: { value: { nominal: 50 } } });
  });
});
