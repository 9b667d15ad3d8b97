import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { z } from 'zod';
import type { Finding } from '#core/rules/index.ts';
import { LineButton, rich, StateMark, Table, Term, useKey, useMore } from '#web/shared/parts/index.ts';
import { keep, readKept } from '#web/shared/store/index.ts';
import { common, wire as say, textOf } from '#words/index.ts';

interface Props extends TableProps {
  /** To the next one, or back. */
  readonly onMove: (by: 1 | -1) => void;
}

/** As it was left: some work along the list, others along the map. */
const OPEN = 'mellow.issues-open';

/** At the foot of the page, whatever is looked at above: how many issues, the chosen one, and all of them on demand. */
export function IssueDrawer({ findings, chosen, onChoose, onMove }: Props) {
  const [open, setOpen] = useState(() => readKept(OPEN, z.boolean()) ?? false);
  const toggle = () => {
    keep(OPEN, !open);
    setOpen(!open);
  };
  useKey('i', say.issuesKey(), toggle, findings.length > 0);
  if (findings.length === 0)
    return (
      <section className="drawer" aria-label={common.issues()}>
        <p className="row good">
          <StateMark state="good" /> {say.noIssuesCablesLevels()}
        </p>
      </section>
    );
  return (
    <section className={`drawer ${open ? 'open' : ''}`} aria-label={common.issues()}>
      <div className="drawer-head">
        <Button size="sm" aria-expanded={open} onClick={toggle}>
          {rich(open ? say.closeIssues : say.openIssues, { count: findings.length })}
        </Button>
        {chosen ? (
          <p className="drawer-says" title={textOf(chosen.asks ?? chosen.says)}>
            <span className="quiet">{findings.indexOf(chosen) + 1}</span>{' '}
            <StateMark state={chosen.dismissed ? 'none' : chosen.severity} /> {textOf(chosen.asks ?? chosen.says)}
          </p>
        ) : (
          <p className="drawer-says quiet">
            <Term id="finding">{common.issues()}</Term>
          </p>
        )}
        <Button size="sm" aria-label={say.previousIssue()} onClick={() => onMove(-1)}>
          ↑ <kbd>k</kbd>
        </Button>
        <Button size="sm" aria-label={say.nextIssue()} onClick={() => onMove(1)}>
          ↓ <kbd>j</kbd>
        </Button>
      </div>
      {open && (
        <div className="drawer-list">
          <FindingTable findings={findings} chosen={chosen} onChoose={onChoose} />
        </div>
      )}
    </section>
  );
}

interface TableProps {
  readonly findings: readonly Finding[];
  readonly chosen: Finding | undefined;
  readonly onChoose: (finding: Finding) => void;
}

function FindingTable({ findings, chosen, onChoose }: TableProps) {
  const numbered = useMemo(() => findings.map((finding, i) => ({ finding, number: i + 1 })), [findings]);
  const { shown, more } = useMore(numbered, ({ finding }) => finding === chosen);
  return (
    <>
      <Table tight aria-label={common.issues()}>
        <tbody>
          {shown.map(({ finding, number }) => (
            <tr key={finding.id} aria-selected={finding === chosen}>
              <chakra.td className="number quiet" width="26px">
                {number}
              </chakra.td>
              <chakra.td width="26px">
                <StateMark
                  state={finding.dismissed ? 'none' : finding.severity}
                  {...(finding.dismissed ? { title: say.ignoredMark() } : {})}
                />
              </chakra.td>
              <td>
                <LineButton aria-pressed={finding === chosen} onClick={() => onChoose(finding)}>
                  {textOf(finding.asks ?? finding.says)}
                  {finding.dismissed && (
                    <span className="quiet"> {say.ignoredWith({ reason: finding.dismissed.reason })}</span>
                  )}
                </LineButton>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      {more}
    </>
  );
}
