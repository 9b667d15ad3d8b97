import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { TakeRecord } from '#api/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import {
  heldWithin,
  type LaneData,
  Lanes,
  type LaneView,
  useWidth,
  wholeView,
  zoomAbout,
} from '#web/shared/charts/index.ts';
import { failureOf, WorkLine } from '#web/shared/jobs/index.ts';
import { formatNumber, off, rich, useKey, useKeyHint } from '#web/shared/parts/index.ts';
import { MAX_FLASHES, offsetOf } from '#web/shared/take/index.ts';
import { takes as say } from '#words/index.ts';
import { Findings } from './Findings.tsx';
import { FrameStrip } from './FrameStrip.tsx';
import { laneStepMs, lanesOf, pairLines, readLaneKey } from './lanes-of.ts';
import { MenuRegion } from './MenuRegion.tsx';
import { addMark, moveMark, removeMark, toggleMark } from './marks.ts';
import { Onwards } from './Onwards.tsx';
import { Pitches } from './Pitches.tsx';
import { Slates } from './Slates.tsx';
import { TakeCard } from './TakeCard.tsx';
import { TakeMeasured } from './TakeMeasured.tsx';
import { useComparison } from './useComparison.ts';
import { type BenchTake, useTake } from './useTake.ts';

interface Known {
  readonly id: string;
  readonly record: TakeRecord | undefined;
  readonly name: string;
}

interface Props {
  readonly takes: readonly Known[];
  readonly kept: readonly TakeRecord[];
  readonly onOpen: () => void;
  readonly onAdd: (id: string) => void;
  readonly onRemove: (id: string) => void;
  readonly onClear: () => void;
  /** A file that holds no take leaves Measure; what was wrong with it is said. */
  readonly onUnreadable: (id: string, why: string) => void;
  readonly rigId: string | null;
  readonly rig: Rig | null;
  readonly evaluation: Evaluation | null;
}

const NOBODY: Known = { id: '', record: undefined, name: '' };

/** One or two takes on Measure. Hooks cannot be called in a loop, so there are two kinds of bench. */
export function OpenTakes(props: Props) {
  return props.takes.length === 2 ? <TwoTakes {...props} /> : <OneTake {...props} />;
}

function OneTake(props: Props) {
  const { id, record, name } = props.takes[0] ?? NOBODY;
  return <Lying {...props} bench={[useTake(id, record, name)]} />;
}

function TwoTakes(props: Props) {
  const [a = NOBODY, b = NOBODY] = props.takes;
  return <Lying {...props} bench={[useTake(a.id, a.record, a.name), useTake(b.id, b.record, b.name)]} />;
}

const SAME_SOUND = 0.5;
/** Maximum number of other takes offered for comparison, newest first. */
const MAX_BESIDE = 16;
/** Stretch that is shown around a position one jumps to, s. */
const SEEN_MS = 400;

