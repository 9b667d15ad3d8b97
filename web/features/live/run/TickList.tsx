import { Button, Input } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { CAUTIONS, type ListId, type Tick, type Ticks } from '#core/live/run/index.ts';
import type { State } from '#core/signal/index.ts';
import { BareButton, formatClock, off, Progress, rich, StateMark, useKey } from '#web/shared/parts/index.ts';
import { recordEvent, useAppDispatch } from '#web/shared/store/index.ts';
import { common, run as say, textOf } from '#words/index.ts';
import { type Item, lastTicked, nextItem, openBefore } from './lists.ts';

interface Props {
  readonly list: ListId;
  readonly items: readonly Item[];
  readonly ticks: Ticks;
  /** What to say when nothing is open any more. */
  readonly allDone: string;
  /** Whether an item can be found not well. */
  readonly canFail?: boolean;
  /** What was measured that answers an item. */
  readonly measured?: ReadonlyMap<string, string>;
}

/** A list that is gone through one thing at a time, large, by keys; ticks go to the day's journal. */
export function TickList({ list, items, ticks, allDone, canFail = false, measured }: Props) {
  const dispatch = useAppDispatch();
  const [looked, setLooked] = useState<string | null>(null);
  const now = nextItem(items, ticks);
  const item = items.find((s) => s.id === looked) ?? now;
  const done = items.filter((s) => ticks[s.id]).length;
  const last = lastTicked(items, ticks);
  const tick = (more: { leftOut?: string; amiss?: true; measured?: string } = {}) => {
    if (!item) return;
    dispatch(recordEvent({ kind: 'tick', list, itemId: item.id, ...more }));
    setLooked(null);
  };
  const untick = (itemId: string) => {
    dispatch(recordEvent({ kind: 'untick', list, itemId }));
    setLooked(null);
  };
  const look = (by: number) => {
    const at = item ? items.indexOf(item) : items.length - 1;
    setLooked(items[Math.min(items.length - 1, Math.max(0, at + by))]?.id ?? null);
  };
  const answer = item ? measured?.get(item.id) : undefined;
  useKey('d', say.doneOrOk(), () => tick(answer ? { measured: answer } : {}), item !== null && !ticks[item.id]);
  useKey('x', say.failed(), () => tick({ amiss: true }), canFail && item !== null && !ticks[item.id]);
  useKey('b', say.undoLastTick(), () => last && untick(last.id), last !== null);
  useKey('j,arrowdown', say.nextStep(), () => look(1), items.length > 1);
  useKey('k,arrowup', say.previousStep(), () => look(-1), items.length > 1);
  return (
    <>
      <p className="row" role="status">
        <Progress value={done} max={items.length} label={say.progress()} width="220px" />
        <span>{say.done({ done, items: items.length })}</span>
        <Since items={items} ticks={ticks} />
      </p>
      {item ? (
        <ItemNow
          key={item.id}
          item={item}
          tick={ticks[item.id] ?? null}
          before={openBefore(item, items, ticks)}
          answer={answer}
          canFail={canFail}
          onTick={tick}
          onBack={() => untick(item.id)}
        />
      ) : (
        <p className="run-step run-now good">
          <StateMark state="good" /> {allDone}
        </p>
      )}
      <ol className="run-list" aria-label={say.allSteps()}>
        {items.map((s, i) => (
          <li key={s.id} className={ticks[s.id] ? 'quiet' : ''} aria-current={s === item ? 'step' : undefined}>
            <BareButton onClick={() => setLooked(s.id)}>
              <span className="fact">{i + 1}</span>
              <span className="run-tick">{ticks[s.id] ? <StateMark state={stateOf(ticks[s.id]!)} /> : null}</span>
              <span>
                {textOf(s.says)}
                {ticks[s.id] && <span className={`${stateOf(ticks[s.id]!)} small`}> {sayTick(ticks[s.id]!)}</span>}
              </span>
            </BareButton>
          </li>
        ))}
      </ol>
    </>
  );
}

