import { useEffect, useRef, useState } from 'react';
import { BareButton, formatClock } from '#web/shared/parts/index.ts';
import { sourceOf } from '#web/shared/take/index.ts';
import { framesBetween, type SmallFrame } from '#web/shared/workers/index.ts';
import { takes as say } from '#words/index.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly take: BenchTake;
  /** The moment looked at, in the take's own time. */
  readonly atMs: number;
  /** What a chosen frame does; in the words of its button. */
  readonly verb: string;
  readonly onChoose: (timeMs: number) => void;
}

const FRAMES_EACH_SIDE = 2;
const WIDTH_PX = 148;
/** Someone who walks along frame by frame is not made to wait for each. */
const REST_MS = 120;
const USUAL_FRAME_MS = 1000 / 60;

/** The frames around a moment: hands that meet are seen by eye, where no light flashes. */
export function FrameStrip({ take, atMs, verb, onChoose }: Props) {
  const [frames, setFrames] = useState<readonly SmallFrame[]>([]);
  const [failed, setFailed] = useState(false);
  const frameMs = take.notes?.frameMs ?? USUAL_FRAME_MS;
  const reachMs = (FRAMES_EACH_SIDE + 0.4) * frameMs;
  useEffect(() => {
    let stop: (() => void) | null = null;
    const timer = setTimeout(() => {
      const job = framesBetween(sourceOf(take.id), atMs - reachMs, atMs + reachMs, WIDTH_PX);
      stop = job.stop;
      job.result.then(
        (found) => {
          setFrames(found);
          setFailed(false);
        },
        () => setFailed(true),
      );
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      stop?.();
    };
  }, [take.id, atMs, reachMs]);
  const nearest = frames.reduce<SmallFrame | null>(
    (best, f) => (best && Math.abs(best.timeMs - atMs) <= Math.abs(f.timeMs - atMs) ? best : f),
    null,
  );
  if (failed) return <p className="quiet small">{say.framesAroundThisMoment()}</p>;
  if (frames.length === 0)
    return <p className="quiet small">{say.loadingFramesAround({ atMs: formatClock(atMs, 3) })}</p>;
  return (
    <fieldset className="frames" aria-label={say.framesAroundMoment()}>
      {frames.map((frame) => (
        <BareButton
          key={frame.timeMs}
          className="frame-button"
          aria-label={`${verb} ${formatClock(frame.timeMs, 3)}`}
          aria-pressed={frame === nearest}
          onClick={() => onChoose(frame.timeMs)}
        >
          <Picture frame={frame} />
          <span className="small">{formatClock(frame.timeMs, 3)}</span>
        </BareButton>
      ))}
    </fieldset>
  );
}

function Picture({ frame: { image } }: { frame: SmallFrame }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    canvas.current?.getContext('2d')?.drawImage(image, 0, 0);
  }, [image]);
  return <canvas ref={canvas} width={image.width} height={image.height} />;
}
