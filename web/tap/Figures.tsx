import { Button } from '@chakra-ui/react';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import type { Rig } from '#core/rig/index.ts';
import { figuresOf, type Judged, type Taken } from '#core/taptest/index.ts';
import { count } from '#web/parts/index.ts';
import { applyStep, newId, useAppDispatch } from '#web/store/index.ts';
import type { Tap } from './useTap.ts';

/** What the takes measured of this rig, ready to be taken in: with it, align works from what is, not from what is typical. */
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
  const take = ({ edit, says }: Taken) => dispatch(applyStep(edit, `Tap: ${says}`));
  const all = () =>
    dispatch(
      applyStep({ kind: 'batch', edits: figures.map((f) => f.edit) }, `Tap: ${count(figures.length, 'figure')}`),
    );
  return (
    <section aria-label="Figures for the rig">
      <h2>Figures for the rig</h2>
      <p className="quiet small">
        Measured, each with its spread; only of readings that agree with the drawing. Then{' '}
        <Link to={`/rigs/${rigId}/sync`}>Sync</Link> aligns by what is, not by what is typical.
      </p>
      <p>
        <Button size="sm" onClick={all}>
          Take all {figures.length} in
        </Button>
      </p>
      <ul className="plain-list tap-figures">
        {figures.map((f) => (
          <li key={f.id} className="row">
            <Button size="xs" aria-label={`Take in: ${f.says}`} onClick={() => take(f)}>
              Take in
            </Button>
            <span>
              {f.says} <span className="quiet fact">measured, {f.spread}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
