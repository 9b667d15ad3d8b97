import { Button, chakra } from '@chakra-ui/react';
import { memo, useMemo, useRef, useState } from 'react';
import { LARGEST_RIG_BYTES } from '#api/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { CsvError, leadsFromCsv, leadsToCsv, type RowReport, rigToDot } from '#core/output/exchange/index.ts';
import { labelSheets, mapSheet, type Paper, settingsSheets, wiringSheets } from '#core/output/sheets/index.ts';
import {
  countByKind,
  FAILURE_KINDS,
  type FailureKind,
  failuresOf,
  shoppingList,
} from '#core/routing/variants/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import {
  announce,
  Choice,
  FileInput,
  figures,
  formatNumber,
  Head,
  printSheets,
  StateMark,
  saveAs,
  Table,
  Term,
} from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { common, wire as say, textOf } from '#words/index.ts';

type SheetKind = 'wiring' | 'labels' | 'map' | 'settings';

/** The printable sheets, and which are in landscape. */
const SHEETS: Record<
  SheetKind,
  {
    readonly name: string;
    readonly across: boolean;
    readonly make: (rig: Rig, evaluation: Evaluation, paper: Paper) => readonly string[];
  }
> = {
  wiring: { name: say.wiringSheet(), across: false, make: (rig, _, paper) => wiringSheets(rig, paper) },
  labels: { name: say.cableLabels(), across: false, make: (rig, _, paper) => labelSheets(rig, paper) },
  settings: { name: say.settingsSheet(), across: false, make: (rig, _, paper) => settingsSheets(rig, paper) },
  map: { name: say.signalMap(), across: true, make: (rig, evaluation, paper) => [mapSheet(rig, evaluation, paper)] },
};

