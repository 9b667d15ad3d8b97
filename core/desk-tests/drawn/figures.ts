import { textOf } from '#core/base/said/index.ts';
import type { ScanRead } from '#core/desk-tests/scan/index.ts';
import { type Base, figuresOf, MAX_LABEL, measurementOf, type Taken, taken } from '#core/desk-tests/tap-test/index.ts';
import type { Measurement, Rig } from '#core/model/rig/index.ts';
import { difference, evaluate, uncertain } from '#core/signal/index.ts';
import { type Held, SCAN_KNOWN } from './held.ts';
import { say } from './sayings.ts';

/** Between paths of one output and input, browsers' own delays cancel, ms, one standard deviation (measured: 0.8 at most). */
const BETWEEN_SD_MS = 0.5;
/** Of a path by itself they don't: both ends uniform within what they may be off. */
const ALONE_SD_MS = Math.sqrt(2 / 3) * SCAN_KNOWN.startsWithinMs;

/** A measurement of a probed path, said of a source and a destination of the rig that its figures act on; null for none. */
function atHome(rig: Rig, measurement: Measurement): Measurement | null {
  if (measurement.kind === 'drift') return measurement;
  if (measurement.kind !== 'delay') return null;
  const figures = new Set(measurement.terms.map((t) => t.figure));
  const pair = evaluate(rig).pairs.find((p) => p.ways.some((w) => w.soundTerms.some((t) => figures.has(t.key))));
  return pair ? { ...measurement, sourceId: pair.sourceId, listenerId: pair.listenerId } : null;
}

/**
 * Figures that a scan measures: delays between paths as exact as they were read, and those of single paths where what the
 * drawing rests on is known less well than what browsers say of their own delay.
 */
export function scanFigures(
  rig: Rig,
  scan: ScanRead,
  { rig: seen, takes, players, judged }: Held,
  newId: () => string,
): Taken[] {
  const base: Base = { takenAt: scan.at, newId, sdMs: BETWEEN_SD_MS };
  const between = figuresOf(seen, judged, takes, players, base).flatMap((figure) => {
    const [measurement] = figure.edit.kind === 'batch' ? figure.edit.edits.slice(-1) : [figure.edit];
    if (measurement?.kind !== 'add-measurement') return [];
    const own = atHome(rig, measurement.measurement);
    if (!own) return [];
    const edits = figure.edit.kind === 'batch' ? figure.edit.edits.slice(0, -1) : [];
    return [{ ...figure, edit: { kind: 'batch' as const, edits: [...edits, { ...measurement, measurement: own }] } }];
  });
  const alone = judged.cells.flatMap((cell) => {
    if (!cell.read?.heard || !cell.time || cell.disagreements.length > 0) return [];
    const { terms } = cell.time.way;
    const half = uncertain(difference(terms, [])).reduce((ms, t) => ms + (t.term.ms.high - t.term.ms.low) / 2, 0);
    if (half < 2 * ALONE_SD_MS) return [];
    const path = `${nameOf(seen.sources, cell.sourceId)} → ${nameOf(seen.listeners, cell.listenerId)}`;
    const label = textOf(say.figure({ says: path })).slice(0, MAX_LABEL);
    const read = measurementOf(cell, [[terms, 1, cell.read.heard.atMs]], label, {
      ...base,
      sdMs: Math.round(10 * ALONE_SD_MS) / 10,
    });
    const own = read && (atHome(rig, read) as typeof read | null);
    return own ? taken(rig, own, say.reads({ figure: path, ms: own.offsetMs.toFixed(1) })) : [];
  });
  return [...between, ...alone];
}

const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((e) => e.id === id)!.name;
