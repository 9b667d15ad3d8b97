import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn } from '#core/model/rig/index.ts';
import { type Evaluation, levelAtEars, listeningTime } from '#core/signal/index.ts';
import { formatNumber, Term } from '#web/shared/parts/index.ts';
import { level as say } from '#words/index.ts';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly listenerId: string;
}

/** How loud it is at someone's ears, and for how long that may be. */
export function Ears({ rig, evaluation, listenerId }: Props) {
  const level = levelAtEars(rig, evaluation, listenerId);
  if (!level) return null;
  const [usual, most] = [listeningTime(level.nominal), listeningTime(level.high)];
  const name = listenerIn(rig, listenerId).name;
  const loud = usual.hoursADay < 8;
  return (
    <section aria-label={say.listeningLevelAndTime()}>
      <h2>
        <Term id="listening">{say.listeningLevelAndTime()}</Term>
      </h2>
      <p>
        {say.allTogether({ name })}{' '}
        <span className="strong">
          {say.loudnessAtEar({ db: formatNumber(level.nominal), most: formatNumber(level.high) })}
        </span>{' '}
        {say.recommendedMaximum()}{' '}
        <span className={loud ? 'fix' : ''}>
          {say.exposure({ day: sayTime(usual.hoursADay, 'a day'), week: sayTime(usual.hoursAWeek, 'a week') })}
        </span>{' '}
        {say.atTheLoudest({ day: sayTime(most.hoursADay, 'a day') })}
      </p>
      <p className="quiet small">{say.estimateFromTypicalFigures()}</p>
    </section>
  );
}

function sayTime(hours: number, every: 'a day' | 'a week'): string {
  const saidEvery = every === 'a day' ? say.aDay() : say.aWeek();
  if (hours >= (every === 'a day' ? 24 : 168)) return every === 'a day' ? say.allDay() : say.allWeek();
  if (hours < 1 / 60) return say.underMinute({ every: saidEvery });
  return hours >= 2
    ? say.hoursEvery({ hours: formatNumber(hours), every: saidEvery })
    : say.minutesEvery({ hours: formatNumber(60 * hours), every: saidEvery });
}
