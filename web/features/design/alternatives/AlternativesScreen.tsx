import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import { MEASURE_IDS, type Option, OWN, scoresOf, USUAL_WEIGHTS, type Weights } from '#core/routing/plan/index.ts';
import { useJob, WorkLine } from '#web/shared/jobs/index.ts';
import { off, Page, Term, useKey } from '#web/shared/parts/index.ts';
import { api, newId, sayProblem, selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { drawWays } from '#web/shared/workers/index.ts';
import { frame, alternatives as say } from '#words/index.ts';
import { AlternativeCard } from './AlternativeCard.tsx';
import { AlternativesTable } from './AlternativesTable.tsx';

/** Before building: the ways to build what this desk is for, side by side in figures. */
export function AlternativesScreen() {
  const rig = useAppSelector(selectRig);
  return rig ? <Ways rig={rig} /> : null;
}

/** Drawn once for a rig, and again only when it has changed. */
const known = new WeakMap<Rig, Option[]>();

function Ways({ rig }: { rig: Rig }) {
  const { result: options, work } = useJob(rig, known, say.drawingAlternatives(), drawWays);
  return (
    <Page title={<Term id="ways">{frame.alternatives()}</Term>}>
      <p className="quiet">{say.otherSetupsThatCould()}</p>
      {rig.plan.length === 0 && <p className="watch">{say.yourPlanIsEmpty()}</p>}
      <WorkLine task={work.task} onStop={work.stop} onAgain={work.again} />
      {options && <Compare options={options} />}
    </Page>
  );
}

function Compare({ options }: { options: readonly Option[] }) {
  const navigate = useNavigate();
  const [create, making] = api.useCreateRigMutation();
  const [weights, setWeights] = useState<Weights>(USUAL_WEIGHTS);
  const [chosen, setChosen] = useState<string | null>(null);
  const [onlyUnbeaten, setOnlyUnbeaten] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const ranked = useMemo(() => {
    const scores = scoresOf(options, weights);
    return options
      .map((option, i) => ({ option, score: scores[i]! }))
      .sort((a, b) => Number(isOwn(b.option)) - Number(isOwn(a.option)) || b.score - a.score)
      .filter(({ option }) => !onlyUnbeaten || option.unbeaten || isOwn(option));
  }, [options, weights, onlyUnbeaten]);
  const picked = ranked.findIndex(({ option }) => option.kind.id === chosen);
  // One's own desk stands first, to be held against; what is looked at to begin with is the best of the others.
  const at = picked >= 0 ? picked : Math.min(1, ranked.length - 1);
  const here = ranked[at]?.option;
  const move = (by: number) =>
    setChosen(ranked[Math.min(ranked.length - 1, Math.max(0, at + by))]?.option.kind.id ?? null);
  useKey('j,arrowdown', say.nextAlternative(), () => move(1), ranked.length > 1);
  useKey('k,arrowup', say.previousAlternative(), () => move(-1), ranked.length > 1);
  const build = async () => {
    if (!here || isOwn(here)) return;
    const id = newId();
    try {
      await create({ id, document: here.rig }).unwrap();
      navigate(`/rigs/${id}/wire`);
    } catch (error) {
      setProblem(sayProblem(error));
    }
  };
  useKey('r', say.createThisRig(), () => void build(), here !== undefined && !isOwn(here) && !making.isLoading);
  return (
    <>
      <p className="row">
        <Button aria-pressed={onlyUnbeaten} onClick={() => setOnlyUnbeaten(!onlyUnbeaten)}>
          {onlyUnbeaten ? say.allAlternatives() : say.onlyBestTradeOffs()}
        </Button>
        <Button
          variant="plain"
          onClick={() => setWeights(USUAL_WEIGHTS)}
          {...off(sameWeights(weights) ? say.weightsAreUsual() : null)}
        >
          {say.resetWeights()}
        </Button>
      </p>
      {here && <AlternativeCard option={here} onBuild={() => void build()} />}
      <AlternativesTable
        ranked={ranked}
        all={options}
        weights={weights}
        chosenId={here?.kind.id ?? null}
        onWeight={(id, weight) => setWeights({ ...weights, [id]: weight })}
        onChoose={setChosen}
      />
      {problem && <p className="fix">{problem}</p>}
    </>
  );
}

const isOwn = ({ kind }: Option): boolean => kind.id === OWN;
const sameWeights = (weights: Weights): boolean => MEASURE_IDS.every((id) => weights[id] === USUAL_WEIGHTS[id]);