/** What to have, and the rig on paper: tables out and in, the graph, the printer. */
export const Papers = memo(function Papers({ rig, evaluation }: { rig: Rig; evaluation: Evaluation }) {
  const dispatch = useAppDispatch();
  const chooser = useRef<HTMLInputElement>(null);
  const [rows, setRows] = useState<readonly RowReport[]>([]);
  const [paper, setPaper] = useState<Paper>('a4');
  const [kind, setKind] = useState<SheetKind>('wiring');
  const put = (out: (sheets: readonly string[]) => void) => {
    const sheets = SHEETS[kind].make(rig, evaluation, paper);
    if (sheets.length === 0) return announce('watch', say.noCablesYetSo());
    out(sheets);
  };
  const save = (sheets: readonly string[]) =>
    sheets.forEach((sheet, i) => {
      const n = sheets.length > 1 ? ` ${i + 1}` : '';
      saveAs(`${rig.name}, ${kind}${n}.svg`, sheet, 'image/svg+xml');
    });
  const importCsv = async (file: File) => {
    setRows([]);
    if (file.size > LARGEST_RIG_BYTES) return announce('fix', say.isLargerThanMb({ file: file.name }));
    try {
      const read = leadsFromCsv(rig, await file.text());
      if (read.edit) dispatch(applyStep(read.edit, say.cablesImportedFrom({ file: file.name })));
      const refused = read.rows.filter((r) => !r.ok);
      setRows(refused);
      announce(
        refused.length > 0 ? 'watch' : 'good',
        say.rowsRead({
          count: read.rows.length,
          refused: refused.length > 0 ? say.refused({ refused: refused.length }) : '',
          outcome: read.edit ? say.undoRemovesThemAgain() : say.nothingChanged(),
        }),
      );
    } catch (error) {
      announce('fix', error instanceof CsvError ? error.message : say.cantBeReadNothing({ file: file.name }));
    }
  };
  return (
    <>
      <div className="spread">
        <h2>{say.shoppingList()}</h2>
        <chakra.span className="row no-print" marginTop="14px">
          <Button onClick={() => saveAs(`${rig.name}, leads.csv`, leadsToCsv(rig), 'text/csv')}>
            {say.cablesAsCsv()}
          </Button>
          <Button onClick={() => chooser.current?.click()}>{say.importCables()}</Button>
          <Button onClick={() => saveAs(`${rig.name}.dot`, rigToDot(rig), 'text/vnd.graphviz')}>
            {say.graphAsDot()}
          </Button>
          <Choice
            label={say.paperSize()}
            value={paper}
            options={[
              ['a4', 'A4'],
              ['letter', say.usLetter()],
            ]}
            onChange={(p) => setPaper(p as Paper)}
          />
          <Choice
            label={say.sheets()}
            value={kind}
            options={Object.entries(SHEETS).map(([id, { name }]) => [id, name] as const)}
            onChange={(k) => setKind(k as SheetKind)}
          />
          <Button onClick={() => put((sheets) => printSheets(sheets, paper, SHEETS[kind].across))}>
            {common.print()}
          </Button>
          <Button onClick={() => put(save)}>{say.saveAsSvg()}</Button>
        </chakra.span>
      </div>
      <FileInput
        chooser={chooser}
        label={say.cableTableFile()}
        accept=".csv,text/csv"
        onFile={(file) => void importCsv(file)}
      />
      <div aria-live="polite">
        {rows.length > 0 && (
          <ul>
            {rows.map((row) => (
              <li key={row.line}>
                <StateMark state="fix" /> {say.line({ line: row.line, says: textOf(row.says) })}
              </li>
            ))}
          </ul>
        )}
      </div>
      <Table tight aria-label={say.shoppingList()}>
        <Head columns={[say.item(), figures(say.quantity()), say.lengthsM(), figures(say.eachEurosTypical())]} />
        <tbody>
          {shoppingList(rig).map((item) => (
            <tr key={textOf(item.name)}>
              <td>{textOf(item.name)}</td>
              <td className="number">{item.count}</td>
              <td className="quiet">{item.lengthsM.map((m) => formatNumber(m, m % 1 ? 1 : 0)).join(', ')}</td>
              <td className="number quiet">{say.toOf({ n0: item.price[0], n1: item.price[1] })}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <CanFail rig={rig} evaluation={evaluation} />
    </>
  );
});

const TOLD = 8;
const KINDS: Record<FailureKind, { one: () => string; several: (params: { count: number }) => string }> = {
  box: { one: say.failureDevice, several: say.failureDevices },
  supply: { one: say.failureSupply, several: say.failureSupplies },
  battery: { one: say.failureBattery, several: say.failureBatteries },
  program: { one: say.failureApp, several: say.failureApps },
  lead: { one: say.failureCable, several: say.failureCables },
  adapter: { one: say.failureAdapter, several: say.failureAdapters },
  radio: { one: say.failureRadio, several: say.failureRadios },
};

/** Single points of failure: their number, and which of them the plan depends on. */
function CanFail({ rig, evaluation }: { rig: Rig; evaluation: Evaluation }) {
  const failures = useMemo(() => failuresOf(rig, evaluation), [rig, evaluation]);
  const kinds = countByKind(failures);
  const wanted = rig.plan.filter((c) => c.want === 'must').length;
  const costly = failures.filter((f) => f.loses > 0);
  return (
    <section aria-label={say.pointsFailure()}>
      <h2>
        <Term id="can-fail">{say.pointsFailure()}</Term>
      </h2>
      <p>
        {say.failuresInAll({
          count: failures.length,
          kinds: FAILURE_KINDS.filter((k) => kinds[k] > 0)
            .map((k) => KINDS[k].several({ count: kinds[k] }))
            .join(', '),
        })}
      </p>
      {wanted === 0 && <p className="quiet">{say.noRequirementsYetSo()}</p>}
      {costly.length > 0 && (
        <Table tight>
          <Head columns={[say.ifThisFails(), say.type(), figures(say.lostOfRequired({ wanted }))]} />
          <tbody>
            {costly.slice(0, TOLD).map((f) => (
              <tr key={`${f.kind} ${f.name} ${f.cableIds[0] ?? f.deviceIds[0]}`}>
                <td>{textOf(f.name)}</td>
                <td className="quiet">{KINDS[f.kind].one()}</td>
                <td className="number">{f.loses}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {costly.length > TOLD && <p className="small quiet">{say.moreWouldTakeOut({ TOLD: costly.length - TOLD })}</p>}
    </section>
  );
}
