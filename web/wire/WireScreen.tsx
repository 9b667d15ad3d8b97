import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { Finding } from '#core/check/index.ts';
import type { Rig } from '#core/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { StateMark, Term, useKey } from '#web/parts/index.ts';
import { selectEvaluation, selectRig, selectWireFindings, useAppSelector } from '#web/store/index.ts';
import { FindingCard } from './FindingCard.tsx';
import { LeadTable } from './LeadTable.tsx';
import { Papers } from './Papers.tsx';
import { leadRows } from './rows.ts';

/** Wire: what is wrong or doubtful, and every lead with what to take for it. */
export function WireScreen() {
  const rig = useAppSelector(selectRig);
  const evaluation = useAppSelector(selectEvaluation);
  const findings = useAppSelector(selectWireFindings);
  return rig && evaluation ? <Wire rig={rig} evaluation={evaluation} findings={findings} /> : null;
}

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly findings: readonly Finding[];
}

function Wire({ rig, evaluation, findings }: Props) {
  const [params, setParams] = useSearchParams();
  const chosen = findings.find((f) => f.id === params.get('finding')) ?? findings[0];
  const choose = (finding: Finding | undefined) =>
    finding &&
    setParams(
      (all) => {
        all.set('finding', finding.id);
        return all;
      },
      { replace: true },
    );
  const move = (by: number) => {
    const at = chosen ? findings.indexOf(chosen) : 0;
    choose(findings[(at + by + findings.length) % findings.length]);
  };
  useKey('j,arrowdown', 'Next finding', () => move(1));
  useKey('k,arrowup', 'Finding before', () => move(-1));
  const rows = useMemo(() => leadRows(rig, evaluation, findings), [rig, evaluation, findings]);
  return (
    <main className={`frame-page ${chosen ? 'with-card' : ''}`}>
      <div className="page">
        <h1>
          <Term id="finding">Findings</Term>
        </h1>
        {findings.length === 0 ? (
          <p className="row good">
            <StateMark state="good" /> Nothing is found: leads, levels and who hears what are as wanted.
          </p>
        ) : (
          <table className="table tight" aria-label="Findings">
            <tbody>
              {findings.map((finding) => (
                <tr key={finding.id} aria-selected={finding === chosen}>
                  <td style={{ width: 26 }}>
                    <StateMark
                      state={finding.aside ? 'none' : finding.severity}
                      {...(finding.aside ? { title: 'put aside' } : {})}
                    />
                  </td>
                  <td>
                    <button
                      type="button"
                      className="finding"
                      aria-pressed={finding === chosen}
                      onClick={() => choose(finding)}
                    >
                      {finding.asks ?? finding.says}
                      {finding.aside && <span className="quiet"> (put aside: {finding.aside.reason})</span>}
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <LeadTable rig={rig} rows={rows} chosen={chosen?.where.cableIds ?? []} />
        <Papers rig={rig} />
      </div>
      {chosen && <FindingCard key={chosen.id} rig={rig} evaluation={evaluation} finding={chosen} findings={findings} />}
    </main>
  );
}
