import { Button, chakra, Input } from '@chakra-ui/react';
import { memo, useEffect, useState } from 'react';
import { leadIsSo, type Rig } from '#core/model/rig/index.ts';
import {
  figures,
  formatNumber,
  Head,
  hidden,
  SourceLetter,
  StateMark,
  Table,
  useMore,
  useSteady,
} from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { common, feetBeside, lengthMOf, wire as say } from '#words/index.ts';
import { billOf, type LeadRow, matches, sayParts } from './rows.ts';

interface Props {
  readonly rig: Rig;
  readonly rows: readonly LeadRow[];
  readonly chosen: readonly string[];
}

/** Every cable: from where to where, what to take, how long it is and may be, and how that is known. */
export const LeadTable = memo(function LeadTable({ rig, rows, chosen }: Props) {
  const dispatch = useAppDispatch();
  const [search, setSearch] = useState('');
  const seen = useSteady(({ cable, from, to }: LeadRow['lead'], lengthM: number) => {
    const edit = leadIsSo(rig, cable.id, lengthM);
    if (edit) dispatch(applyStep(edit, say.mCable({ device: from.device.name, device2: to.device.name, lengthM })));
  });
  const found = rows.filter((row) => matches(row, search));
  const { shown, more } = useMore(found, (row) => chosen.includes(row.id));
  const bill = billOf(rows);
  return (
    <>
      <div className="spread">
        <h2>{say.cables()}</h2>
        <Input
          aria-label={say.searchCables()}
          placeholder={common.search()}
          width="180px"
          marginTop="14px"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
      </div>
      <Table tight>
        <Head
          columns={[
            hidden(say.stateHead()),
            say.from(),
            say.to(),
            say.carries(),
            say.cableNeeded(),
            figures(say.lengthM()),
            figures(say.advisedMaxM()),
            common.status(),
          ]}
        />
        <tbody>
          {shown.map((row) => (
            <LeadLine key={row.id} sources={rig.sources} row={row} chosen={chosen.includes(row.id)} onSeen={seen} />
          ))}
        </tbody>
      </Table>
      {more}
      {shown.length === 0 && (
        <p className="quiet">{rows.length === 0 ? say.noCablesYetPress() : say.noCableMatches()}</p>
      )}
      <chakra.p className="small quiet" marginTop="6px">
        {say.billOfCables({
          rows: rows.length,
          parts: bill.parts,
          low: formatNumber(bill.low),
          high: formatNumber(bill.high),
        })}
      </chakra.p>
    </>
  );
});

interface LineProps {
  readonly sources: Rig['sources'];
  readonly row: LeadRow;
  readonly chosen: boolean;
  readonly onSeen: (lead: LeadRow['lead'], lengthM: number) => void;
}

/** A row that says the same is not drawn again: a table has many, and each has a field. */
const LeadLine = memo(function LeadLine({ sources, row, chosen, onSeen }: LineProps) {
  const { lead, limit, worst } = row;
  const { cable, from, to } = lead;
  const seen = (lengthM: number) => onSeen(lead, lengthM);
  return (
    <tr aria-selected={chosen} id={`lead-${cable.id}`}>
      <td>{worst && <StateMark state={worst} />}</td>
      <td>
        {from.device.name}
        <div className="small quiet">{from.port.name}</div>
      </td>
      <td>
        {to.device.name}
        <div className="small quiet">{to.port.name}</div>
      </td>
      <td>
        <chakra.span className="row" gap="3px">
          {row.sourceIds.map((id) => (
            <SourceLetter key={id} source={sources.find((s) => s.id === id)!} />
          ))}
        </chakra.span>
      </td>
      <td className={row.chain === null ? 'stop' : ''}>{sayParts(row)}</td>
      <td className="number">
        <LengthInput
          label={say.lengthOfCable({ device: from.device.name, device2: to.device.name })}
          lengthM={cable.lengthM}
          onSeen={seen}
        />
      </td>
      <td className="number quiet">
        {limit ? `${formatNumber(limit.carefulM, limit.carefulM % 1 ? 1 : 0)}, ${limit.mostM}` : ''}
      </td>
      <td>
        {cable.known === 'assumed' ? (
          <Button
            onClick={() => seen(cable.lengthM)}
            aria-label={say.confirmCable({ device: from.device.name, device2: to.device.name })}
          >
            {say.assumedConfirm()}
          </Button>
        ) : (
          <span className="quiet">{say.howKnown({ known: cable.known })}</span>
        )}
      </td>
    </tr>
  );
}, isSameLine);

function isSameLine(a: LineProps, b: LineProps): boolean {
  const same = a.row.lead === b.row.lead && a.row.worst === b.row.worst && a.chosen === b.chosen;
  return same && a.sources === b.sources && a.row.sourceIds.join() === b.row.sourceIds.join();
}

/** What is typed counts as looked at; it is taken when the field is left or Enter is pressed. */
function LengthInput({
  label,
  lengthM,
  onSeen,
}: {
  label: string;
  lengthM: number;
  onSeen: (lengthM: number) => void;
}) {
  const [text, setText] = useState(String(lengthM));
  useEffect(() => setText(String(lengthM)), [lengthM]);
  const typed = lengthMOf(text);
  const valid = typed >= 0 && typed <= 1000;
  const settle = () => {
    if (valid && typed !== lengthM) onSeen(typed);
    else setText(String(lengthM));
  };
  return (
    <>
      <Input
        aria-label={label}
        width="62px"
        textAlign="right"
        aria-invalid={!valid}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={settle}
        onKeyDown={(e) => {
          if (e.key === 'Enter') settle();
          if (e.key === 'Escape') setText(String(lengthM));
        }}
      />
      <div className="small quiet">{feetBeside(lengthM)}</div>
    </>
  );
}
