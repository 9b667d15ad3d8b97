import { Button, Input } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Rig } from '#core/rig/index.ts';
import { CAUTIONS, orderDown, orderUp, type Step } from '#core/run/index.ts';
import { Choice, formatClock, StateMark, saveAs, Term, useKey } from '#web/parts/index.ts';
import { selectRig, useAppSelector } from '#web/store/index.ts';
import {
  keepTicks,
  lastTicked,
  nextStep,
  openBefore,
  orderToMarkdown,
  readTicks,
  type Ticks,
  WAYS,
  type Way,
  withoutTick,
  withTick,
} from './ticks.ts';

/** Run: what to plug and switch on in which order, one step at a time, ticked by one key. */
export function RunScreen() {
  const rig = useAppSelector(selectRig);
  const { rigId } = useParams();
  const [params, setParams] = useSearchParams();
  const way = WAYS.find(([w]) => w === params.get('way'))?.[0] ?? 'first';
  if (!rig || !rigId) return null;
  return (
    <Order
      key={`${rigId} ${way}`}
      rigId={rigId}
      rig={rig}
      way={way}
      onWay={(next) => setParams({ way: next }, { replace: true })}
    />
  );
}

interface Props {
  readonly rigId: string;
  readonly rig: Rig;
  readonly way: Way;
  readonly onWay: (way: string) => void;
}

function Order({ rigId, rig, way, onWay }: Props) {
  const steps = useMemo(() => (way === 'down' ? orderDown(rig) : orderUp(rig, { kind: way })), [rig, way]);
  const [ticks, setTicks] = useState<Ticks>(() => readTicks(rigId, way));
  const [looked, setLooked] = useState<string | null>(null);
  const put = (next: Ticks) => {
    setTicks(next);
    keepTicks(rigId, way, next);
    setLooked(null);
  };
  const now = nextStep(steps, ticks);
  const step = steps.find((s) => s.id === looked) ?? now;
  const done = steps.filter((s) => ticks[s.id]).length;
  const last = lastTicked(steps, ticks);
  const tick = (leftOut?: string) =>
    step && put(withTick(ticks, step.id, { at: new Date().toISOString(), ...(leftOut ? { leftOut } : {}) }));
  const look = (by: number) => {
    const at = step ? steps.indexOf(step) : steps.length - 1;
    setLooked(steps[Math.min(steps.length - 1, Math.max(0, at + by))]?.id ?? null);
  };
  useKey('d', 'Done', () => tick(), step !== null && !ticks[step.id]);
  useKey('b', 'The last tick was wrong: take it back', () => last && put(withoutTick(ticks, last.id)), last !== null);
  useKey('j,arrowdown', 'Look at the next step', () => look(1), steps.length > 1);
  useKey('k,arrowup', 'Look at the one before', () => look(-1), steps.length > 1);
  const title = `${rig.name}: ${WAYS.find(([w]) => w === way)![1]}`;
  return (
    <main className="frame-page">
      <div className="page">
        <div className="spread">
          <h1>
            <Term id="run-order">In order</Term>
          </h1>
          <span className="row no-print">
            <Choice label="Which order" value={way} onChange={onWay} options={WAYS} />
            <Button onClick={() => saveAs(`${title}.md`, orderToMarkdown(title, steps, ticks), 'text/markdown')}>
              Take it along, Markdown
            </Button>
            <Button onClick={() => window.print()}>Print</Button>
            <Button disabled={done === 0} onClick={() => put({})}>
              Begin anew
            </Button>
          </span>
        </div>
        <p className="row" role="status">
          <progress value={done} max={steps.length} aria-label="Steps done" style={{ width: 220 }} />
          <span>
            {done} of {steps.length} done
          </span>
          <Since steps={steps} ticks={ticks} />
        </p>
        {step ? (
          <StepNow
            key={step.id}
            step={step}
            ticks={ticks}
            before={openBefore(step, steps, ticks)}
            onDone={() => tick()}
            onLeave={tick}
            onBack={() => put(withoutTick(ticks, step.id))}
          />
        ) : (
          <p className="run-step good">
            <StateMark state="good" /> All is done.
          </p>
        )}
        <ol className="run-list" aria-label="All steps">
          {steps.map((s, i) => (
            <li key={s.id} className={ticks[s.id] ? 'quiet' : ''} aria-current={s === step ? 'step' : undefined}>
              <button type="button" onClick={() => setLooked(s.id)}>
                <span className="fact">{i + 1}</span>
                <span className="run-tick">
                  {ticks[s.id] ? <StateMark state={ticks[s.id]!.leftOut ? 'watch' : 'good'} /> : null}
                </span>
                <span>
                  {s.says}
                  {ticks[s.id]?.leftOut && <span className="watch small"> Left out: {ticks[s.id]!.leftOut}.</span>}
                </span>
              </button>
            </li>
          ))}
        </ol>
        <p className="quiet small">
          Local electrical and venue rules and licensed practice come first. Ticks are kept in this browser.
        </p>
      </div>
    </main>
  );
}

