import ELK from 'elkjs/lib/elk.bundled.js';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { layout } from '#core/output/layout/index.ts';
import { libraryGraph } from '#core/output/layout/layout.testkit.ts';
import { planMap } from '#core/output/map/index.ts';
import { solveRouting } from '#core/routing/suggest/index.ts';
import { check } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { medianMs, type Row } from './report.ts';
import { bigRig, turned } from './rigs.ts';

const SIZES = [60, 252, 504, 996];

/** A rig of which nothing is known: no device or cable of it has been looked at. */
const anew = (rig: Rig): Rig => ({
  ...rig,
  devices: rig.devices.map((d) => ({ ...d })),
  cables: rig.cables.map((c) => ({ ...c })),
});

/** Evaluation with every check, as a rig grows: against reading the same document with Zod, and how it grows. */
export async function checks(): Promise<readonly Row[]> {
  const times = SIZES.map((devices) => {
    const rig = bigRig(devices);
    const json = JSON.stringify(rig);
    const runs = devices > 300 ? 9 : 60;
    const ms = medianMs(runs, () => {
      const copy = anew(rig);
      check(copy, evaluate(copy));
    });
    const first = evaluate(rig);
    check(rig, first);
    let turns = 0;
    const turnMs = medianMs(runs, () => {
      const next = turned(rig, turns++);
      check(next, evaluate(next, first));
    });
    const parseMs = medianMs(5, () => void parseRig(JSON.parse(json)));
    return { devices, cables: rig.cables.length, ms, turnMs, parseMs };
  });
  const [small] = times;
  const large = times[times.length - 1]!;
  return [
    ...times.map(({ devices, cables, ms, turnMs, parseMs }) => ({
      what: `one setting turned, evaluated and with all checks, ${devices} devices, ${cables} cables`,
      ours: `${turnMs.toFixed(1)} ms (all of it new: ${ms.toFixed(1)} ms)`,
      other: `reading and checking the document, Zod: ${parseMs.toFixed(1)} ms`,
      ratio: parseMs / turnMs,
      goal: devices === 60 ? 'under 8 ms' : devices > 900 ? 'under 120 ms' : '',
      reached: devices === 60 ? turnMs < 8 : devices > 900 ? turnMs < 120 : true,
    })),
    {
      what: `all of it new: growth from ${small!.devices} to ${large.devices} devices`,
      ours: `${(large.ms / small!.ms).toFixed(1)} times`,
      other: `devices: ${(large.devices / small!.devices).toFixed(1)} times`,
      ratio: large.devices / small!.devices / (large.ms / small!.ms),
      goal: 'at most 20 times',
      reached: large.ms / small!.ms < 20,
    },
  ];
}

/** The line map of 60 devices against a well-known layout library; and of a thousand, which that takes minutes for. */
export async function layouts(): Promise<readonly Row[]> {
  const rig = bigRig(60);
  const { shapes, wires } = planMap(rig, evaluate(rig), 'all');
  const ours = medianMs(12, () => void layout(shapes, wires));
  const elk = new ELK();
  await elk.layout(libraryGraph(shapes, wires));
  const start = performance.now();
  for (let i = 0; i < 3; i++) await elk.layout(libraryGraph(shapes, wires));
  const theirs = (performance.now() - start) / 3;
  return [
    {
      what: `line map of ${shapes.length} devices and ${wires.length} lines`,
      ours: `${ours.toFixed(0)} ms`,
      other: `elkjs, layered: ${theirs.toFixed(0)} ms`,
      ratio: theirs / ours,
      goal: 'under 100 ms',
      reached: ours < 100,
    },
    largeMap(),
  ];
}

function largeMap(): Row {
  const rig = bigRig(996);
  const { shapes, wires } = planMap(rig, evaluate(rig), 'all');
  const ms = medianMs(3, () => void layout(shapes, wires));
  return {
    what: `line map of ${shapes.length} devices and ${wires.length} lines`,
    ours: `${ms.toFixed(0)} ms`,
    other: '',
    ratio: null,
    goal: 'under 2 s',
    reached: ms < 2000,
  };
}

/** The settings that make the demo as its plan wants it, cold and warm, in evaluations of a rig of which nothing is known. */
export async function solving(): Promise<readonly Row[]> {
  const begun = performance.now();
  const { changes, evaluations } = solveRouting(boathouse);
  const coldMs = performance.now() - begun;
  const ms = medianMs(15, () => void solveRouting(anew(boathouse)));
  const wholeMs = medianMs(60, () => void evaluate(anew(boathouse)).pairs);
  return [
    {
      what: `make it so, Boathouse relay: ${changes.length} settings, ${evaluations} rigs looked at`,
      ours: `${ms.toFixed(0)} ms (cold: ${coldMs.toFixed(0)} ms)`,
      other: `one whole evaluation: ${wholeMs.toFixed(1)} ms; so many of them: ${(ms / wholeMs).toFixed(0)}`,
      ratio: wholeMs / ms,
      goal: 'at most 40 whole evaluations',
      reached: ms < 40 * wholeMs,
    },
  ];
}
