import { Button } from '@chakra-ui/react';
import { NEARER_LU, type Part } from '#core/mix/index.ts';
import { Choice, formatClock, formatNumber, formatSigned, NumberInput, Term } from '#web/parts/index.ts';
import type { MixSetup, MixTrackSetup } from './setup.ts';
import type { Balancing } from './useBalance.ts';

const PARTS: readonly (readonly [Part, string])[] = [
  ['main', 'main voice'],
  ['voice', 'voice'],
  ['bed', 'under the voices'],
  ['out', 'left out'],
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
    <table className="table tight" data-testid="tracks">
      <thead>
        <tr>
          <th>Track</th>
          <th>What it is</th>
          <th className="number">Wanted under, LU</th>
          <th className="number">
            As recorded, <Term id="lufs">LUFS</Term>
          </th>
          <th className="number">under, LU</th>
          <th className="number">Fader, dB</th>
          <th className="number">Now under, LU</th>
          <th>Where no fader helps</th>
        </tr>
      </thead>
      <tbody>
        {setup.tracks.map((track, i) => {
          const was = before?.[i];
          const is = after?.[i];
          const gainDb = balanced?.plan.gainsDb[i] ?? null;
          return (
            <tr key={`${track.take} ${track.channels.join(' ')}`}>
              <td>
                <span className="row" style={{ flexWrap: 'nowrap' }}>
                  <span className="letter" style={{ background: hues[i] }}>
                    {letters[i]}
                  </span>
                  {track.name}
                  <Joint setup={setup} index={i} onJoin={onJoin} />
                </span>
              </td>
              <td>
                <Choice
                  label={`What ${track.name} is`}
                  value={track.part}
                  onChange={(part) => onTrack(i, { part: part as Part })}
                  options={PARTS}
                />
              </td>
              <td className="number">
                {track.part === 'voice' || track.part === 'bed' ? (
                  <NumberInput
                    label={`Wanted under the main voice, LU: ${track.name}`}
                    value={track.underLu}
                    min={-20}
                    max={60}
                    onValue={(underLu) => onTrack(i, { underLu: underLu ?? 0 })}
                  />
                ) : null}
              </td>
              <td className="number quiet">{was?.levelLufs == null ? 'silent' : formatNumber(was.levelLufs, 1)}</td>
              <td className="number quiet">{sayUnderLu(was?.underLu, track.part)}</td>
              <td className="number">
                {track.part !== 'out' && gainDb !== null && (
                  <NumberInput
                    label={`Fader of ${track.name}, dB`}
                    value={Math.round(10 * gainDb) / 10}
                    min={-80}
                    max={60}
                    onValue={(db) => onTrack(i, { ownDb: db ?? null })}
                  />
                )}
              </td>
              <td className="number strong">
                {sayUnderLu(is?.underLu, track.part)}
                {is?.apart && <span className="quiet small"> apart from talk</span>}
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
    </table>
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
        stereo ? `Part ${track.name} into two tracks` : `Join ${track.name} with ${next!.name} as left and right`
      }
      title={stereo ? 'Part into two tracks' : `Join with ${next!.name} as left and right`}
      onClick={() => onJoin(index)}
    >
      {stereo ? 'part' : 'join ↓'}
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
  if (rides.length + near.length === 0) return <span className="quiet small">nowhere</span>;
  return (
    <span className="row small" style={{ flexWrap: 'wrap' }}>
      {rides.map((r) => (
        <Button key={r.fromS} variant="plain" onClick={() => onHear((r.fromS + r.toS) / 2)}>
          {formatClock(1000 * r.fromS)}: down by {formatNumber(-r.db)} dB
        </Button>
      ))}
      {near.map((p) => (
        <Button key={p.fromS} variant="plain" className="fix" onClick={() => onHear((p.fromS + p.toS) / 2)}>
          {formatClock(1000 * p.fromS)}: {formatSigned(wantedLu - p.underLu)} LU too near
        </Button>
      ))}
    </span>
  );
}
