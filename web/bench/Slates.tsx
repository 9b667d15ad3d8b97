import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import type { SlateReading } from '#core/slate/index.ts';
import { rateName } from '#core/units/index.ts';
import {
  decimalsFor,
  formatClock,
  formatNumber,
  formatOffset,
  formatSigned,
  StateMark,
  Term,
} from '#web/parts/index.ts';
import { keepSkew, offsetOfNotes, offsetOfSlate, skewOf, UNKNOWN_SKEW_MS } from '#web/take/index.ts';
import type { BenchTake } from './useTake.ts';

/** The slates that stand in a take: what each says of sound and picture, and how its pictures came through. */
export function Slates({ take }: { take: BenchTake }) {
  const slates = take.look?.picture?.slates ?? [];
  const heard = take.look?.sound?.chirps.length ?? 0;
  if (slates.length === 0)
    return heard > 1 ? (
      <p className="watch">
        <StateMark state="watch" /> The beats of a slate are heard in {take.name}, {heard} of them, but no slate is
        seen: its sound can be laid to other takes, not to a picture.
      </p>
    ) : null;
  return (
    <section aria-label={`Slates in ${take.name}`}>
      <h2>
        <Term id="slate">Slates</Term> in {take.name}
      </h2>
      <table className="table" data-testid="slates">
        <thead>
          <tr>
            <th>Slate</th>
            <th className="number">Sound against picture</th>
            <th className="number">
              Within, <Term id="bound">95 %</Term>
            </th>
            <th className="number">Beats</th>
            <th className="number">Pictures read</th>
            <th className="number">Shown twice, passed over, lacking</th>
            <th className="number">True rate</th>
            <th>Seen</th>
          </tr>
        </thead>
        <tbody>
          {slates.map((slate) => (
            <SlateRow key={`${slate.id} ${slate.fromMs} ${slate.quad[0].x}`} slate={slate} />
          ))}
        </tbody>
      </table>
      <BetweenScreens slates={slates} />
      <Skews take={take} slates={slates} />
    </section>
  );
}

function SlateRow({ slate: { id, rate, fromMs, toMs, run, offset } }: { slate: SlateReading }) {
  const lost = run.repeated + run.skipped + run.missing;
  return (
    <tr>
      <td>
        number {id + 1}, {rateName(rate)} fps
        <div className="quiet small">
          {formatClock(fromMs)} to {formatClock(toMs)}
        </div>
      </td>
      <td className="number strong">
        {offset ? formatOffset(offset.offsetMs, decimalsFor(offset.boundMs)) : 'not heard'}
      </td>
      <td className="number">
        {offset && `±${formatNumber(offset.boundMs, decimalsFor(offset.boundMs))} ms`}
        <div className="quiet small">
          picture ±{formatNumber(run.phase.boundMs, decimalsFor(run.phase.boundMs))}
          {run.phase.jitterMs > 0.5 && `, jitter ${formatNumber(run.phase.jitterMs, 1)}`}
        </div>
      </td>
      <td className="number">{offset?.count ?? 0}</td>
      <td className="number">
        {run.read} of {run.of}
      </td>
      <td className={`number ${lost > 0 ? 'watch' : ''}`}>
        {run.repeated}, {run.skipped}, {run.missing}
      </td>
      <td className="number">
        {formatNumber(run.rateHz, 3)}
        <div className="quiet small">{formatSigned(-run.phase.ratePpm, 0)} ppm</div>
      </td>
      <td>
        {run.seenBy === 'direct' ? 'handed on' : 'by a camera'}
        <div className="quiet small">
          {run.mixed > 0 && `${run.mixed} of two frames`}
          {run.phase.exposureMs !== null && `, shutter about ${formatNumber(run.phase.exposureMs)} ms`}
        </div>
      </td>
    </tr>
  );
}

/** Screens that one camera sees at once: how much later one shows the same. */
function BetweenScreens({ slates }: { slates: readonly SlateReading[] }) {
  const pairs = slates.flatMap((a, i) =>
    slates
      .slice(i + 1)
      .filter((b) => b.id === a.id && b.fromMs < a.toMs && a.fromMs < b.toMs)
      .map((b) => [a, b] as const),
  );
  return pairs.map(([a, b]) => {
    const later = b.run.phase.zeroMs - a.run.phase.zeroMs;
    const bound = Math.hypot(a.run.phase.boundMs, b.run.phase.boundMs);
    const [first, second] = a.quad[0].x <= b.quad[0].x ? ['left', 'right'] : ['right', 'left'];
    return (
      <p key={`${a.quad[0].x} ${b.quad[0].x}`} data-testid="between-screens">
        Two screens show number {a.id + 1}: the one on the {later >= 0 ? second : first} is{' '}
        <span className="strong">{formatNumber(Math.abs(later), 1)} ms</span> later (±{formatNumber(bound, 1)} ms).
      </p>
    );
  });
}

/** The player's own skew: unknown, taken from a clap beside its slate, or known since. */
function Skews({ take, slates }: { take: BenchTake; slates: readonly SlateReading[] }) {
  const [, again] = useState(0);
  const best = slates.filter((s) => s.offset).sort((a, b) => b.offset!.count - a.offset!.count)[0];
  if (!best?.offset) return null;
  const known = skewOf(best.id);
  const clap = take.notes && offsetOfNotes(take.notes);
  const put = (skew: Parameters<typeof keepSkew>[1]) => {
    keepSkew(best.id, skew);
    again((n) => n + 1);
    // Whoever speaks of this take's offset reads the skew anew.
    if (take.notes) take.change({ ...take.notes });
  };
  const skewMs = clap && best.offset.offsetMs - clap.offsetMs;
  const left = offsetOfSlate(best)!;
  return (
    <div className="row" data-testid="skew">
      <Term id="slate-skew">Own skew of the player</Term> of number {best.id + 1}:{' '}
      {known ? (
        <>
          <span className="strong">{formatSigned(known.skewMs, 1)} ms</span> ±{formatNumber(known.sdMs, 1)}, by{' '}
          {known.takeName}.
          <Button variant="plain" onClick={() => put(null)}>
            Forget it
          </Button>
        </>
      ) : (
        <span>unknown, ±{UNKNOWN_SKEW_MS} ms. It stays in what the path is said to be.</span>
      )}
      {skewMs !== null && clap && (
        <Button
          onClick={() => put({ skewMs, sdMs: Math.hypot(best.offset!.sdMs, clap.sdMs), takeName: take.name })}
          disabled={known !== null && Math.abs(known.skewMs - skewMs) < 0.05}
        >
          The {clap.count === 1 ? 'clap' : 'claps'} beside it say {formatSigned(skewMs, 1)} ms: keep that
        </Button>
      )}
      <span className="quiet">
        The path: {formatOffset(left.offsetMs, decimalsFor(left.sdMs))} ±
        {formatNumber(2 * left.sdMs, decimalsFor(left.sdMs))}.
      </span>
    </div>
  );
}
