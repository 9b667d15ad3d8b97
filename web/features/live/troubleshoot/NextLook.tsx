import { Button } from '@chakra-ui/react';
import type { NextLook as Next, Outcome } from '#core/live/troubleshoot/index.ts';
import { formatNumber, rich, sentence, useKey } from '#web/shared/parts/index.ts';
import { troubleshoot as say, textOf } from '#words/index.ts';

interface Props {
  readonly next: Next;
  /** Something was named already: this would make it surer. */
  readonly after: boolean;
  readonly onAnswer: (answer: string) => void;
  readonly onSkip: () => void;
}

/** What to look at now, and what each answer would leave. */
export function NextLook({ next, after, onAnswer, onSkip }: Props) {
  const { look, asks, outcomes } = next;
  const answer = (i: number) => outcomes[i] && onAnswer(outcomes[i].answer);
  return (
    <section
      className={after ? 'trouble-look quiet-look' : 'trouble-look'}
      aria-label={say.nextCheck()}
      data-testid="next-look"
    >
      <p className="small quiet">
        {say.lookCosts({
          first: after ? say.toBeSurer() : say.checkFirst(),
          seconds: Math.round(look.seconds),
          bits: formatNumber(look.bits, 1),
        })}
      </p>
      <p className="run-says">{textOf(asks)}</p>
      <ol className="trouble-answers">
        {outcomes.map((o, i) => (
          <Answer key={o.answer} outcome={o} digit={i + 1} onAnswer={() => answer(i)} />
        ))}
        <li>
          <Key digit={0} label={say.dontKnow()} onPress={onSkip} />
          <Button variant="plain" onClick={onSkip}>
            {rich(say.dontKnowKeyed, {})}
          </Button>
        </li>
      </ol>
    </section>
  );
}

function Answer({ outcome, digit, onAnswer }: { outcome: Outcome; digit: number; onAnswer: () => void }) {
  const { share, left, first } = outcome;
  const says = textOf(outcome.says);
  const leaves =
    first.kind === 'fault' ? first.suspect.fault.says : first.kind === 'drawn' ? say.asDrawn() : say.somethingElse();
  return (
    <li>
      <Key digit={digit} label={says} onPress={onAnswer} />
      <Button onClick={onAnswer}>
        {sentence(says)} <kbd>{digit}</kbd>
      </Button>
      <span className="small quiet">
        {say.likelyLeavesMostLikely({ share: formatNumber(100 * share), left, leaves: textOf(leaves) })}
      </span>
    </li>
  );
}

function Key({ digit, label, onPress }: { digit: number; label: string; onPress: () => void }) {
  useKey(String(digit), label, onPress);
  return null;
}
