import { Button } from '@chakra-ui/react';
import { useMemo } from 'react';
import { useParams } from 'react-router';
import { figuresOf, type Judged, type Taken } from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { rich } from '#web/shared/parts/index.ts';
import { applyStep, newId, useAppDispatch } from '#web/shared/store/index.ts';
import { tapTest as say, textOf } from '#words/index.ts';
import type { Tap } from './useTap.ts';

/** Figures measured by the takes, ready to be added to the rig: with them, alignment uses measured instead of typical values. */
export function Figures({ rig, tap, judged }: { rig: Rig; tap: Tap; judged: Judged }) {
  const dispatch = useAppDispatch();
  const { rigId } = useParams();
  const takenAt = tap.takes
    .map((t) => t.at)
    .sort()
    .at(-1)!;
  const figures = useMemo(
    () => figuresOf(rig, judged, tap.read, tap.players, { takenAt, newId }),
    [rig, judged, tap.read, tap.players, takenAt],
  );
  if (figures.length === 0) return null;
  const take = ({ edit, says }: Taken) => dispatch(applyStep(edit, say.tapFigure({ says: textOf(says) })));
  const all = () =>
    dispatch(
      applyStep({ kind: 'batch', edits: figures.map((f) => f.edit) }, say.tapFigures({ figure: figures.length })),
    );
  return (
    <section aria-label={say.figuresForRig()}>
      <h2>{say.figuresForRig()}</h2>
      <p className="quiet small">{rich(say.measuredEachWithIts, {}, `/rigs/${rigId}/sync`)}</p>
      <p>
        <Button size="sm" onClick={all}>
          {say.addAllToRig({ figures: figures.length })}
        </Button>
      </p>
      <ul className="plain-list tap-figures">
        {figures.map((f) => (
          <li key={f.id} className="row">
            <Button size="xs" aria-label={say.addToRig({ says: textOf(f.says) })} onClick={() => take(f)}>
              {say.addToRigTitle()}
            </Button>
            <span>
              {textOf(f.says)} <span className="quiet fact">{say.measured({ spread: textOf(f.spread) })}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
