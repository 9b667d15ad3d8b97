import type { State } from '#core/signal/index.ts';
import { common } from '#words/index.ts';

const WORDS: Record<State, () => string> = {
  good: common.good,
  watch: common.warning,
  fix: common.toFix,
  stop: common.blocker,
  none: common.notChecked,
};

interface Props {
  readonly state: State;
  readonly title?: string;
  readonly size?: number;
  /** What is good rests on something that no one has looked at: no tick. */
  readonly unconfirmed?: boolean;
}

/** The four states and the dash: shape and word first, color last. */
export function StateMark({ state, unconfirmed = false, size, ...more }: Props) {
  const isOpen = unconfirmed && state === 'good';
  const { title = isOpen ? common.goodAsDrawn() : WORDS[state]() } = more;
  return (
    <svg className={`mark ${state}`} viewBox="-8 -8 16 16" width={size} height={size} role="img" aria-label={title}>
      <title>{title}</title>
      {state === 'good' && (
        <g fill="none" stroke="currentColor" strokeWidth="1.8">
          <circle r="6.4" strokeDasharray={isOpen ? '2.4 2' : undefined} />
          {!isOpen && <path d="M-3 0.3 -0.8 2.6 3.2 -2.4" />}
        </g>
      )}
      {state === 'watch' && (
        <g fill="none" stroke="currentColor" strokeWidth="1.6">
          <path d="M0 -7 7 0 0 7 -7 0Z" />
          <circle r="1.4" fill="currentColor" stroke="none" />
        </g>
      )}
      {state === 'fix' && <path d="M0 -6.5 7 6.5 -7 6.5Z" fill="currentColor" />}
      {state === 'stop' && <path d="M-3 -7.2 3 -7.2 7.2 -3 7.2 3 3 7.2 -3 7.2 -7.2 3 -7.2 -3Z" fill="currentColor" />}
      {state === 'none' && <path d="M-6 0H6" stroke="currentColor" strokeWidth="2" />}
    </svg>
  );
}
