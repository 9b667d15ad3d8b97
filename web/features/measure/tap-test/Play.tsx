import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { gateOf, type Player } from '#core/desk-tests/tap-test/index.ts';
import { SILENCE_S, TUNE_S } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { sourceIn } from '#core/model/rig/index.ts';
import { FRAME_RATES, hertz } from '#core/model/units/index.ts';
import { tapSheet } from '#core/output/sheets/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { Gate } from '#web/shared/gate/index.ts';
import {
  Choice,
  Head,
  Progress,
  printSheets,
  rich,
  SourceLetter,
  saveBlob,
  Table,
  Term,
} from '#web/shared/parts/index.ts';
import { type Job, type MadeFile, makeSlate } from '#web/shared/workers/index.ts';
import { common, tapTest as say, textOf } from '#words/index.ts';
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
      <p className="quiet">{say.everySourcePlaysIts({ TUNE_S })}</p>
      <Gate
        questions={questions}
        answers={tap.kept.answers}
        onAnswer={(id, isSo) => tap.change({ answers: { ...tap.kept.answers, [id]: isSo } })}
      />
      <h2>
        <Term id="tune">{say.testTunes()}</Term>
      </h2>
      <p className="row no-print">
        <Button onClick={() => printSheets([sheetOf(rig, tap.players)], 'a4', false)}>{say.printSheet()}</Button>
        <span className="quiet small">{say.whichFileGoesWhere()}</span>
      </p>
      <div className="tap-scroll">
        <Table tight className="tap-players">
          <Head columns={[common.source(), say.testTune(), say.playedBy(), say.atWhoseMic(), say.playOrDownload()]} />
          <tbody>
            {tap.players.map((player) => (
              <PlayerRow key={player.sourceId} rig={rig} tap={tap} player={player} barred={barred} />
            ))}
          </tbody>
        </Table>
      </div>
      {rig.sources.length > tap.players.length && <p className="watch">{say.thereAreSixteenTunes()}</p>}
      <p className="quiet small">{say.callAppsChooseMusic()}</p>
      <p className="quiet small">{rich(say.toPlayTuneFrom, {}, `/rigs/${rigId}/run?view=phone`)}</p>
      <p className="row">
        <Button variant="solid" disabled={barred} onClick={onDone}>
          {say.nextAddTakes()}
        </Button>
        <span className="quiet small">{say.startEveryRecorderFirst()}</span>
      </p>
    </>
  );
}

const sheetOf = (rig: Rig, players: readonly Player[]): string =>
  tapSheet(
    players.map((p) => {
      const source = sourceIn(rig, p.sourceId);
      return { source: source.name, tune: p.tune + 1, at: deviceName(rig, source.sound.deviceId) };
    }),
    gateOf(rig).map((q) => textOf(q.asks)),
    'a4',
  );

const SIXTY = FRAME_RATES.findIndex((r) => hertz(r) === 60);
const FILM = { width: 1280, height: 720 };
const NOWHERE = '';

function PlayerRow({ rig, tap, player, barred }: { rig: Rig; tap: Tap; player: Player; barred: boolean }) {
  const source = sourceIn(rig, player.sourceId);
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
          const name = say.tuneFile({ n1: player.tune + 1, source: source.name, ending });
          saveBlob(name, blob);
          setSays(say.savedToYourDownloads());
        },
        (error: unknown) => setSays(error instanceof Error ? error.message : String(error)),
      )
      .finally(() => setDone(null));
  };
  const others = tap.players.filter((p) => p.sourceId !== player.sourceId && p.playerId === p.sourceId);
  const nameOf = (id: string) => sourceIn(rig, id).name;
  return (
    <tr>
      <th scope="row">
        <SourceLetter source={source} /> {source.name}
      </th>
      <td className="fact">{player.tune + 1}</td>
      <td>
        <Choice
          label={say.whoPlays({ source: source.name })}
          value={player.playerId}
          options={[
            [player.sourceId, say.ownPlayer()],
            ...others.map((p): [string, string] => [p.sourceId, say.samePlayerAs({ sourceId: nameOf(p.sourceId) })]),
          ]}
          onChange={(playerId) => tap.changePlayer(player.sourceId, { playerId })}
        />
      </td>
      <td>
        <Choice
          label={say.whereIsPlayedAt({ source: source.name })}
          value={player.knownAt[0] ?? NOWHERE}
          options={[[NOWHERE, say.noTake()], ...rig.listeners.map((l): [string, string] => [l.id, l.name])]}
          onChange={(id) => tap.changePlayer(player.sourceId, { knownAt: id === NOWHERE ? [] : [id] })}
        />
      </td>
      <td>
        <span className="row">
          {barred ? (
            <span className="quiet small">{say.tickSafetyChecksFirst()}</span>
          ) : (
            <Link to={`/tune?id=${player.tune + 1}&for=${encodeURIComponent(source.name)}`} target="_blank">
              {say.playHere()}
            </Link>
          )}
          <Button
            size="xs"
            disabled={done !== null}
            onClick={() => make('sound')}
            aria-label={say.wav({ source: source.name })}
          >
            WAV
          </Button>
          <Button
            size="xs"
            disabled={done !== null}
            onClick={() => make('film')}
            aria-label={say.videoWithPanel({ source: source.name })}
          >
            {say.video()}
          </Button>
          {done !== null && <Progress value={done} label={say.creatingFile({ source: source.name })} />}
          <span className="small quiet" role="status">
            {says}
          </span>
        </span>
      </td>
    </tr>
  );
}
