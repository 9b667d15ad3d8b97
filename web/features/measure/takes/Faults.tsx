import { Button, chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import type { Diagnosis, Fault } from '#core/audio/measure/index.ts';
import { placesOf } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { formatClock, Head, StateMark, Table, Term } from '#web/shared/parts/index.ts';
import { takes as say, textOf } from '#words/index.ts';
import { FAULTS } from './fault-names.ts';

interface FaultsProps {
  readonly diagnosis: Diagnosis;
  readonly rigId: string | null;
  readonly rig: Rig | null;
  readonly evaluation: Evaluation | null;
  /** Where the take was recorded. */
  readonly listenerId: string;
  /** Goes to an instant of the take, ms. */
  readonly onSee: (atMs: number) => void;
}

/** What is wrong with a take: what shows it, where, and what in this rig could have made it. */
export function Faults({ diagnosis, rigId, rig, evaluation, listenerId, onSee }: FaultsProps) {
  if (diagnosis.faults.length === 0)
    return (
      <p>
        <StateMark state="good" /> {say.noHumHissClipping()}
      </p>
    );
  return (
    <Table data-testid="faults">
      <Head columns={[say.fault(), say.evidence(), rig ? say.possibleCausesInThis() : say.where()]} />
      <tbody>
        {diagnosis.faults.map((fault) => (
          <tr key={fault.id}>
            <td className={fault.severity}>
              <StateMark state={fault.severity} /> <Term id={FAULTS[fault.id].term}>{FAULTS[fault.id].name}</Term>
            </td>
            <td>
              {textOf(fault.evidence)}
              {fault.atS.length > 0 && (
                <chakra.span className="row small" flexWrap="wrap">
                  {fault.atS.map((s) => (
                    <Button key={s} variant="plain" onClick={() => onSee(1000 * s)}>
                      {formatClock(1000 * s, 2)}
                    </Button>
                  ))}
                </chakra.span>
              )}
            </td>
            <td>
              {rig && evaluation && (
                <Places rigId={rigId} rig={rig} evaluation={evaluation} listenerId={listenerId} fault={fault} />
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

interface PlacesProps {
  readonly rigId: string | null;
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly listenerId: string;
  readonly fault: Fault;
}

/** The suspects of this rig, the likeliest first; each with the tap to look at next. */
function Places({ rigId, rig, evaluation, listenerId, fault }: PlacesProps) {
  const places = useMemo(() => placesOf(rig, evaluation, listenerId, fault), [rig, evaluation, listenerId, fault]);
  if (places.length === 0) return <span className="quiet">{say.nothingInDrawingExplains()}</span>;
  return (
    <ol className="small">
      {places.map(({ where, why, tap }) => (
        <li key={textOf(where)}>
          <Link to={`/rigs/${rigId}/wire?tap=${tap.deviceId}.${tap.portId}`}>{textOf(where)}</Link>
          <span className="quiet">: {textOf(why)}</span>
        </li>
      ))}
    </ol>
  );
}
