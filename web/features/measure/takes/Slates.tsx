import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import type { SlateReading } from '#core/desk-tests/slates/index.ts';
import { rateName } from '#core/model/units/index.ts';
import {
  decimalsFor,
  figures,
  formatClock,
  formatNumber,
  formatOffset,
  formatSigned,
  Head,
  off,
  rich,
  StateMark,
  Table,
} from '#web/shared/parts/index.ts';
import { keepSkew, offsetOfNotes, offsetOfSlate, skewOf, UNKNOWN_SKEW_MS } from '#web/shared/take/index.ts';
import { common, takes as say } from '#words/index.ts';
import type { BenchTake } from './useTake.ts';

/** The sync slates in a take: audio against video of each, and how its frames came through. */
export function Slates({ take }: { take: BenchTake }) {
  const slates = take.look?.picture?.slates ?? [];
  const heard = take.look?.sound?.chirps.length ?? 0;
  if (slates.length === 0)
    return heard > 1 ? (
      <p className="watch">
        <StateMark state="watch" /> {say.onlyHeard({ heard, take: take.name })}
      </p>
    ) : null;
  return (
    <section aria-label={say.syncSlatesIn({ take: take.name })}>
      <h2>{rich(say.syncSlatesInWith, { take: take.name })}</h2>
      <Table data-testid="slates">
        <Head
          columns={[
            say.slate(),
            figures(say.audioVsVideoTitle()),
            figures(rich(say.at, {})),
            figures(say.beats()),
            figures(say.framesRead()),
            figures(say.repeatedSkippedMissing()),
            figures(say.trueRate()),
            say.seenBy(),
          ]}
        />
        <tbody>
          {slates.map((slate) => (
            <SlateRow key={`${slate.id} ${slate.fromMs} ${slate.quad[0].x}`} slate={slate} />
          ))}
        </tbody>
      </Table>
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
        {say.numberFps({ n1: id + 1, rate: rateName(rate) })}
        <div className="quiet small">{say.to({ fromMs: formatClock(fromMs), toMs: formatClock(toMs) })}</div>
      </td>
      <td className="number strong">
        {offset ? formatOffset(offset.offsetMs, decimalsFor(offset.boundMs)) : say.notHeard()}
      </td>
      <td className="number">
        {offset && `±${formatNumber(offset.boundMs, decimalsFor(offset.boundMs))} ms`}
        <div className="quiet small">
          {say.videoBound({
            boundMs: formatNumber(run.phase.boundMs, decimalsFor(run.phase.boundMs)),
            n1: run.phase.jitterMs > 0.5 ? say.withJitter({ jitterMs: formatNumber(run.phase.jitterMs, 1) }) : '',
          })}
        </div>
      </td>
      <td className="number">{offset?.count ?? 0}</td>
      <td className="number">{say.values({ read: run.read, of: run.of })}</td>
      <td className={`number ${lost > 0 ? 'watch' : ''}`}>
        {run.repeated}, {run.skipped}, {run.missing}
      </td>
      <td className="number">
        {formatNumber(run.rateHz, 3)}
        <div className="quiet small">{say.ppmOf({ ratePpm: formatSigned(-run.phase.ratePpm, 0) })}</div>
      </td>
      <td>
        {run.seenBy === 'direct' ? say.directFeed() : say.byCamera()}
        <div className="quiet small">
          {run.mixed > 0 && say.twoFrames({ mixed: run.mixed })}
          {run.phase.exposureMs !== null && say.exposure({ exposureMs: formatNumber(run.phase.exposureMs) })}
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
        {say.twoScreens({ n1: a.id + 1, first: later >= 0 ? second : first })}{' '}
        <span className="strong">{formatNumber(Math.abs(later), 1)} ms</span>{' '}
        {say.laterBound({ bound: formatNumber(bound, 1) })}
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
    // Callers that use this take's offset read the skew again.
    if (take.notes) take.change({ ...take.notes });
  };
  const skewMs = clap && best.offset.offsetMs - clap.offsetMs;
  const left = offsetOfSlate(best)!;
  return (
    <div className="row" data-testid="skew">
      {rich(say.playerSkew, { n1: best.id + 1 })}{' '}
      {known ? (
        <>
          <span className="strong">{formatSigned(known.skewMs, 1)} ms</span>{' '}
          {say.byTake({ sdMs: formatNumber(known.sdMs, 1), takeName: known.takeName })}
          <Button variant="plain" onClick={() => put(null)}>
            {common.reset()}
          </Button>
        </>
      ) : (
        <span>{say.unknownMsIncludedIn({ UNKNOWN_SKEW_MS })}</span>
      )}
      {skewMs !== null && clap && (
        <Button
          onClick={() => put({ skewMs, sdMs: Math.hypot(best.offset!.sdMs, clap.sdMs), takeName: take.name })}
          {...off(known !== null && Math.abs(known.skewMs - skewMs) < 0.05 ? say.skewKnownAlready() : null)}
        >
          {say.keepSkew({
            claps: clap.count === 1 ? say.clapWord() : say.clapsWord(),
            skewMs: formatSigned(skewMs, 1),
          })}
        </Button>
      )}
      <span className="quiet">
        {say.thePathIs({
          offsetMs: formatOffset(left.offsetMs, decimalsFor(left.sdMs)),
          sdMs: formatNumber(2 * left.sdMs, decimalsFor(left.sdMs)),
        })}
      </span>
    </div>
  );
}
