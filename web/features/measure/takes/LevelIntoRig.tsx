import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import type { Diagnosis } from '#core/audio/measure/index.ts';
import { type LevelCause, type LevelReading, levelEdit, reconcileLevel } from '#core/desk-tests/reconcile/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { sourceIn } from '#core/model/rig/index.ts';
import { type Evaluation, mainVoiceOf } from '#core/signal/index.ts';
import { Choice, formatNumber, formatSigned, rich, sayCause } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { wordsIn } from '#web/shared/take/index.ts';
import { takes as say } from '#words/index.ts';
import { levelOf } from './level-of.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly take: BenchTake;
  readonly diagnosis: Diagnosis;
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly listenerId: string;
}

/** Another source within this distance spoils the level measurement, dB. */
const ALONE_DB = 10;
const SURE_DB = 1;

/** How loud the take is against what the rig led one to expect there, what that may mean, and taking it in. */
export function LevelIntoRig({ take, diagnosis, rig, evaluation, listenerId }: Props) {
  const dispatch = useAppDispatch();
  const here = evaluation.pairs.filter((p) => p.listenerId === listenerId && p.ways.length > 0);
  const [chosen, setChosen] = useState(() =>
    guessSource(
      take.name,
      rig,
      here.map((p) => p.sourceId),
    ),
  );
  const sourceId = here.some((p) => p.sourceId === chosen) ? chosen : (here[0]?.sourceId ?? '');
  const level = useMemo(() => levelOf(diagnosis), [diagnosis]);
  const label = take.name.replace(/\.[a-z0-9]{2,4}$/i, '');
  const reading = (id: string, takenAt: string): LevelReading | null =>
    level && { ...level, id, takenAt, label, takeId: take.id, sourceId, listenerId };
  const preview = reading('preview', '2000-01-01T00:00:00.000Z');
  // biome-ignore lint/correctness/useExhaustiveDependencies: the preview is made of these
  const read = useMemo(
    () => (preview && sourceId ? reconcileLevel(rig, preview) : null),
    [rig, level, sourceId, listenerId],
  );
  if (!level || !read?.ok) return null;
  const ownDb = here.find((p) => p.sourceId === sourceId)!.ways[0]!.levelDb.nominal;
  const besides = here.filter((p) => p.sourceId !== sourceId && p.ways[0]!.levelDb.nominal > ownDb - ALONE_DB);
  const nameOf = (id: string) => sourceIn(rig, id).name;
  const known = rig.measurements.find(
    (m) => m.kind === 'level' && m.takeId === take.id && m.sourceId === sourceId && m.listenerId === listenerId,
  );
  const takeIn = (cause: LevelCause) => {
    const made = levelEdit(rig, reading(`m-${crypto.randomUUID()}`, new Date().toISOString())!, cause);
    if (made.ok) dispatch(applyStep(made.edit, say.levelMeasuredBy({ label })));
  };
  const { expected, offDb, causes, expectedNoiseDb, noiseDb } = read;
  return (
    <section aria-label={say.levelInRig()} data-testid="level-into-rig">
      <div className="spread">
        <h2>{say.levelInRig()}</h2>
        <Choice
          label={say.sourceInThisTake()}
          value={sourceId}
          onChange={setChosen}
          options={here.map((p) => [p.sourceId, nameOf(p.sourceId)])}
        />
      </div>
      <p>
        {say.measures({ sourceId: nameOf(sourceId) })}{' '}
        <span className="strong">{say.dbfs({ levelDb: formatNumber(level.levelDb, 1) })}</span>{' '}
        {say.whileItPlaysThis({
          nominal: formatNumber(expected.nominal),
          low: formatNumber(expected.low),
          high: formatNumber(expected.high),
          dB: Math.abs(offDb) < SURE_DB ? say.thatAgrees() : say.thatIsDb({ db: formatSigned(offDb) }),
        })}
        {noiseDb !== null && (
          <>
            {' '}
            {rich(say.noiseInPauses, {
              noiseDb: formatNumber(noiseDb),
              expected:
                expectedNoiseDb !== null ? say.expectedDb({ expectedNoiseDb: formatNumber(expectedNoiseDb) }) : '',
            })}
          </>
        )}
      </p>
      {besides.length > 0 && (
        <p className="watch">
          {say.alsoReachThisDestination({ join: besides.map((p) => nameOf(p.sourceId)).join(', ') })}
        </p>
      )}
      {known ? (
        <p className="good">{say.alreadyInRig()}</p>
      ) : (
        <ul className="plain-list" aria-label={say.possibleCauses()}>
          {causes.map((cause) => (
            <chakra.li key={cause.kind === 'source' ? 'source' : cause.where} className="row" marginTop="4px">
              <Button onClick={() => takeIn(cause)}>{say.thatsCause()}</Button>
              <span>{sayCause(cause, nameOf(sourceId))}</span>
            </chakra.li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** The source that the take's name speaks of; else the main voice, where it is heard there. */
function guessSource(takeName: string, rig: Rig, heard: readonly string[]): string {
  const rated = rig.sources
    .filter((s) => heard.includes(s.id))
    .map((s) => ({ id: s.id, points: wordsIn(takeName, `${s.id} ${s.name}`) }));
  const best = rated.reduce<(typeof rated)[number] | null>((b, r) => (r.points > (b?.points ?? 0) ? r : b), null);
  const main = mainVoiceOf(rig);
  return best?.id ?? (main && heard.includes(main) ? main : (heard[0] ?? ''));
}