function Lying({
  bench,
  kept,
  onOpen,
  onAdd,
  onRemove,
  onClear,
  onUnreadable,
  rigId,
  rig,
  evaluation,
}: Props & { bench: readonly BenchTake[] }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const bad = bench.find((t) => t.isUnreadable);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each such file
  useEffect(() => {
    if (bad) onUnreadable(bad.id, `${bad.name}: ${failureOf(bad.task?.error)}`);
  }, [bad?.id]);
  const [first, second] = bench;
  const ready = second?.look?.sound && first?.look?.sound;
  const comparison = useComparison(ready ? first.id : null, ready ? second.id : null);
  const shiftMs = comparison.offset && comparison.offset.confidence >= SAME_SOUND ? -comparison.offset.offsetMs : 0;
  const lanes = lanesOf(bench, [0, shiftMs]);
  const wholeMs = Math.max(1000, ...bench.map((t, i) => (t.look?.durationMs ?? 0) + (i === 1 ? shiftMs : 0)));
  const [view, setView] = useState<LaneView | null>(null);
  const [cursor, setCursor] = useState<{ laneKey: string; ms: number } | null>(null);
  const [selected, setSelected] = useState<string | null>(null);
  const [pitched, setPitched] = useState(false);
  const shown = heldWithin(view ?? wholeView(width, wholeMs), width, wholeMs);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another length is another axis
  useEffect(() => setView(null), [wholeMs]);
  const zoom = (factor: number) =>
    setView(zoomAbout(shown, cursor ? (cursor.ms - shown.startMs) / shown.msPerPx : width / 2, factor, width, wholeMs));
  const pan = (share: number) =>
    setView(heldWithin({ ...shown, startMs: shown.startMs + share * width * shown.msPerPx }, width, wholeMs));
  /** Goes near to a moment, and puts the cursor there. */
  const seeAt = (ms: number) => {
    const msPerPx = Math.min(shown.msPerPx, SEEN_MS / width);
    setView(heldWithin({ startMs: ms - (width / 2) * msPerPx, msPerPx }, width, wholeMs));
    const lane = lanes.find((l) => l.kind === 'sound');
    if (lane) setCursor({ laneKey: lane.key, ms });
  };
  const chosenLane = cursor?.laneKey ?? lanes.at(-1)?.key ?? null;
  const takeOf = (laneKey: string) => bench.find((t) => t.id === readLaneKey(laneKey).takeId)!;
  const mark = () => {
    const lane = lanes.find((l) => l.key === chosenLane);
    if (!lane) return;
    const take = takeOf(lane.key);
    const atMs = (cursor?.ms ?? shown.startMs + (width / 2) * shown.msPerPx) - lane.shiftMs;
    if (take.notes) take.change(addMark(take.notes, readLaneKey(lane.key).kind, atMs));
  };
  useKey('arrowleft', say.earlierTitle(), () => pan(-0.2));
  useKey('arrowright', say.laterTitle(), () => pan(0.2));
  useKey('plus,=', say.zoomIn(), () => zoom(0.6));
  useKey('minus', say.zoomOut(), () => zoom(1 / 0.6));
  useKey('0', say.showAll(), () => setView(null));
  useKey('m', say.addMarkAtCursor(), mark);
  useKey('s', say.spectrogramOnOrOff(), () => setPitched(!pitched));
  useKey('c', say.clear(), onClear);
  useKeyHint('tab', say.toNextMark());
  useKeyHint('arrowleft,arrowright', say.onMarkFrameOr());
  useKeyHint('space', say.onMarkExcludeOr());
  useKeyHint('delete', say.onMarkRemoveIt());

  const withMark = (laneKey: string, markKey: string, change: typeof removeMark) => {
    const take = takeOf(laneKey);
    if (take.notes) take.change(change(take.notes, readLaneKey(laneKey).kind, Number(markKey.split('#')[1])));
  };
  const eye = momentSeen(bench, lanes, selected, cursor);
  const others = kept.filter((t) => !bench.some((b) => b.id === t.id));
  return (
    <>
      <div className="page">
        <div className="spread">
          <h1>{bench.map((t) => t.name).join(say.andMore())}</h1>
          <span className="row">
            <Button onClick={onOpen}>{rich(say.openTakeO, {})}</Button>
            <Button aria-pressed={pitched} onClick={() => setPitched(!pitched)}>
              {rich(say.spectrogramS, {})}
            </Button>
            <Button onClick={mark} {...off(lanes.length === 0 ? say.nothingToMark() : null)}>
              {rich(say.addMarkM, {})}
            </Button>
            <Button onClick={onClear}>{rich(say.clearC, {})}</Button>
          </span>
        </div>
        {bench.map((take) => (
          <TakeLine key={take.id} take={take} removable={bench.length > 1} onRemove={() => onRemove(take.id)} />
        ))}
        <Onwards bench={bench} rigId={rigId} />
        <chakra.div ref={ref} marginTop="14px">
          {lanes.length > 0 && (
            <Lanes
              lanes={lanes}
              view={shown}
              widthPx={width}
              wholeMs={wholeMs}
              cursorMs={cursor?.ms ?? null}
              chosenLane={chosenLane}
              selected={selected}
              pairs={pairLines(bench, [0, shiftMs])}
              stepMs={(lane) => laneStepMs(takeOf(lane.key), lane)}
              onView={setView}
              onCursor={(laneKey, ms) => {
                setCursor({ laneKey, ms });
                setSelected(null);
              }}
              onSelect={setSelected}
              onMove={(laneKey, markKey, atMs) => {
                const take = takeOf(laneKey);
                if (take.notes)
                  take.change(moveMark(take.notes, readLaneKey(laneKey).kind, Number(markKey.split('#')[1]), atMs));
              }}
              onRemove={(laneKey, markKey) => withMark(laneKey, markKey, removeMark)}
              onToggle={(laneKey, markKey) => withMark(laneKey, markKey, toggleMark)}
            />
          )}
        </chakra.div>
        {pitched &&
          bench.map(
            (take, i) =>
              take.look?.sound && (
                <Pitches key={take.id} take={take} view={shown} widthPx={width} shiftMs={i === 1 ? shiftMs : 0} />
              ),
          )}
        {eye && (
          <FrameStrip
            take={eye.take}
            atMs={eye.atMs}
            verb={eye.index === null ? say.markFlashAt() : say.flashAt()}
            onChoose={(timeMs) => {
              const { take, index } = eye;
              if (!take.notes) return;
              take.change(
                index === null
                  ? addMark(take.notes, 'flashes', timeMs)
                  : moveMark(take.notes, 'flashes', index, timeMs),
              );
            }}
          />
        )}
        {bench.map(
          (take, i) =>
            take.look?.picture &&
            take.look.sound && (
              <MenuRegion
                key={take.id}
                take={take}
                atMs={Math.max(
                  0,
                  Math.min(
                    cursor ? cursor.ms - (i === 1 ? shiftMs : 0) : Number.POSITIVE_INFINITY,
                    take.look.durationMs / 2,
                  ),
                )}
              />
            ),
        )}
        <Findings bench={bench} comparison={comparison} rig={rig} evaluation={evaluation} />
        {bench.map((take) => (
          <Slates key={take.id} take={take} />
        ))}
        {bench.map((take, i) => (
          <TakeMeasured
            key={take.id}
            take={take}
            named={bench.length > 1}
            rigId={rigId}
            rig={rig}
            evaluation={evaluation}
            view={shown}
            widthPx={width}
            shiftMs={i === 1 ? shiftMs : 0}
            onSee={seeAt}
          />
        ))}
        {bench.length === 1 && others.length > 0 && (
          <chakra.p className="row small quiet" marginTop="16px">
            {say.compareWith()}
            {others.slice(0, MAX_BESIDE).map((take) => (
              <Button key={take.id} variant="plain" onClick={() => onAdd(take.id)}>
                {take.name}
              </Button>
            ))}
          </chakra.p>
        )}
      </div>
      <TakeCard bench={bench} comparison={comparison} rigId={rigId} rig={rig} evaluation={evaluation} />
    </>
  );
}

