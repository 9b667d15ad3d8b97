import { Button, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { EARLIEST_S, type ScanLinkSeen } from '#core/desk-tests/scan/index.ts';
import { layoutShape, SmallCurve, useWidth } from '#web/shared/charts/index.ts';
import { formatNumber, Table } from '#web/shared/parts/index.ts';
import { scan as say } from '#words/index.ts';
import { SIDES, sayDb, sayMs } from './say.ts';

interface Props {
  readonly link: ScanLinkSeen;
  readonly from: string;
  readonly to: string;
  /** The fastest path of the scan, ms: no device's own delay can be longer. */
  readonly fastestMs: number;
  readonly onClose: () => void;
  /** What the drawing has of it. */
  readonly children?: ReactNode;
}

/** Until the card has been measured. */
const SMALL_PX = 240;

/** Levels differ by more between quiet and loud sweeps where something acts on them, dB. */
const ACTS_DB = 2;

/** One path: how it arrived, and all that was read of it. */
export function PathCard({ link, from, to, fastestMs, onClose, children }: Props) {
  const [frame, width] = useWidth<HTMLDivElement>(SMALL_PX);
  return (
    <aside className="card" aria-label={say.pathTitle({ from, to })}>
      <div className="card-head">
        <h2>{say.pathTitle({ from, to })}</h2>
        <Button size="sm" onClick={onClose} aria-label={say.closePanel()} title={say.closePanel()}>
          ×
        </Button>
      </div>
      {children}
      <chakra.div ref={frame} marginTop="8px">
        <SmallCurve
          layout={layoutShape(link.responseDb, 1000 * EARLIEST_S, width)}
          width={width}
          label={say.chartOf({ from, to })}
        />
      </chakra.div>
      <Table tight marginTop="8px">
        <tbody>
          <Fact name={say.level()}>
            {say.levelOverRounds({ db: sayDb(link.levelDb), spread: sayDb(link.levelSpreadDb / 2) })}
          </Fact>
          <Fact name={say.delay()}>{say.delaySpread({ ms: sayMs(link.delayMs), spread: sayMs(link.spreadMs) })}</Fact>
          <Fact name={say.sides()}>{SIDES[link.sides]()}</Fact>
          <Fact name={say.polarity()}>
            {link.polarity === null ? say.untold() : link.polarity > 0 ? say.upright() : say.inverted()}
          </Fact>
          <Fact name={say.clock()}>
            {link.ppm === null ? say.clockUntold() : say.clockPpm({ ppm: formatNumber(link.ppm, 1) })}
          </Fact>
          <Fact name={say.band()}>
            {say.bandHz({ low: formatNumber(round(link.lowHz)), high: formatNumber(round(link.highHz)) })}
          </Fact>
          {link.again.map(({ afterMs, underDb }) => (
            <Fact key={afterMs} name={say.twice()}>
              {say.twiceAt({
                ms: sayMs(Math.abs(afterMs)),
                when: afterMs > 0 ? say.later() : say.earlier(),
                db: sayDb(underDb),
              })}
            </Fact>
          ))}
          {link.levelSpreadDb > ACTS_DB && (
            <Fact name={say.acts()}>{say.actsOnLevel({ db: sayDb(link.levelSpreadDb) })}</Fact>
          )}
        </tbody>
      </Table>
      <chakra.p className="small quiet" marginTop="8px">
        {fastestMs > 0 ? say.delayHolds({ ms: sayMs(fastestMs) }) : say.delayFromFastest()}
      </chakra.p>
    </aside>
  );
}

const Fact = ({ name, children }: { name: string; children: ReactNode }) => (
  <tr>
    <th scope="row">{name}</th>
    <td>{children}</td>
  </tr>
);

/** Edges of third octaves, to two digits. */
const round = (hz: number): number => Number(hz.toPrecision(2));
