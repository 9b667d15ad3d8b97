import { coarser, layoutName, type Peaks } from '#core/audio/samples/index.ts';
import { rateName } from '#core/model/units/index.ts';
import type { LaneData, LanesProps } from '#web/shared/charts/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { offsetOfNotes } from '#web/shared/take/index.ts';
import { takes as say } from '#words/index.ts';
import type { MarkKind } from './marks.ts';
import type { BenchTake } from './useTake.ts';

const laneKey = (takeId: string, kind: MarkKind): string => `${takeId}/${kind}`;
export function readLaneKey(key: string): { takeId: string; kind: MarkKind } {
  const [takeId, kind] = key.split('/') as [string, MarkKind];
  return { takeId, kind };
}

type Drawn = Required<Pick<LaneData, 'peaks' | 'reach'>>;
const known = new WeakMap<Peaks, Drawn>();
const COARSER = 16;
const FEWEST_BINS = 4000;

/** Peaks at several grains, each sixteen times as coarse as the one before; worked out once for a take. */
function drawn(peaks: Peaks): Drawn {
  const before = known.get(peaks);
  if (before) return before;
  const grains = [peaks];
  for (let last = peaks; last.low.length > FEWEST_BINS; grains.push(last)) last = coarser(last, COARSER);
  const top = grains.at(-1)!;
  let reach = 0;
  for (let i = 0; i < top.low.length; i++) reach = Math.max(reach, top.high[i]!, -top.low[i]!);
  const made: Drawn = {
    peaks: grains.map((p) => ({ binMs: (1000 * p.framesPerBin) / p.sampleRateHz, low: p.low, high: p.high })),
    reach,
  };
  known.set(peaks, made);
  return made;
}

/** The lanes of the takes, in order: a take's picture above its sound. */
export function lanesOf(bench: readonly BenchTake[], shiftsMs: readonly number[]): LaneData[] {
  return bench.flatMap((take, i): LaneData[] => {
    const { look, notes, id, name } = take;
    if (!look) return [];
    const marks = (kind: MarkKind) =>
      (notes?.[kind] ?? []).map((m, n) => ({ key: `${laneKey(id, kind)}#${n}`, atMs: m.atMs, used: m.used }));
    const shiftMs = shiftsMs[i] ?? 0;
    const several = bench.length > 1 ? `${name}: ` : '';
    const lanes: LaneData[] = [];
    if (look.picture) {
      const { width, height, frameRate, uneven, pieces } = look.picture;
      lanes.push({
        key: laneKey(id, 'flashes'),
        label: say.videoLane({ several }),
        note: `${width} × ${height}${frameRate ? say.atFrameRate({ frameRate: rateName(frameRate) }) : uneven ? say.unevenFrames() : ''}`,
        kind: 'picture',
        marks: marks('flashes'),
        shiftMs,
        pieces,
      });
    }
    if (look.sound) {
      const { channels, layout, sampleRateHz, peaks } = look.sound;
      lanes.push({
        key: laneKey(id, 'claps'),
        label: look.picture ? say.audioSameFile({ several }) : say.audio({ several }),
        note: say.laneNote({
          tracks: layout ? layoutName(layout) : say.tracks({ channels }),
          n1000: formatNumber(sampleRateHz / 1000, sampleRateHz % 1000 ? 1 : 0),
          content: i > 0 && shiftMs !== 0 ? say.alignedByContent() : '',
        }),
        kind: 'sound',
        marks: marks('claps'),
        shiftMs,
        ...drawn(peaks),
      });
    }
    return lanes;
  });
}

/** A key press moves a flash by a frame and a clap by a millisecond. */
export const laneStepMs = (take: BenchTake, lane: LaneData): number =>
  lane.kind === 'picture' ? (take.notes?.frameMs ?? 1000 / 60) : 1;

/** Dimension lines from flash to clap, drawn over the sound of the same take. */
export function pairLines(bench: readonly BenchTake[], shiftsMs: readonly number[]): LanesProps['pairs'] {
  return bench.flatMap((take, i) => {
    const found = take.notes && offsetOfNotes(take.notes);
    const shiftMs = shiftsMs[i] ?? 0;
    return (found?.pairs ?? []).map((p) => ({
      fromMs: p.flashMs + shiftMs,
      toMs: p.clapMs + shiftMs,
      offsetMs: p.offsetMs,
      used: p.used,
      laneKey: laneKey(take.id, 'claps'),
    }));
  });
}
