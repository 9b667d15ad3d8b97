import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { OCCASIONS, type Occasion, type OccasionAnswers, takenOf, wordsFor } from '#core/intake/index.ts';
import { Pick, Sheet, useKey } from '#web/shared/parts/index.ts';
import { firstDesk as say, textOf } from '#words/index.ts';

interface Props {
  readonly onWords: (words: string) => void;
  readonly onClose: () => void;
}

/** A common purpose and its few questions: they produce plain words, which can be edited like one's own. */
export function TemplateDialog({ onWords, onClose }: Props) {
  const [occasion, setOccasion] = useState<Occasion | null>(null);
  return (
    <Sheet title={textOf(occasion?.name ?? say.chooseTemplate())} onClose={onClose}>
      {occasion ? (
        <Questions occasion={occasion} onDone={(answers) => onWords(wordsFor(occasion, answers))} />
      ) : (
        <Pick
          label={say.template()}
          autoFocus
          items={OCCASIONS.map((o) => ({ id: o.id, label: textOf(o.name), note: textOf(o.says) }))}
          none={say.noTemplateMatchesClose()}
          onPick={(id) => setOccasion(OCCASIONS.find((o) => o.id === id)!)}
        />
      )}
    </Sheet>
  );
}

/** One question after another: a number key answers and continues, Enter accepts the usual answer. */
function Questions({ occasion, onDone }: { occasion: Occasion; onDone: (answers: OccasionAnswers) => void }) {
  const [answers, setAnswers] = useState<OccasionAnswers>({});
  const [at, setAt] = useState(0);
  const asks = occasion.asks.filter((a) => takenOf(occasion, a, answers) !== null);
  const ask = asks[at];
  const go = (next: OccasionAnswers) => {
    const left = occasion.asks.filter((a) => takenOf(occasion, a, next) !== null);
    if (at + 1 >= left.length) onDone(next);
    else {
      setAnswers(next);
      setAt(at + 1);
    }
  };
  const take = (n: number) => {
    const option = ask?.options[n];
    if (ask && option) go({ ...answers, [ask.id]: option.id });
  };
  useKey('1', say.firstAnswer(), () => take(0), ask !== undefined);
  useKey('2', say.secondAnswer(), () => take(1), (ask?.options.length ?? 0) > 1);
  useKey('3', say.thirdAnswer(), () => take(2), (ask?.options.length ?? 0) > 2);
  useKey('4', say.fourthAnswer(), () => take(3), (ask?.options.length ?? 0) > 3);
  if (!ask) return null;
  return (
    <>
      <p className="quiet">{say.question({ says: textOf(occasion.says), n1: at + 1, asks: asks.length })}</p>
      <h2>{textOf(ask.asks)}</h2>
      <ul className="plain made">
        {ask.options.map((o, n) => (
          <li key={o.id}>
            <Button autoFocus={n === 0} variant={n === 0 ? 'solid' : 'outline'} onClick={() => take(n)}>
              {textOf(o.label)} <kbd>{n + 1}</kbd>
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}
