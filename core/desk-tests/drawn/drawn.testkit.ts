import type { Scan, ScanLink } from '#core/desk-tests/scan/index.ts';
import { cellKey, expectedOf } from '#core/desk-tests/tap-test/index.ts';
import { findTypes, type Rig, soundDeviceName } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import type { Bindings } from './bind.ts';
import { drawnDevices } from './bind.ts';
import { probed, probeInput, probeOutput } from './held.ts';

/** Paths quieter than this are not seen, dB. */
const SEES_FROM_DB = -40;

/** Every sound device of a computer, as a browser that names them like the drawing would list them. */
function listed(rig: Rig, computerId: string): { readonly scan: Scan; readonly bindings: Bindings } {
  const types = findTypes(rig);
  const [plays, records] = (['play', 'record'] as const).map((use) => drawnDevices(rig, computerId, use)) as [
    ReturnType<typeof drawnDevices>,
    ReturnType<typeof drawnDevices>,
  ];
  const idOf = (i: number, what: string) => `${what}-${i}`;
  return {
    scan: {
      at: '2026-12-01T18:00:00.000Z',
      outputs: plays.map(({ ref }, i) => ({
        id: idOf(i, 'out'),
        name: soundDeviceName(rig, types, ref),
        sampleRateHz: 48_000,
        playedDbfs: -42,
      })),
      inputs: records.map(({ ref }, i) => ({
        id: idOf(i, 'in'),
        name: soundDeviceName(rig, types, ref),
        sampleRateHz: 48_000,
        channels: 2,
        seesFromDb: SEES_FROM_DB,
        silent: false,
        processing: [],
      })),
      links: [],
    },
    bindings: {
      outputs: Object.fromEntries(plays.map(({ ref }, i) => [idOf(i, 'out'), ref])),
      inputs: Object.fromEntries(records.map(({ ref }, i) => [idOf(i, 'in'), ref])),
    },
  };
}

/** What a scan of the desk would have found, were it as this rig; by its own reading of what the model says. */
export function scanOf(truth: Rig, computerId: string, dead: ReadonlySet<string> = new Set()) {
  const { scan, bindings } = listed(truth, computerId);
  const seen = probed(truth, scan, bindings);
  const expected = expectedOf(
    seen,
    evaluate(seen),
    seen.listeners.map((l) => l.id),
    dead,
  );
  const links = scan.outputs.flatMap((output, o) =>
    scan.inputs.flatMap((input, i): ScanLink[] => {
      const ways = expected.get(cellKey(probeOutput(o), probeInput(i)))?.ways ?? [];
      const [first, ...others] = ways;
      if (!first || first.levelDb < SEES_FROM_DB) return [];
      return [
        {
          outputId: output.id,
          inputId: input.id,
          levelDb: first.levelDb,
          delayMs: first.delayMs.nominal,
          spreadMs: 0.1,
          polarity: first.polarity,
          sides: 'straight',
          ppm: null,
          lowHz: Math.max(60, first.lowHz),
          highHz: Math.min(16_000, first.highHz),
          again: others
            .filter((w) => first.levelDb - w.levelDb < 18 && Math.abs(w.delayMs.nominal - first.delayMs.nominal) > 2)
            .map((w) => ({
              afterMs: w.delayMs.nominal - first.delayMs.nominal,
              underDb: first.levelDb - w.levelDb,
            })),
          levelSpreadDb: 0,
        },
      ];
    }),
  );
  return { scan: { ...scan, links }, bindings };
}
