import type { Rig } from '#core/rig/index.ts';
import { type Evaluation, levelAtEars, listeningTime } from '#core/signal/index.ts';
import { formatNumber, Term } from '#web/parts/index.ts';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly listenerId: string;
}

/** How loud it is at somebody's ears, and for how long that may be. */
export function Ears({ rig, evaluation, listenerId }: Props) {
  const level = levelAtEars(rig, evaluation, listenerId);
  if (!level) return null;
  const [usual, most] = [listeningTime(level.nominal), listeningTime(level.high)];
  const name = rig.listeners.find((l) => l.id === listenerId)!.name;
  const loud = usual.hoursADay < 8;
  return (
    <section aria-label="Listening level and time">
      <h2>
        <Term id="listening">Listening level and time</Term>
      </h2>
      <p>
        {name}: all together about <span className="strong">{formatNumber(level.nominal)} dB SPL</span>, up to{' '}
        {formatNumber(level.high)}. So loud it may last{' '}
        <span className={loud ? 'fix' : ''}>
          {sayTime(usual.hoursADay, 'a day')} (NIOSH, 85 dBA for 8 h), {sayTime(usual.hoursAWeek, 'a week')} (WHO-ITU
          H.870, 80 dBA for 40 h)
        </span>
        ; at the loudest {sayTime(most.hoursADay, 'a day')}.
      </p>
      <p className="quiet small">
        An estimate from typical figures, not a measurement. Start at zero, come up slowly, and take breaks.
      </p>
    </section>
  );
}

function sayTime(hours: number, every: 'a day' | 'a week'): string {
  if (hours >= (every === 'a day' ? 24 : 168)) return `all ${every.slice(2)} long`;
  if (hours < 1 / 60) return `less than a minute ${every}`;
  return hours >= 2 ? `${formatNumber(hours)} h ${every}` : `${formatNumber(60 * hours)} min ${every}`;
}