const stateOf = (tick: Tick): State => (tick.amiss ? 'fix' : tick.leftOut === undefined ? 'good' : 'watch');

function sayTick({ amiss, leftOut, measured, by }: Tick): string {
  if (amiss) return say.failedSentence();
  if (leftOut !== undefined) return say.skipped({ leftOut });
  return measured ? say.ok({ measured }) : by === 'phone' ? say.doneOnPhone() : '';
}

const SECOND_MS = 1000;

/** How long it has been since the first tick, or took from the first to the last. */
function Since({ items, ticks }: { items: readonly Item[]; ticks: Ticks }) {
  const times = items.flatMap((s) => (ticks[s.id] ? [Date.parse(ticks[s.id]!.at)] : [])).sort((a, b) => a - b);
  const running = times.length > 0 && times.length < items.length;
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => setNowMs(Date.now()), SECOND_MS);
    return () => clearInterval(timer);
  }, [running]);
  if (times.length === 0) return null;
  const end = running ? Math.max(nowMs, times.at(-1)!) : times.at(-1)!;
  return (
    <span className="quiet fact">
      {formatClock(end - times[0]!)} {running ? say.sinceFirstTick() : say.inTotal()}
    </span>
  );
}

interface NowProps {
  readonly item: Item;
  readonly tick: Tick | null;
  readonly before: readonly Item[];
  readonly answer: string | undefined;
  readonly canFail: boolean;
  readonly onTick: (more?: { leftOut?: string; amiss?: true; measured?: string }) => void;
  readonly onBack: () => void;
}

/** The next item, large enough to be read from the desk. */
function ItemNow({ item, tick, before, answer, canFail, onTick, onBack }: NowProps) {
  const [reason, setReason] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useKey('l', say.skipWithReason(), () => setReason(''), !tick);
  useEffect(() => {
    if (reason === '') field.current?.focus();
  }, [reason]);
  return (
    <section className="run-step run-now" aria-label={say.nowLabel()} data-testid="run-step">
      <p className="run-says">{textOf(item.says)}</p>
      <p>{textOf(item.why)}</p>
      {item.cautions.map((c) => (
        <p key={c} className="watch">
          <StateMark state="watch" /> {textOf(CAUTIONS[c])}
        </p>
      ))}
      {before.length > 0 && !tick && (
        <p className="fix">
          <StateMark state="fix" />{' '}
          {say.doThisFirst({
            says: textOf(before[0]!.says),
            more: before.length > 1 ? ` ${say.andMore({ count: before.length - 1 })}` : '',
          })}
        </p>
      )}
      {answer && !tick && (
        <p className="good">
          <StateMark state="good" /> {say.answeredByTake({ answer })}
        </p>
      )}
      {tick ? (
        <p className="row no-print">
          <span className="quiet">{sayTick(tick) || say.doneSentence()}</span>
          <Button onClick={onBack}>{say.undoTick()}</Button>
        </p>
      ) : reason === null ? (
        <p className="row no-print">
          <Button variant="solid" size="lg" onClick={() => onTick(answer ? { measured: answer } : {})}>
            {canFail ? common.good() : say.doneTitle()} <kbd>d</kbd>
          </Button>
          {canFail && <Button onClick={() => onTick({ amiss: true })}>{rich(say.failedX, {})}</Button>}
          <Button onClick={() => setReason('')}>{rich(say.skipL, {})}</Button>
        </p>
      ) : (
        <form
          className="row no-print"
          onSubmit={(e) => {
            e.preventDefault();
            if (reason.trim()) onTick({ leftOut: reason.trim() });
          }}
        >
          <Input
            ref={field}
            aria-label={say.reasonForSkipping()}
            placeholder={say.reason()}
            maxLength={300}
            width="320px"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <Button type="submit" {...off(reason.trim() === '' ? common.typeReasonFirst() : null)}>
            {common.skip()}
          </Button>
          <Button variant="plain" onClick={() => setReason(null)}>
            {common.cancel()}
          </Button>
        </form>
      )}
    </section>
  );
}
