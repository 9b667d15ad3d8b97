import { useState } from 'react';
import { gateOf, playersOf } from '#core/desk-tests/tap-test/index.ts';
import { TUNES } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { findSource } from '#core/model/rig/index.ts';
import { TuneStage } from '#web/features/measure/tap-test/index.ts';
import { Gate } from '#web/shared/gate/index.ts';
import { Choice } from '#web/shared/parts/index.ts';
import { phone as say } from '#words/index.ts';

/** Tunes on the phone: it plays in the place of a source, once all that has to be so before is so. */
export function PhoneTunes({ rig }: { rig: Rig }) {
  const [answers, setAnswers] = useState<Readonly<Record<string, boolean>>>({});
  const [tune, setTune] = useState(0);
  const players = playersOf(rig);
  const questions = gateOf(rig);
  const source = findSource(rig, players.find((p) => p.tune === tune)?.sourceId);
  return (
    <main className="page">
      <h1>{say.playTestTune()}</h1>
      <Gate questions={questions} answers={answers} onAnswer={(id, isSo) => setAnswers({ ...answers, [id]: isSo })} />
      {questions.every((q) => answers[q.id]) && (
        <>
          <div className="row">
            <Choice
              label={say.thisPhonePlays()}
              value={String(tune)}
              options={Array.from({ length: TUNES }, (_, t): [string, string] => {
                const own = findSource(rig, players.find((p) => p.tune === t)?.sourceId);
                return [String(t), own ? say.tune({ n1: t + 1, own: own.name }) : say.tuneWith({ n1: t + 1 })];
              })}
              onChange={(t) => setTune(Number(t))}
            />
            <span className="quiet small">{say.chooseNumberThatComputer()}</span>
          </div>
          <TuneStage key={tune} tune={tune} name={source?.name ?? ''} />
        </>
      )}
    </main>
  );
}
