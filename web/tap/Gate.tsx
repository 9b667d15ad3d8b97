import type { GateQuestion } from '#core/taptest/index.ts';
import { StateMark } from '#web/parts/index.ts';

interface Props {
  readonly questions: readonly GateQuestion[];
  readonly answers: Readonly<Record<string, boolean>>;
  readonly onAnswer: (id: string, isSo: boolean) => void;
}

/** What has to be so before a tune plays. An answer that is left open blocks. */
export function Gate({ questions, answers, onAnswer }: Props) {
  const open = questions.filter((q) => !answers[q.id]).length;
  return (
    <section aria-label="Before anything plays">
      <h2>Before anything plays</h2>
      <ul className="plain-list tap-gate">
        {questions.map((q) => (
          <li key={q.id}>
            <label>
              <input
                type="checkbox"
                checked={answers[q.id] ?? false}
                onChange={(e) => onAnswer(q.id, e.target.checked)}
              />{' '}
              {q.asks}
            </label>{' '}
            <span className="quiet small">{q.why}</span>
          </li>
        ))}
      </ul>
      <p role="status">
        {open === 0 ? (
          <span className="good">
            <StateMark state="good" /> All of it is so: the tunes may play.
          </span>
        ) : (
          <span className="watch">
            <StateMark state="watch" /> {open} still open: nothing plays until all are ticked.
          </span>
        )}
      </p>
    </section>
  );
}
