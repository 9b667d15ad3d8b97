import { Button, chakra } from '@chakra-ui/react';
import { NEARER_LU, type Part } from '#core/audio/mix/index.ts';
import {
  Choice,
  figures,
  formatClock,
  formatNumber,
  formatSigned,
  Head,
  NumberInput,
  rich,
  Table,
} from '#web/shared/parts/index.ts';
import { mix as say } from '#words/index.ts';
import type { MixSetup, MixTrackSetup } from './setup.ts';
import type { Balancing } from './useBalance.ts';

const PARTS: readonly (readonly [Part, string])[] = [
  ['main', say.mainVoice()],
  ['voice', 'voice'],
  ['bed', say.background()],
  ['out', say.excluded()],
];

interface Props {
  readonly setup: MixSetup;
  readonly hues: readonly string[];
  readonly letters: readonly string[];
  readonly balancing: Balancing;
  readonly onTrack: (index: number, change: Partial<MixTrackSetup>) => void;
  readonly onJoin: (index: number) => void;
  readonly onHear: (atS: number) => void;
}

/** The tracks: what each is, how far it is wanted under the voice, the fader that puts it there, and where none does. */
export function TrackTable({ setup, hues, letters, balancing, onTrack, onJoin, onHear }: Props) {
  const { before, after, balanced } = balancing;
  return (
    <Table tight data-testid="tracks">
      <Head
        columns={[
          say.track(),
          say.type(),
          figures(say.targetBelowVoiceLu()),
          figures(rich(say.asRecordedLufs, {})),
          figures(say.belowVoiceLu()),
          figures(say.faderDb()),
          figures(say.resultBelowVoiceLu()),
          say.whereFaderIsntEnough(),
        ]}
      />
      <tbody>
        {setup.tracks.map((track, i) => {
          const was = before?.[i];
          const is = after?.[i];
          const gainDb = balanced?.plan.gainsDb[i] ?? null;
          return (
            <tr key={`${track.take} ${track.channels.join(' ')}`}>
              <td>
                <chakra.span className="row" flexWrap="nowrap">
                  <span className="letter" style={{ background: hues[i] }}>
                    {letters[i]}
                  </span>
                  {track.name}
                  <Joint setup={setup} index={i} onJoin={onJoin} />
                </chakra.span>
              </td>
              <td>
                <Choice
                  label={say.typeWith({ track: track.name })}
                  value={track.part}
                  onChange={(part) => onTrack(i, { part: part as Part })}
                  options={PARTS}
                />
              </td>
              <td className="number">
                {track.part === 'voice' || track.part === 'bed' ? (
                  <NumberInput
                    label={say.targetBelowMainVoice({ track: track.name })}
                    value={track.underLu}
                    min={-20}
                    max={60}
                    onValue={(underLu) => onTrack(i, { underLu: underLu ?? 0 })}
                  />
                ) : null}
              </td>
              <td className="number quiet">{was?.levelLufs == null ? say.silent() : formatNumber(was.levelLufs, 1)}</td>
              <td className="number quiet">{sayUnderLu(was?.underLu, track.part)}</td>
              <td className="number">
                {track.part !== 'out' && gainDb !== null && (
                  <NumberInput
                    label={say.faderDbWith({ track: track.name })}
                    value={Math.round(10 * gainDb) / 10}
                    min={-80}
                    max={60}
                    onValue={(db) => onTrack(i, { ownDb: db ?? null })}
                  />
                )}
              </td>
              <td className="number strong">
                {sayUnderLu(is?.underLu, track.part)}
                {is?.apart && <span className="quiet small"> {say.betweenPhrases()}</span>}
              </td>
              <td>
                {track.part === 'bed' && (
                  <Near
                    index={i}
                    duckDb={setup.duckDb}
                    wantedLu={track.underLu}
                    balancing={balancing}
                    onHear={onHear}
                  />
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

const sayUnderLu = (underLu: number | null | undefined, part: Part): string =>
  part === 'main' ? '' : underLu == null ? '' : formatNumber(underLu, 1);

/** Left and right of one sound, where the next channel is of the same take. */
function Joint({ setup, index, onJoin }: { setup: MixSetup; index: number; onJoin: (index: number) => void }) {
  const { tracks } = setup;
  const [track, next] = [tracks[index]!, tracks[index + 1]];
  const stereo = track.channels.length === 2;
  if (!stereo && (!next || next.take !== track.take || next.channels.length === 2)) return null;
  return (
    <Button
      variant="plain"
      className="small"
      aria-label={
        stereo
          ? say.splitIntoTwoTracks({ track: track.name })
          : say.linkWithAsLeft({ track: track.name, name: next!.name })
      }
      title={stereo ? say.splitIntoTwoTracksTitle() : say.linkWithAsLeftAnd({ name: next!.name })}
      onClick={() => onJoin(index)}
    >
      {stereo ? say.split() : say.link()}
    </Button>
  );
}

/** Places in which a bed comes too near whatever its fader, and what is done there. */
function Near({
  index,
  wantedLu,
  duckDb,
  balancing: { after, balanced },
  onHear,
}: Pick<Props, 'balancing' | 'onHear'> & { index: number; wantedLu: number; duckDb: number }) {
  const rides = balanced?.plan.rides.filter((r) => r.track === index && r.db < -duckDb) ?? [];
  const near = (after?.[index]?.places ?? []).filter((p) => p.underLu < wantedLu - NEARER_LU);
  if (rides.length + near.length === 0) return <span className="quiet small">{say.nowhere()}</span>;
  return (
    <chakra.span className="row small" flexWrap="wrap">
      {rides.map((r) => (
        <Button key={r.fromS} variant="plain" onClick={() => onHear((r.fromS + r.toS) / 2)}>
          {say.turnedDownDb({ fromS: formatClock(1000 * r.fromS), db: formatNumber(-r.db) })}
        </Button>
      ))}
      {near.map((p) => (
        <Button key={p.fromS} variant="plain" className="fix" onClick={() => onHear((p.fromS + p.toS) / 2)}>
          {say.luTooClose({ fromS: formatClock(1000 * p.fromS), underLu: formatSigned(wantedLu - p.underLu) })}
        </Button>
      ))}
    </chakra.span>
  );
}