/** The moment whose frames are shown: that of the flash chosen, or of the cursor in a picture's lane. */
function momentSeen(
  bench: readonly BenchTake[],
  lanes: readonly LaneData[],
  selected: string | null,
  cursor: { laneKey: string; ms: number } | null,
): { take: BenchTake; atMs: number; index: number | null } | null {
  const lane = lanes.find(
    (l) => l.kind === 'picture' && (selected?.startsWith(`${l.key}#`) || l.key === cursor?.laneKey),
  );
  if (!lane) return null;
  const take = bench.find((t) => t.id === readLaneKey(lane.key).takeId)!;
  if (selected?.startsWith(`${lane.key}#`)) {
    const index = Number(selected.split('#')[1]);
    const mark = take.notes?.flashes[index];
    return mark ? { take, atMs: mark.atMs, index } : null;
  }
  return { take, atMs: Math.max(0, cursor!.ms - lane.shiftMs), index: null };
}

/** What was found in a take, in a line; or the work under way, with its stop. */
function TakeLine({ take, removable, onRemove }: { take: BenchTake; removable: boolean; onRemove: () => void }) {
  const { task, look, notes, saying, conflict } = take;
  const prefix = removable ? `${take.name}: ` : '';
  const gaps =
    look?.picture &&
    look.picture.pieces.reduce((n, p) => n + (p.timesMs.length > 0 ? p.timesMs.at(-1)! - p.timesMs[0]! : 0), 0) <
      look.durationMs * 0.9;
  return (
    <chakra.div className="row quiet" marginTop="6px">
      <WorkLine task={task} name={prefix && take.name} onStop={take.stop} onAgain={take.again} />
      {!task && look && notes && (
        <span>
          {prefix}
          {look.sound
            ? say.clapFound({
                and: look.picture ? say.flashesAnd({ flashes: notes.flashes.length }) : '',
                clap: notes.claps.length,
              })
            : say.thisTakeHasNo()}
          {notes.claps.some((c) => !c.used) && say.hollowMarksAreWeak()}
          {offsetOf(look, notes) === null && look.picture && look.sound && say.noFlashMatchesClap()}{' '}
          {(look.picture?.flashes.length ?? 0) > MAX_FLASHES &&
            say.videoFlashesTimesLike({ length: formatNumber(look.picture!.flashes.length) })}
          {look.notices.join(' ')}
        </span>
      )}
      {saying && <span className="watch">{saying}</span>}
      {conflict && (
        <>
          <span className="fix">{say.anotherWindowMarkedThis()}</span>
          <Button onClick={conflict.takeTheirs}>{say.usingOtherVersion()}</Button>
          <Button onClick={conflict.keepMine}>{say.usingMyVersion()}</Button>
        </>
      )}
      {!task && gaps && <Button onClick={take.lookAtAll}>{say.scanWholeVideo()}</Button>}
      {removable && (
        <Button variant="plain" onClick={onRemove}>
          {say.removeFromPage()}
        </Button>
      )}
    </chakra.div>
  );
}
