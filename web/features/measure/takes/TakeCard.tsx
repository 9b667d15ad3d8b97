import { chakra } from '@chakra-ui/react';
import { Link } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { api } from '#web/shared/store/index.ts';
import { offsetOf } from '#web/shared/take/index.ts';
import { takes as say } from '#words/index.ts';
import { DriftIntoRig } from './DriftIntoRig.tsx';
import { PictureIntoRig } from './PictureIntoRig.tsx';
import type { Comparison } from './useComparison.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly bench: readonly BenchTake[];
  readonly comparison: Comparison;
  readonly rigId: string | null;
  readonly rig: Rig | null;
  readonly evaluation: Evaluation | null;
}

/** What the take speaks of, what it would change in the rig, and what follows; or the way to a rig. */
export function TakeCard({ bench, comparison, rigId, rig, evaluation }: Props) {
  const withOffset = bench.find((t) => t.notes && offsetOf(t.look, t.notes));
  return (
    <aside className="card" aria-label={say.recordedAt()}>
      {!rig || !evaluation || !rigId ? (
        <IntoARig takeIds={bench.map((t) => t.id)} />
      ) : (
        <>
          {withOffset && <PictureIntoRig take={withOffset} rigId={rigId} rig={rig} evaluation={evaluation} />}
          {comparison.offset && comparison.offset.confidence >= 0.5 && comparison.offset.driftPpm !== null && (
            <DriftIntoRig
              bench={bench}
              ppm={comparison.offset.driftPpm}
              sd={comparison.offset.driftSdPpm ?? 0}
              count={comparison.offset.points.length}
              rig={rig}
              evaluation={evaluation}
            />
          )}
          {!withOffset && !comparison.offset && <p className="quiet">{say.toGetTimingFigures()}</p>}
        </>
      )}
    </aside>
  );
}

function IntoARig({ takeIds }: { takeIds: readonly string[] }) {
  const rigs = api.useRigsQuery(undefined);
  return (
    <>
      <h2>{say.addToRig()}</h2>
      <p className="quiet">{say.inRigMeasuredFigures()}</p>
      <chakra.ul marginTop="8px">
        {(rigs.data ?? []).map((rig) => (
          <li key={rig.id}>
            <Link to={`/rigs/${rig.id}/bench?takes=${takeIds.join(',')}`}>{rig.name}</Link>
          </li>
        ))}
      </chakra.ul>
    </>
  );
}
