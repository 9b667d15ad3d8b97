import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import { type Comparison, compareRigs, type Difference } from '#core/routing/variants/index.ts';
import { isTooLarge } from '#core/signal/index.ts';
import { Choice, figures, Head, Page, rich, StateMark, Table, Term, useKey } from '#web/shared/parts/index.ts';
import { api, sayProblem, selectDesk, selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { common, frame, variants as say, textOf } from '#words/index.ts';
import { FIGURES } from './figures.ts';

/** Side by side: this rig and a variant of it, or any other; what each has that the other has not. */
export function VariantsScreen() {
  const rig = useAppSelector(selectRig);
  return rig ? <Variants rig={rig} /> : null;
}

function Variants({ rig }: { rig: Rig }) {
  const { rigId = '' } = useParams();
  const { save } = useAppSelector(selectDesk);
  const [params, setParams] = useSearchParams();
  const navigate = useNavigate();
  const rigs = api.useRigsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [create, making] = api.useCreateRigMutation();
  const [problem, setProblem] = useState<string | null>(null);
  const others = (rigs.data ?? []).filter((r) => r.id !== rigId);
  const root = rig.name.replace(VARIANT, '');
  const isKin = (name: string) => name.replace(VARIANT, '') === root;
  const sorted = [...others].sort((a, b) => Number(isKin(b.name)) - Number(isKin(a.name)));
  const otherId = params.get('with') ?? sorted.find((r) => isKin(r.name))?.id ?? '';
  const choose = (id: string) => setParams(id ? { with: id } : {}, { replace: true });
  const makeVariant = async () => {
    const id = crypto.randomUUID();
    const name = nextVariant(root, [rig.name, ...others.map((r) => r.name)]);
    try {
      await create({ id, document: { ...rig, name } }).unwrap();
      setProblem(null);
      choose(id);
    } catch (error) {
      setProblem(sayProblem(error));
    }
  };
  useKey('v', say.createVariant(), () => void makeVariant(), !making.isLoading);
  return (
    <Page
      title={frame.compare()}
      actions={
        <span className="row">
          <Choice
            label={say.compareWith()}
            value={otherId}
            options={[['', say.chooseRig()], ...sorted.map((r) => [r.id, r.name] as const)]}
            onChange={choose}
          />
          <Button variant="solid" disabled={making.isLoading} onClick={() => void makeVariant()}>
            {rich(say.createVariantV, {})}
          </Button>
        </span>
      }
    >
      {problem && (
        <p className="row" role="alert">
          <StateMark state="fix" /> {problem}
        </p>
      )}
      {otherId === '' && (
        <chakra.p className="quiet" marginTop="12px">
          {say.variantIsCopyThis()}
        </chakra.p>
      )}
      {save === 'offline' && <p className="quiet">{say.serverIsntRespondingOther()}</p>}
      {otherId !== '' && (
        <Beside key={otherId} rig={rig} otherId={otherId} onOpen={() => navigate(`/rigs/${otherId}/wire`)} />
      )}
    </Page>
  );
}

const VARIANT = /, variant [A-Z]$/;
/** 'Quay talk, variant B', then C: letters that no other variant of it has. */
export function nextVariant(root: string, taken: readonly string[]): string {
  for (const letter of 'BCDEFGHIJKLMNOPQRSTUVWXYZ') {
    const name = say.variantName({ n100: root.slice(0, 100), letter });
    if (!taken.includes(name)) return name;
  }
  return say.anotherVariant({ n100: root.slice(0, 100) });
}

function Beside({ rig, otherId, onOpen }: { rig: Rig; otherId: string; onOpen: () => void }) {
  const { data, error } = api.useRigQuery(otherId, { refetchOnMountOrArgChange: true });
  const other = data?.document;
  const tooLarge = useMemo(() => other !== undefined && isTooLarge(other), [other]);
  const comparison = useMemo(() => (other && !tooLarge ? compareRigs(rig, other) : undefined), [rig, other, tooLarge]);
  if (error) return <p role="alert">{sayProblem(error)}</p>;
  if (tooLarge) return <p role="alert">{say.thatRigIsToo()}</p>;
  if (!other || !comparison) return <p className="quiet">{say.loadingOtherRig()}</p>;
  return (
    <>
      <FigureTable names={[rig.name, other.name]} comparison={comparison} />
      <chakra.p marginTop="8px">
        <Button onClick={onOpen}>{say.open({ other: other.name })}</Button>
      </chakra.p>
      <Differences title={say.devicesAndApps()} names={[rig.name, other.name]} list={comparison.devices} />
      <Differences title={say.cablesAndPaths()} names={[rig.name, other.name]} list={comparison.leads} />
      <Differences title={say.settings()} names={[rig.name, other.name]} list={comparison.settings} />
      <Differences title={common.issues()} names={[rig.name, other.name]} list={comparison.findings} />
    </>
  );
}

type Names = readonly [string, string];

function FigureTable({ names, comparison }: { names: Names; comparison: Comparison }) {
  const [first, second] = comparison.figures;
  return (
    <Table tight aria-label={say.inFigures()} marginTop="12px">
      <Head columns={[say.inFigures(), figures(names[0]), figures(names[1]), say.better()]} />
      <tbody>
        {FIGURES.map(({ id, name, term, value, say }) => {
          const [a, b] = [value(first), value(second)];
          const better = a === b ? null : a < b ? names[0] : names[1];
          return (
            <tr key={id}>
              <td>{term ? <Term id={term}>{name}</Term> : name}</td>
              <td className={`number ${better === names[0] ? 'strong' : ''}`}>{say(first)}</td>
              <td className={`number ${better === names[1] ? 'strong' : ''}`}>{say(second)}</td>
              <td className="quiet">{better ?? common.same()}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

function Differences({ title, names, list }: { title: string; names: Names; list: readonly Difference[] }) {
  const parts = [
    { where: 'first', head: say.onlyIn({ n0: names[0] }) },
    { where: 'second', head: say.onlyInWith({ n1: names[1] }) },
    { where: 'both', head: say.inBothButDifferent() },
  ] as const;
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      {list.length === 0 && <p className="quiet">{say.noDifference()}</p>}
      {parts.map(({ where, head }) => {
        const own = list.filter((d) => d.where === where);
        if (own.length === 0) return null;
        return (
          <chakra.div key={where} marginTop="6px">
            <p className="quiet small">{head}</p>
            <ul>
              {own.map((d) => (
                <li key={d.id}>{textOf(d.says)}</li>
              ))}
            </ul>
          </chakra.div>
        );
      })}
    </section>
  );
}
