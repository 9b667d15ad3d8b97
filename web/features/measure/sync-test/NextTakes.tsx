import { Button, chakra } from '@chakra-ui/react';
import { csvOf } from '#core/base/text/index.ts';
import type { NextTake, TestedPath } from '#core/desk-tests/sync-test/index.ts';
import {
  findDevice,
  findSetting,
  findTypes,
  listenerIn,
  type Rig,
  sayValue,
  settingAt,
  settingOf,
  sourceIn,
} from '#core/model/rig/index.ts';
import { type ClapRow, clapSheet } from '#core/output/sheets/index.ts';
import { formatNumber, printSheets, rich, saveAs } from '#web/shared/parts/index.ts';
import { syncTest as say } from '#words/index.ts';

const nameOf = (rig: Rig, { sourceId, listenerId }: { sourceId: string; listenerId: string }): string =>
  say.at({
    name: sourceIn(rig, sourceId).name,
    name2: listenerIn(rig, listenerId).name,
  });

/** How the delays on a path stand now, for the list on paper. */
function rowOf(rig: Rig, table: readonly TestedPath[], next: NextTake): ClapRow {
  const path = table.find((p) => p.sourceId === next.sourceId && p.listenerId === next.listenerId);
  const set = (path?.settings ?? []).flatMap((key) => {
    const { deviceId, settingId } = settingAt(key);
    const device = findDevice(rig, deviceId);
    const spec = findSetting(rig, findTypes(rig), deviceId, settingId);
    return device && spec ? [`${device.name} ${sayValue(spec, settingOf(device, spec).value)}`] : [];
  });
  return { path: nameOf(rig, next), setting: set.join(', ') };
}

interface Props {
  readonly rig: Rig;
  readonly table: readonly TestedPath[];
  readonly next: readonly NextTake[];
}

/** What is still to be recorded, the most telling first. */
export function NextTakes({ rig, table, next }: Props) {
  if (next.length === 0) return <p className="good">{say.moreTakesWouldntImprove()}</p>;
  const list = () =>
    saveAs(
      say.takesToRecordCsv(),
      csvOf([
        ['take', 'path', say.reducesUncertaintyBy(), say.alsoNarrows()],
        ...next.map((n, i) => [
          String(i + 1),
          nameOf(rig, n),
          n.tells.toFixed(3),
          n.also.map((a) => nameOf(rig, a)).join('; '),
        ]),
      ]),
      'text/csv',
    );
  return (
    <section aria-label={say.takesToRecordNext()}>
      <div className="spread">
        <h2>{say.takesToRecordNext()}</h2>
        <chakra.span className="row" marginTop="16px">
          <Button onClick={list}>{say.downloadListCsv()}</Button>
          <Button
            onClick={() =>
              printSheets(
                [
                  clapSheet(
                    'a4',
                    next.map((n) => rowOf(rig, table, n)),
                  ),
                ],
                'a4',
                false,
              )
            }
          >
            {say.printClapSheet()}
          </Button>
        </chakra.span>
      </div>
      <ol className="plain-list" data-testid="next-takes">
        {next.map((n, i) => (
          <li key={`${n.sourceId} ${n.listenerId}`}>
            <span className="fact">{i + 1}.</span> <span className="strong">{nameOf(rig, n)}</span>
            {say.removesShare()} <span className="fact">{formatNumber(100 * n.tells)}%</span>{' '}
            {rich(say.ofUncertainty, {})}
            {n.also.length > 0 && (
              <span className="quiet">
                {' '}
                {say.andAlsoNarrows({
                  join: n.also
                    .slice(0, 3)
                    .map((a) => nameOf(rig, a))
                    .join(', '),
                  more: n.also.length > 3 ? say.andSomeMore({ n3: n.also.length - 3 }) : '',
                })}
              </span>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
