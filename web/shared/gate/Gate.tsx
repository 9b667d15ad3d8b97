import type { GateQuestion } from '#core/desk-tests/tap-test/index.ts';
import { StateMark } from '#web/shared/parts/index.ts';
import { tapTest as say, textOf } from '#words/index.ts';

interface Props {
  readonly questions: readonly GateQuestion[];
  readonly answers: Readonly<Record<string, boolean>>;
  readonly onAnswer: (id: string, isSo: boolean) => void;
}

/** What has to be so before a tune plays. An answer that is left open blocks. */
export function Gate({ questions, answers, onAnswer }: Props) {
  const open = questions.filter((q) => !answers[q.id]).length;
  return (
    <section aria-label={say.beforeAnythingPlays()}>
      <h2>{say.beforeAnythingPlays()}</h2>
      <ul className="plain-list tap-gate">
        {questions.map((q) => (
          <li key={q.id}>
            <label>
              <input
                type="checkbox"
                checked={answers[q.id] ?? false}
                onChange={(e) => onAnswer(q.id, e.target.checked)}
              />{' '}
              {textOf(q.asks)}
            </label>{' '}
            <span className="quiet small">{textOf(q.why)}</span>
          </li>
        ))}
      </ul>
      <p role="status">
        {open === 0 ? (
          <span className="good">
            <StateMark state="good" /> {say.allConfirmedTunesCan()}
          </span>
        ) : (
          <span className="watch">
            <StateMark state="watch" /> {say.stillOpenNothingPlays({ open })}
          </span>
        )}
      </p>
    </section>
  );
}
