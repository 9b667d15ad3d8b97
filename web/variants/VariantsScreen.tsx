import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { Rig } from '#core/rig/index.ts';
import { isTooLarge } from '#core/signal/index.ts';
import { type Comparison, compareRigs, type Difference } from '#core/variant/index.ts';
import { Choice, StateMark, Term, useKey } from '#web/parts/index.ts';
import { api, sayProblem, selectDesk, selectRig, useAppSelector } from '#web/store/index.ts';
import { frame } from '#words/index.ts';
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
  useKey('v', 'Make a variant', () => void makeVariant(), !making.isLoading);
  return (
    <main className="frame-page">
      <div className="page">
        <div className="spread">
          <h1>{frame.compare()}</h1>
          <span className="row">
            <Choice
              label="Beside"
              value={otherId}
              options={[['', 'choose a rig'], ...sorted.map((r) => [r.id, r.name] as const)]}
              onChange={choose}
            />
            <Button variant="solid" disabled={making.isLoading} onClick={() => void makeVariant()}>
              Make a variant <kbd>v</kbd>
            </Button>
          </span>
        </div>
        {problem && (
          <p className="row" role="alert">
            <StateMark state="fix" /> {problem}
          </p>
        )}
        {otherId === '' && (
          <p className="quiet" style={{ marginTop: 12 }}>
            A variant is a copy of this rig under another name. Change it as you like; what differs in boxes, leads,
            settings, findings, cost and in what can fail is laid out here.
          </p>
        )}
        {save === 'offline' && <p className="quiet">The server is away: the other rig may be older than it is.</p>}
        {otherId !== '' && (
          <Beside key={otherId} rig={rig} otherId={otherId} onOpen={() => navigate(`/rigs/${otherId}/wire`)} />
        )}
      </div>
    </main>
  );
}

const VARIANT = /, variant [A-Z]$/;
/** 'Quay talk, variant B', then C: letters that no other variant of it has. */
export function nextVariant(root: string, taken: readonly string[]): string {
  for (const letter of 'BCDEFGHIJKLMNOPQRSTUVWXYZ') {
    const name = `${root.slice(0, 100)}, variant ${letter}`;
    if (!taken.includes(name)) return name;
  }
  return `${root.slice(0, 100)}, another variant`;
}

function Beside({ rig, otherId, onOpen }: { rig: Rig; otherId: string; onOpen: () => void }) {
  const { data, error } = api.useRigQuery(otherId, { refetchOnMountOrArgChange: true });
  const other = data?.document;
  const tooLarge = useMemo(() => other !== undefined && isTooLarge(other), [other]);
  const comparison = useMemo(() => (other && !tooLarge ? compareRigs(rig, other) : undefined), [rig, other, tooLarge]);
  if (error) return <p role="alert">{sayProblem(error)}</p>;
  if (tooLarge) return <p role="alert">That rig is too large to be compared here.</p>;
  if (!other || !comparison) return <p className="quiet">Reading the other rig…</p>;
  return (
    <>
      <FigureTable names={[rig.name, other.name]} comparison={comparison} />
      <p style={{ marginTop: 8 }}>
        <Button onClick={onOpen}>Open {other.name}</Button>
      </p>
      <Differences title="Boxes and programs" names={[rig.name, other.name]} list={comparison.devices} />
      <Differences title="Leads and ways" names={[rig.name, other.name]} list={comparison.leads} />
      <Differences title="Settings" names={[rig.name, other.name]} list={comparison.settings} />
      <Differences title="Findings" names={[rig.name, other.name]} list={comparison.findings} />
    </>
  );
}

type Names = readonly [string, string];

function FigureTable({ names, comparison }: { names: Names; comparison: Comparison }) {
  const [first, second] = comparison.figures;
  return (
    <table className="table tight" aria-label="In figures" style={{ marginTop: 12 }}>
      <thead>
        <tr>
          <th>In figures</th>
          <th className="number">{names[0]}</th>
          <th className="number">{names[1]}</th>
          <th>Better</th>
        </tr>
      </thead>
      <tbody>
        {FIGURES.map(({ id, name, term, value, say }) => {
          const [a, b] = [value(first), value(second)];
          const better = a === b ? null : a < b ? names[0] : names[1];
          return (
            <tr key={id}>
              <td>{term ? <Term id={term}>{name}</Term> : name}</td>
              <td className={`number ${better === names[0] ? 'strong' : ''}`}>{say(first)}</td>
              <td className={`number ${better === names[1] ? 'strong' : ''}`}>{say(second)}</td>
              <td className="quiet">{better ?? 'alike'}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Differences({ title, names, list }: { title: string; names: Names; list: readonly Difference[] }) {
  const parts = [
    { where: 'first', head: `Only in ${names[0]}` },
    { where: 'second', head: `Only in ${names[1]}` },
    { where: 'both', head: 'In both, otherwise' },
  ] as const;
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      {list.length === 0 && <p className="quiet">No difference.</p>}
      {parts.map(({ where, head }) => {
        const own = list.filter((d) => d.where === where);
        if (own.length === 0) return null;
        return (
          <div key={where} style={{ marginTop: 6 }}>
            <p className="quiet small">{head}</p>
            <ul>
              {own.map((d) => (
                <li key={d.id}>{d.says}</li>
              ))}
            </ul>
          </div>
        );
      })}
    </section>
  );
}