const SECOND_MS = 1000;

/** How long it has been since the first tick, or took from the first to the last. */
function Since({ steps, ticks }: { steps: readonly Step[]; ticks: Ticks }) {
  const times = steps.flatMap((s) => (ticks[s.id] ? [Date.parse(ticks[s.id]!.at)] : [])).sort((a, b) => a - b);
  const running = times.length > 0 && times.length < steps.length;
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
      {formatClock(end - times[0]!)} {running ? 'since the first' : 'in all'}
    </span>
  );
}

interface StepProps {
  readonly step: Step;
  readonly ticks: Ticks;
  readonly before: readonly Step[];
  readonly onDone: () => void;
  readonly onLeave: (reason: string) => void;
  readonly onBack: () => void;
}

/** The step that is to be done, large enough to be read from the desk. */
function StepNow({ step, ticks, before, onDone, onLeave, onBack }: StepProps) {
  const [reason, setReason] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const tick = ticks[step.id];
  useKey('l', 'Leave it out, with a reason', () => setReason(''), !tick);
  useEffect(() => {
    if (reason === '') field.current?.focus();
  }, [reason]);
  return (
    <section className="run-step" aria-label="The step now" data-testid="run-step">
      <p className="run-says">{step.says}</p>
      <p>{step.why}</p>
      {step.cautions.map((c) => (
        <p key={c} className="watch">
          <StateMark state="watch" /> {CAUTIONS[c]}
        </p>
      ))}
      {before.length > 0 && !tick && (
        <p className="fix">
          <StateMark state="fix" /> Not yet: first {before[0]!.says}
          {before.length > 1 && ` And ${before.length - 1} more.`}
        </p>
      )}
      {tick ? (
        <p className="row no-print">
          <span className="quiet">{tick.leftOut ? `Left out: ${tick.leftOut}.` : 'Done.'}</span>
          <Button onClick={onBack}>Not done after all</Button>
        </p>
      ) : reason === null ? (
        <p className="row no-print">
          <Button variant="solid" size="lg" onClick={onDone}>
            Done <kbd>d</kbd>
          </Button>
          <Button onClick={() => setReason('')}>
            Leave it out <kbd>l</kbd>
          </Button>
        </p>
      ) : (
        <form
          className="row no-print"
          onSubmit={(e) => {
            e.preventDefault();
            if (reason.trim()) onLeave(reason.trim());
          }}
        >
          <Input
            ref={field}
            aria-label="Why it is left out"
            placeholder="Why?"
            maxLength={300}
            width="320px"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <Button type="submit" disabled={reason.trim() === ''}>
            Leave it out
          </Button>
          <Button variant="plain" onClick={() => setReason(null)}>
            Keep it
          </Button>
        </form>
      )}
    </section>
  );
}
