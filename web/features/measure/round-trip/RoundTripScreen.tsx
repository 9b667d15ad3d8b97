import '#words/core.ts';
import { Button, chakra } from '@chakra-ui/react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { summariseTrips, type Trip } from '#core/desk-tests/slates/index.ts';
import { ratioFromDb } from '#core/model/units/index.ts';
import { LevelSlider } from '#web/shared/listen/index.ts';
import { Choice, figures, formatNumber, Head, rich, Table, Term, useKey } from '#web/shared/parts/index.ts';
import { TakeFrame, TakePage } from '#web/shared/take/index.ts';
import { openTripReader } from '#web/shared/workers/index.ts';
import { common, roundTrip as say } from '#words/index.ts';
import { type Back, type RunningLoop, runLoop, STAND_IN_MS } from './loop.ts';

/** No one is startled: it begins silent. */
const SILENT_DB = -60;
const ENOUGH = 20;
const STAND_IN = 'stand-in';
const ANY = 'any';

const gainOf = (db: number): number => (db <= SILENT_DB ? 0 : ratioFromDb(db));

/** Round-trip latency of this computer: a chirp goes out, comes back by a cable or through the air, and is timed. */
export function RoundTripScreen() {
  const [back, setBack] = useState<string>(ANY);
  const [levelDb, setLevelDb] = useState(SILENT_DB);
  const [running, setRunning] = useState<RunningLoop | null>(null);
  const [trips, setTrips] = useState<readonly Trip[]>([]);
  const [failed, setFailed] = useState<string | null>(null);
  const open = useRef<{ loop: RunningLoop; close(): void } | null>(null);
  const stop = useCallback(() => {
    open.current?.loop.stop();
    open.current?.close();
    open.current = null;
    setRunning(null);
  }, []);
  useEffect(() => stop, [stop]);
  const start = async (wanted: string) => {
    stop();
    setTrips([]);
    setFailed(null);
    const reader = openTripReader();
    const from: Back =
      wanted === STAND_IN ? { kind: 'stand-in' } : { kind: 'input', inputId: wanted === ANY ? null : wanted };
    try {
      const loop = await runLoop({
        back: from,
        gain: gainOf(levelDb),
        read: reader.read,
        onTrip: (trip) => setTrips((all) => [...all, trip].slice(-MAX_KEPT)),
        onEnd: (why) => {
          stop();
          setFailed(why);
        },
      });
      open.current = { loop, close: reader.close };
      setRunning(loop);
      if (from.kind === 'input') setBack(loop.inputId || ANY);
    } catch (error) {
      reader.close();
      setFailed(error instanceof Error ? error.message : String(error));
    }
  };
  useKey('s', say.startOrStop(), () => (running ? stop() : void start(back)));
  const heard = trips.filter((t) => t.ms !== null).length;
  useEffect(() => {
    if (heard >= ENOUGH) stop();
  }, [heard, stop]);
  const inputs = running?.inputs ?? [];
  return (
    <TakeFrame>
      <TakePage title={<Term id="round-trip">{say.roundTripLatency()}</Term>} bench="/bench">
        <p className="quiet">{say.playsChirpAndTimes()}</p>
        <p className="watch">{say.takeHeadphonesOffIf()}</p>
        <chakra.div className="row" marginTop="12px">
          <Button variant="solid" onClick={() => (running ? stop() : void start(back))}>
            {running ? common.stop() : common.start()} <kbd>s</kbd>
          </Button>
          <LevelSlider
            db={levelDb}
            onDb={(db) => {
              setLevelDb(db);
              running?.level(gainOf(db));
            }}
          />
          <Choice
            label={say.returnInput()}
            value={back}
            onChange={(next) => {
              setBack(next);
              if (running) void start(next);
            }}
            options={[
              ...(inputs.length > 0
                ? inputs.map((i) => [i.id, i.name] as const)
                : [[ANY, say.defaultInput()] as const]),
              [STAND_IN, say.simulatedLoopMs({ STAND_IN_MS })],
            ]}
          />
        </chakra.div>
        {failed && <p className="fix">{failed}</p>}
        {running && (
          <p role="status" className="quiet">
            {say.detected({
              heard,
              ENOUGH,
              muted: trips.length >= 3 && heard === 0 ? say.nothingDetected() : '',
            })}
          </p>
        )}
        <Result trips={trips} running={running} />
      </TakePage>
    </TakeFrame>
  );
}

const MAX_KEPT = 200;

function Result({ trips, running }: { trips: readonly Trip[]; running: RunningLoop | null }) {
  const [clock, setClock] = useState<RunningLoop | null>(running);
  // What the browser said of itself stays beside the result when it has stopped.
  if (running && running !== clock) setClock(running);
  const result = summariseTrips(trips);
  if (!result) return null;
  const { meanMs, sdMs, leastMs, mostMs, count, odd } = result;
  return (
    <Table data-testid="round-trip" marginTop="12px">
      <Head
        columns={[
          say.roundTrip(),
          figures(rich(say.spreadMs, {})),
          figures(say.minMax()),
          figures(say.samples()),
          figures(say.repeats()),
          say.reportedByBrowser(),
        ]}
      />
      <tbody>
        <tr>
          <td className="strong">{say.ms({ meanMs: formatNumber(meanMs, 2) })}</td>
          <td className="number">±{formatNumber(sdMs, 3)}</td>
          <td className="number">
            {formatNumber(leastMs, 2)}, {formatNumber(mostMs, 2)}
          </td>
          <td className="number">{clock && formatNumber((meanMs * clock.sampleRateHz) / 1000, 1)}</td>
          <td className="number">
            {count}
            {odd > 0 && say.excluded({ odd })}
          </td>
          <td className="quiet">
            {clock && say.outputMs({ outputMs: formatNumber(clock.outputMs, 1) })}
            {clock &&
              (clock.inputMs === null
                ? say.inputNotReported()
                : say.inputMs({ inputMs: formatNumber(clock.inputMs, 1) }))}
          </td>
        </tr>
      </tbody>
    </Table>
  );
}
