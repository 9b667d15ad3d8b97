import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { type Slate, secondsALoop } from '#core/desk-tests/slates/index.ts';
import { rateName } from '#core/model/units/index.ts';
import { isUnderWay, useWork, WorkLine } from '#web/shared/jobs/index.ts';
import { Choice, formatNumber, saveBlob } from '#web/shared/parts/index.ts';
import { type Container, makeSlate } from '#web/shared/workers/index.ts';
import { slate as say } from '#words/index.ts';

const SIZES = [
  ['1280x720', '1280 × 720'],
  ['1920x1080', '1920 × 1080'],
] as const;
const LOOPS = [
  ['1', say.onceS()],
  ['4', say.min()],
  ['19', say.minTitle()],
] as const;
/** What it is played on takes the one or the other: consoles and televisions MP4. */
const CONTAINERS = [
  ['mp4', 'MP4 (H.264, AAC)'],
  ['webm', 'WebM (VP9, Opus)'],
] as const satisfies readonly (readonly [Container, string])[];

/** The slate as files, for what can play a file and shows no page. */
export function SlateFiles({ slate }: { slate: Slate }) {
  const [size, setSize] = useState<string>('1280x720');
  const [loops, setLoops] = useState<string>('1');
  const [container, setContainer] = useState<Container>('mp4');
  const [said, setSaid] = useState<string | null>(null);
  const { task, run, drop } = useWork();
  const make = async (what: 'film' | 'sound') => {
    const [width, height] = size.split('x').map(Number) as [number, number];
    const film = { slate, width, height, container, seconds: Number(loops) * secondsALoop(slate.rate) };
    setSaid(null);
    const made = await run({ name: say.asFileForConsole(), start: (heard) => makeSlate(what, film, heard) });
    if (!made) return;
    const name = say.slateFile({ n1: slate.id + 1, rate: rateName(slate.rate), ending: made.ending });
    saveBlob(name, made.blob);
    setSaid(say.mbSavedToYour({ name, n1e6: formatNumber(made.blob.size / 1e6, 1) }));
  };
  return (
    <>
      <h2>{say.asFileForConsole()}</h2>
      <div className="row">
        <Choice label={say.videoSize()} value={size} onChange={setSize} options={SIZES} />
        <Choice label={say.videoLength()} value={loops} onChange={setLoops} options={LOOPS} />
        <Choice
          label={say.fileFormat()}
          value={container}
          onChange={(c) => setContainer(c as Container)}
          options={CONTAINERS}
        />
        <WorkLine task={task} onStop={drop} />
        {!isUnderWay(task) && (
          <>
            <Button onClick={() => void make('film')}>{say.video()}</Button>
            <Button onClick={() => void make('sound')}>{say.audioOnlyWav()}</Button>
          </>
        )}
      </div>
      {said && (
        <p className="quiet" role="status">
          {said}
        </p>
      )}
    </>
  );
}
