import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { type Slate, secondsALoop } from '#core/desk-tests/slates/index.ts';
import { rateName } from '#core/model/units/index.ts';
import { Choice, formatNumber, Progress, saveBlob } from '#web/shared/parts/index.ts';
import { type Job, type MadeFile, makeSlate } from '#web/shared/workers/index.ts';
import { common, slate as say } from '#words/index.ts';

const SIZES = [
  ['1280x720', '1280 × 720'],
  ['1920x1080', '1920 × 1080'],
] as const;
const LOOPS = [
  ['1', say.onceS()],
  ['4', say.min()],
  ['19', say.minTitle()],
] as const;

/** The slate as files, for what can play a file and shows no page. */
export function SlateFiles({ slate }: { slate: Slate }) {
  const [size, setSize] = useState<string>('1280x720');
  const [loops, setLoops] = useState<string>('1');
  const [done, setDone] = useState<number | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const job = useRef<Job<MadeFile> | null>(null);
  useEffect(() => () => job.current?.stop(), []);
  const make = (what: 'film' | 'sound') => {
    const [width, height] = size.split('x').map(Number) as [number, number];
    setFailed(null);
    setSaid(null);
    setDone(0);
    const mine = makeSlate(what, { slate, width, height, seconds: Number(loops) * secondsALoop(slate.rate) }, (p) =>
      setDone(p.done),
    );
    job.current = mine;
    mine.result
      .then(
        ({ blob, ending }) => {
          const name = say.slateFile({ n1: slate.id + 1, rate: rateName(slate.rate), ending });
          saveBlob(name, blob);
          setSaid(say.mbSavedToYour({ name, n1e6: formatNumber(blob.size / 1e6, 1) }));
        },
        (error: unknown) => setFailed(error instanceof Error ? error.message : String(error)),
      )
      .finally(() => setDone(null));
  };
  const stop = () => {
    job.current?.stop();
    setDone(null);
  };
  return (
    <>
      <h2>{say.asFileForConsole()}</h2>
      <div className="row">
        <Choice label={say.videoSize()} value={size} onChange={setSize} options={SIZES} />
        <Choice label={say.videoLength()} value={loops} onChange={setLoops} options={LOOPS} />
        {done === null ? (
          <>
            <Button onClick={() => make('film')}>{say.video()}</Button>
            <Button onClick={() => make('sound')}>{say.audioOnlyWav()}</Button>
          </>
        ) : (
          <>
            <Progress value={done} label={say.writing()} />
            <Button onClick={stop}>{common.stop()}</Button>
          </>
        )}
      </div>
      {said && (
        <p className="quiet" role="status">
          {said}
        </p>
      )}
      {failed && <p className="fix">{failed}</p>}
    </>
  );
}
