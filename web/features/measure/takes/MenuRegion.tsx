import { Button, chakra } from '@chakra-ui/react';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { isUnderWay, useWork, WorkLine } from '#web/shared/jobs/index.ts';
import { Details, formatClock, formatNumber, NumberInput, rich } from '#web/shared/parts/index.ts';
import { sourceOf } from '#web/shared/take/index.ts';
import { framesBetween, matchMenu, type Region, type SmallFrame } from '#web/shared/workers/index.ts';
import { takes as say } from '#words/index.ts';
import { notesWithClicks } from './marks.ts';
import type { BenchTake } from './useTake.ts';

const WIDTH_PX = 480;
const ONE_FRAME_MS = 60;
const FEWEST = 4;
const PERCENT = 100;
const EDGES = [
  ['x', say.left],
  ['y', say.top],
  ['width', say.width],
  ['height', say.height],
] as const;

/** Where no slate gets onto the console: a region of the picture is marked, and its changes matched with the sound's clicks. */
export function MenuRegion({ take, atMs }: { take: BenchTake; atMs: number }) {
  return (
    <Details summary={say.menuClicksInsteadClaps()}>
      <Marking take={take} atMs={atMs} />
    </Details>
  );
}

function Marking({ take, atMs }: { take: BenchTake; atMs: number }) {
  const [frame, setFrame] = useState<SmallFrame | null>(null);
  const [region, setRegion] = useState<Region>({ x: 0.3, y: 0.3, width: 0.4, height: 0.4 });
  const [said, setSaid] = useState<string | null>(null);
  const { task, run, drop } = useWork();
  useEffect(() => {
    const fetching = framesBetween(sourceOf(take.id), atMs, atMs + ONE_FRAME_MS, WIDTH_PX);
    fetching.result.then(
      (found) => setFrame(found[0] ?? null),
      () => setFrame(null),
    );
    return fetching.stop;
  }, [take.id, atMs]);
  const match = async () => {
    setSaid(null);
    const clicks = await run({ name: take.name, start: (heard) => matchMenu(sourceOf(take.id), region, heard) });
    if (!clicks) return;
    const matched = clicks.filter((c) => c.clickMs !== null).length;
    if (matched > 0 && take.notes) take.change(notesWithClicks(take.notes, clicks));
    setSaid(
      matched > 0
        ? say.changesHaveTheirClick({ matched, clicks: clicks.length })
        : clicks.length < FEWEST
          ? say.regionChangesTimesMark({ clicks: clicks.length })
          : say.regionChangesTimesBut({ clicks: clicks.length }),
    );
  };
  return (
    <>
      <p className="quiet">{rich(say.menuClicksClickThrough, {})}</p>
      <RegionPicture frame={frame} region={region} onRegion={setRegion} />
      <chakra.p className="row" marginTop="8px">
        {EDGES.map(([key, name]) => (
          <span key={key} className="row">
            <span className="small quiet">{name()}</span>
            <NumberInput
              label={say.region({ name: name() })}
              value={Math.round(region[key] * PERCENT)}
              min={0}
              max={PERCENT}
              onValue={(v = 0) => setRegion({ ...region, [key]: v / PERCENT })}
            />
          </span>
        ))}
        {!isUnderWay(task) && <Button onClick={() => void match()}>{say.matchClicks()}</Button>}
        <WorkLine task={task} width="90px" onStop={drop} />
      </chakra.p>
      {said && <p role="status">{said}</p>}
      {frame && <p className="quiet small">{say.frameAt({ timeMs: formatClock(frame.timeMs, 2) })}</p>}
    </>
  );
}

/** A dark line on a light one: it is seen on any picture. */
const STROKES = [
  ['#fff', 5],
  ['#000', 2],
] as const;

function RegionPicture({
  frame,
  region,
  onRegion,
}: {
  frame: SmallFrame | null;
  region: Region;
  onRegion: (region: Region) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const from = useRef<{ x: number; y: number } | null>(null);
  useEffect(() => {
    if (frame) canvas.current?.getContext('2d')?.drawImage(frame.image, 0, 0);
  }, [frame]);
  if (!frame) return <p className="quiet small">{say.loadingFrame()}</p>;
  const { width, height } = frame.image;
  const place = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const share = (v: number) => Math.min(1, Math.max(0, v));
    return { x: share((event.clientX - box.left) / box.width), y: share((event.clientY - box.top) / box.height) };
  };
  const drag = (event: PointerEvent<SVGSVGElement>) => {
    if (!from.current) return;
    const [a, b] = [from.current, place(event)];
    onRegion({
      x: Math.min(a.x, b.x),
      y: Math.min(a.y, b.y),
      width: Math.max(0.02, Math.abs(a.x - b.x)),
      height: Math.max(0.02, Math.abs(a.y - b.y)),
    });
  };
  return (
    <div style={{ position: 'relative', width, height }}>
      <canvas ref={canvas} width={width} height={height} />
      <svg
        width={width}
        height={height}
        style={{ position: 'absolute', inset: 0, touchAction: 'none', cursor: 'crosshair' }}
        role="img"
        aria-label={say.regionWith({
          join: EDGES.map(([key, name]) => `${name()} ${formatNumber(region[key] * PERCENT)}%`).join(', '),
        })}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          from.current = place(e);
        }}
        onPointerMove={drag}
        onPointerUp={(e) => {
          drag(e);
          from.current = null;
        }}
      >
        {STROKES.map(([stroke, strokeWidth]) => (
          <rect
            key={stroke}
            x={region.x * width}
            y={region.y * height}
            width={region.width * width}
            height={region.height * height}
            fill="none"
            stroke={stroke}
            strokeWidth={strokeWidth}
          />
        ))}
      </svg>
    </div>
  );
}
