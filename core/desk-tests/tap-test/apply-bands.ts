import { listOf, textOf } from '#core/base/said/index.ts';
import { type BandEdge, edgesOf } from '#core/desk-tests/tunes/index.ts';
import { findPort, findTypes, type Measurement, type Rig } from '#core/model/rig/index.ts';
import { LIKE_DB } from './disagree.ts';
import type { TapCell } from './judge.ts';
import { sayBand, sayHz } from './say.ts';
import { say } from './sayings.ts';
import { type Base, inPlaceOf, MAX_LABEL, nameIn, type Taken } from './taken.ts';

/**
 * The bands of ways that come alone: of two that are nearly as loud no one knows which lets what pass. A source in air is
 * played by a speaker, small ones without lows: where its sound begins is not told then.
 */
export function bandsIn(rig: Rig, cells: readonly TapCell[], { takenAt, newId }: Base): Taken[] {
  const types = findTypes(rig);
  const inAir = new Set(rig.sources.filter((s) => findPort(rig, types, s.sound)?.level === 'air').map((s) => s.id));
  return cells.flatMap((cell) => {
    const { ways } = cell.expected;
    const { bands, seconds, wander } = cell.read!.heard!;
    const way = ways[0];
    const isAlone =
      ways.slice(1).every((w) => way!.levelDb - w.levelDb > LIKE_DB) && seconds.ways.every((s) => s.underDb > LIKE_DB);
    if (!way || wander || !isAlone) return [];
    const { low: lowest, high } = edgesOf(bands);
    const low = inAir.has(cell.sourceId) ? null : lowest;
    const isNews = [low, high].some((end) => end !== null && end !== 'beyond') || cell.disagreements.length > 0;
    if (!isNews) return [];
    const says = say.reaches({
      source: nameIn(rig.sources, cell.sourceId),
      listener: nameIn(rig.listeners, cell.listenerId),
      band: sayBand(low, high),
    });
    const measurement: Measurement = {
      kind: 'band',
      id: newId(),
      label: textOf(
        say.tap({
          says: say.at({
            source: nameIn(rig.sources, cell.sourceId),
            listener: nameIn(rig.listeners, cell.listenerId),
          }),
        }),
      ).slice(0, MAX_LABEL),
      takenAt,
      sourceId: cell.sourceId,
      listenerId: cell.listenerId,
      deviceIds: [...way.deviceIds],
      lowHz: endOf(low),
      highHz: endOf(high),
    };
    const before = rig.measurements.filter(
      (m) => m.kind === 'band' && m.sourceId === cell.sourceId && m.listenerId === cell.listenerId,
    );
    const spreads = [low, high].flatMap((end) =>
      end === null || end === 'beyond' ? [] : [say.to({ low: sayHz(end.low), high: sayHz(end.high) })],
    );
    const spread = spreads.length > 0 ? listOf('and', spreads) : say.beyondBandTestTune();
    return inPlaceOf(rig, before, measurement, says, spread);
  });
}

const endOf = (end: BandEdge): [number, number, number] | 'beyond' | null =>
  end === null || end === 'beyond' ? end : [end.low, end.nominal, end.high];
