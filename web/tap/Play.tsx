import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { tapSheet } from '#core/report/index.ts';
import type { Rig } from '#core/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { SILENCE_S, TUNE_S } from '#core/tap/index.ts';
import { gateOf, type Player } from '#core/taptest/index.ts';
import { FRAME_RATES, hertz } from '#core/units/index.ts';
import { Choice, printSheets, SourceLetter, saveBlob, Term } from '#web/parts/index.ts';
import { type Job, type MadeFile, makeSlate } from '#web/workers/index.ts';
import { Gate } from './Gate.tsx';
import type { Tap } from './useTap.ts';

interface Props {
  readonly rigId: string;
  readonly rig: Rig;
  readonly tap: Tap;
  readonly onDone: () => void;
}

/** Who plays which tune, from what; and what has to be so before. */
export function Play({ rigId, rig, tap, onDone }: Props) {
  const questions = gateOf(rig);
  const barred = tap.open > 0;
  return (
    <>
      <p className="quiet">
        Every source plays its own tune of {TUNE_S} seconds, all at about the same time; every listener records one
        take. What each take holds tells who hears whom, how loud, how late, twice or not, and through which band.
      </p>
      <Gate
        questions={questions}
        answers={tap.kept.answers}
        onAnswer={(id, isSo) => tap.change({ answers: { ...tap.kept.answers, [id]: isSo } })}
      />
      <h2>
        <Term id="tune">Tunes</Term>
      </h2>
      <p className="row no-print">
        <Button onClick={() => printSheets([sheetOf(rig, tap.players)], 'a4', false)}>Print the sheet</Button>
        <span className="quiet small">Which file goes where, and what to press in which order.</span>
      </p>
      <div className="tap-scroll">
        <table className="table tight tap-players">
          <thead>
            <tr>
              <th>Source</th>
              <th>Tune</th>
              <th>Played by</th>
              <th>Lies at the microphone of</th>
              <th>Play it, or take it along</th>
            </tr>
          </thead>
          <tbody>
            {tap.players.map((player) => (
              <PlayerRow key={player.sourceId} rig={rig} tap={tap} player={player} barred={barred} />
            ))}
          </tbody>
        </table>
      </div>
      {rig.sources.length > tap.players.length && (
        <p className="watch">There are sixteen tunes: the last sources have none and are not tapped.</p>
      )}
      <p className="quiet small">
        Call programs: set the sound to music, or switch noise suppression and gain control off, as long as tunes play;
        what they take away is not found, and levels stand as they have mixed them just then.
      </p>
      <p className="quiet small">
        A phone or tablet at the desk opens its tune by the code that stands in{' '}
        <Link to={`/rigs/${rigId}/run?view=phone`}>Run, on a phone</Link>. Where a player can show a picture, take the
        video: its panel tells how late the picture is as well.
      </p>
      <p className="row">
        <Button variant="solid" disabled={barred} onClick={onDone}>
          They play: on to the takes
        </Button>
        <span className="quiet small">
          Start every recorder first, then press play everywhere within two seconds or so.
        </span>
      </p>
    </>
  );
}

const sheetOf = (rig: Rig, players: readonly Player[]): string =>
  tapSheet(
    players.map((p) => {
      const source = rig.sources.find((s) => s.id === p.sourceId)!;
      return { source: source.name, tune: p.tune + 1, at: deviceName(rig, source.sound.deviceId) };
    }),
    gateOf(rig).map((q) => q.asks),
    'a4',
  );

const SIXTY = FRAME_RATES.findIndex((r) => hertz(r) === 60);
const FILM = { width: 1280, height: 720 };
const NOWHERE = '';

function PlayerRow({ rig, tap, player, barred }: { rig: Rig; tap: Tap; player: Player; barred: boolean }) {
  const source = rig.sources.find((s) => s.id === player.sourceId)!;
  const [done, setDone] = useState<number | null>(null);
  const [says, setSays] = useState('');
  const job = useRef<Job<MadeFile> | null>(null);
  useEffect(() => () => job.current?.stop(), []);
  const make = (what: 'film' | 'sound') => {
    setSays('');
    setDone(0);
    const slate = { rate: FRAME_RATES[SIXTY]!, id: player.tune };
    const mine = makeSlate(what, { slate, ...FILM, seconds: TUNE_S + 2 * SILENCE_S, tune: true }, (p) =>
      setDone(p.done),
    );
    job.current = mine;
    mine.result
      .then(
        ({ blob, ending }) => {
          const name = `tune ${player.tune + 1}, ${source.name}.${ending}`;
          saveBlob(name, blob);
          setSays('It is with your downloads.');
        },
        (error: unknown) => setSays(error instanceof Error ? error.message : String(error)),
      )
      .finally(() => setDone(null));
  };
  const others = tap.players.filter((p) => p.sourceId !== player.sourceId && p.playerId === p.sourceId);
  const nameOf = (id: string) => rig.sources.find((s) => s.id === id)!.name;
  return (
    <tr>
      <th scope="row">
        <SourceLetter source={source} /> {source.name}
      </th>
      <td className="fact">{player.tune + 1}</td>
      <td>
        <Choice
          label={`Who plays ${source.name}`}
          value={player.playerId}
          options={[
            [player.sourceId, 'its own player'],
            ...others.map((p): [string, string] => [p.sourceId, `with ${nameOf(p.sourceId)}, one press`]),
          ]}
          onChange={(playerId) => tap.changePlayer(player.sourceId, { playerId })}
        />
      </td>
      <td>
        <Choice
          label={`Where ${source.name} is played right at the microphone`}
          value={player.knownAt[0] ?? NOWHERE}
          options={[[NOWHERE, 'no take'], ...rig.listeners.map((l): [string, string] => [l.id, l.name])]}
          onChange={(id) => tap.changePlayer(player.sourceId, { knownAt: id === NOWHERE ? [] : [id] })}
        />
      </td>
      <td>
        <span className="row">
          {barred ? (
            <span className="quiet small">open questions above</span>
          ) : (
            <Link to={`/tune?id=${player.tune + 1}&for=${encodeURIComponent(source.name)}`} target="_blank">
              Play here
            </Link>
          )}
          <Button size="xs" disabled={done !== null} onClick={() => make('sound')} aria-label={`${source.name}: WAV`}>
            WAV
          </Button>
          <Button
            size="xs"
            disabled={done !== null}
            onClick={() => make('film')}
            aria-label={`${source.name}: video with panel`}
          >
            Video
          </Button>
          {done !== null && <progress value={done} max={1} aria-label={`Making the file of ${source.name}`} />}
          <span className="small quiet" role="status">
            {says}
          </span>
        </span>
      </td>
    </tr>
  );
}
