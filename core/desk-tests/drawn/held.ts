import type { ScanInput, ScanLink, ScanRead } from '#core/desk-tests/scan/index.ts';
import {
  type Disagreement,
  expectedOf,
  type Judged,
  judge,
  type Known,
  type Players,
  type TakeRead,
  type TapCell,
} from '#core/desk-tests/tap-test/index.ts';
import { bandLevels, type TuneReading } from '#core/desk-tests/tunes/index.ts';
import type { PortRef, Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import type { Bindings } from './bind.ts';

/**
 * A page that plays and records knows its own levels. What browsers say of their own delay is off by up to 10 ms on each end
 * (measured: 9 ms from one opening to the next), and resolves about 2 ms.
 */
export const SCAN_KNOWN: Known = { levels: true, startsWithinMs: 10, timesToMs: 2 };
/** A path that wasn't seen would have been by so much, dB. */
const WOULD_SHOW_DB = 6;
/** Second arrivals so soon may be a wall, ms. */
const REFLECTION_MS = 20;
/** Where seconds could be seen at all, dB under the first. */
const SECONDS_DB = -18;

export const probeOutput = (index: number): string => `output-${index + 1}`;
export const probeInput = (index: number): string => `input-${index + 1}`;

/** The rig with the outputs of a scan as its sources, and its inputs as its destinations, by their names in the browser. */
export function probed(rig: Rig, scan: ScanRead, bindings: Bindings): Rig {
  const at = (refs: Bindings['outputs'], id: string): PortRef[] => {
    const ref = refs[id];
    return ref ? [ref] : [];
  };
  return {
    ...rig,
    // Its own list: what was computed of the rig with its own sources is kept by it.
    cables: [...rig.cables],
    sources: scan.outputs.flatMap(({ id, name }, i) =>
      at(bindings.outputs, id).map((sound) => ({
        id: probeOutput(i),
        name,
        letter: 'O',
        hue: 1,
        sound,
        level: [0, 0, 0] as [number, number, number],
      })),
    ),
    listeners: scan.inputs.flatMap(({ id, name }, i) =>
      at(bindings.inputs, id).map((sound) => ({ id: probeInput(i), name, sound })),
    ),
    plan: [],
    moments: [],
  };
}

/** A scan as readings of the probed rig: each input is a take, each output a player. */
interface ScanTakes {
  readonly rig: Rig;
  readonly takes: readonly TakeRead[];
  readonly players: Players;
}

function takesOf(rig: Rig, scan: ScanRead, bindings: Bindings): ScanTakes {
  const seen = probed(rig, scan, bindings);
  const expected = expectedOf(
    seen,
    evaluate(seen),
    seen.listeners.map((l) => l.id),
  );
  const outputs = scan.outputs.flatMap((output, i) =>
    seen.sources.some((s) => s.id === probeOutput(i)) ? [{ output, tune: i, sourceId: probeOutput(i) }] : [],
  );
  const takes = scan.inputs.flatMap((input, i): TakeRead[] => {
    const listenerId = probeInput(i);
    if (!seen.listeners.some((l) => l.id === listenerId)) return [];
    const links = scan.links.filter((l) => l.inputId === input.id && outputs.some((o) => o.output.id === l.outputId));
    const strongest = links.reduce<ScanLink | null>((a, b) => (a && a.levelDb >= b.levelDb ? a : b), null);
    const tunes = outputs.flatMap(({ output, tune, sourceId }): TuneReading[] => {
      const link = links.find((l) => l.outputId === output.id);
      if (link) return [found(tune, link, strongest!, input)];
      const way = expected.get(`${sourceId}>${listenerId}`)?.ways[0];
      // Drawn too quiet to be seen: nothing is said of it.
      if (way && way.levelsDb.low < input.seesFromDb + WOULD_SHOW_DB) return [];
      return [{ id: tune, word: 'not-found', overChance: 0, confidence: null, heard: null }];
    });
    return [{ listenerId, fileId: listenerId, tunes }];
  });
  const players = outputs.map(({ tune, sourceId }) => ({ sourceId, tune, playerId: sourceId, knownAt: [] }));
  return { rig: seen, takes, players };
}

const found = (id: number, link: ScanLink, strongest: ScanLink, input: ScanInput): TuneReading => ({
  id,
  word: 'found',
  overChance: 0,
  confidence: null,
  heard: {
    atMs: link.delayMs,
    ppm: link.ppm,
    gainDb: link.levelDb,
    polarity:
      link.polarity === null || strongest.polarity === null ? null : link.polarity === strongest.polarity ? 1 : -1,
    seconds: {
      ways: link.again.map(({ afterMs, underDb }) => ({
        afterMs,
        underDb,
        perhapsReflection: afterMs > 0 && afterMs < REFLECTION_MS,
      })),
      noneAboveDb: Math.max(SECONDS_DB, Math.min(0, input.seesFromDb + WOULD_SHOW_DB - link.levelDb)),
    },
    jump: null,
    wander: null,
    bands: bandLevels(link.lowHz, link.highHz),
    blocks: [],
    response: [],
  },
});

/** A path of a scan whose ends are both in the drawing, against what that has. */
export interface HeldPath {
  readonly outputId: string;
  readonly inputId: string;
  readonly cell: TapCell;
  /** What differs from the drawing; clocks and bands are typical figures there, and differ with nothing amiss. */
  readonly differences: readonly Disagreement[];
}

export interface Held extends ScanTakes {
  readonly judged: Judged;
  readonly paths: readonly HeldPath[];
}

const TYPICAL_ONLY: ReadonlySet<Disagreement['kind']> = new Set(['band', 'clock']);

/** A scan against the drawing: what of each path agrees, and what doesn't. */
export function holdAgainst(rig: Rig, scan: ScanRead, bindings: Bindings): Held {
  const scanned = takesOf(rig, scan, bindings);
  const { rig: seen, takes, players } = scanned;
  const listenerIds = takes.map((t) => t.listenerId);
  const judged = judge(seen, expectedOf(seen, evaluate(seen), listenerIds), takes, players, SCAN_KNOWN);
  const outputIds = new Map(scan.outputs.map(({ id }, i) => [probeOutput(i), id]));
  const inputIds = new Map(scan.inputs.map(({ id }, i) => [probeInput(i), id]));
  const paths = judged.cells.map((cell) => ({
    outputId: outputIds.get(cell.sourceId)!,
    inputId: inputIds.get(cell.listenerId)!,
    cell,
    differences: cell.disagreements.filter((d) => !TYPICAL_ONLY.has(d.kind)),
  }));
  return { ...scanned, judged, paths };
}
