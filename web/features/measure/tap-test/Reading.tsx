import {
  PLAYER_SKEW_MS,
  SAY_JOINS,
  sayWay,
  type TapCell,
  TIME_KNOWN,
  type TunePicture,
} from '#core/desk-tests/tap-test/index.ts';
import { type BandEdge, edgesOf, PRESENT_DB } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn, sourceIn } from '#core/model/rig/index.ts';
import { TapEvidence } from '#web/shared/charts/index.ts';
import {
  Details,
  formatHz,
  formatNumber,
  formatSigned,
  Head,
  hueOf,
  SourceLetter,
  StateMark,
  sayBand,
  Table,
  wantOf,
} from '#web/shared/parts/index.ts';
import { tapTest as say, textOf } from '#words/index.ts';
import { Level } from './Level.tsx';
import { sentencesOf } from './sentences.ts';
import { saySure, sayUnderLoudest, verdictOf } from './words.ts';

interface Props {
  readonly rig: Rig;
  readonly cell: TapCell;
  /** Its panel in the take's picture, where there is one. */
  readonly picture: TunePicture | null;
  readonly takenAt: string;
  /** Ties of time that are lacking between players and takes. */
  readonly lacking: number;
}

/** One source in one take: what is the matter, how sure that is, and what it rests on. */
export function Reading({ rig, cell, picture, takenAt, lacking }: Props) {
  const source = sourceIn(rig, cell.sourceId);
  const listener = listenerIn(rig, cell.listenerId);
  const { state, word } = verdictOf(cell);
  const heard = cell.read?.heard ?? null;
  const says = sentencesOf(rig, cell);
  return (
    <section className="tap-reading" aria-label={say.reading()} data-testid="reading">
      <h2>
        <SourceLetter source={source} /> {say.at({ source: source.name, listener: listener.name })}
      </h2>
      {says.length > 0 ? (
        says.map((s) => (
          <p key={s} className={state}>
            <StateMark state={state} /> {s}
          </p>
        ))
      ) : (
        <p className={state === 'none' ? 'quiet' : state}>
          <StateMark state={state} /> {word === '' ? say.notFoundAndNot() : sentence(word)}
        </p>
      )}
      <p className="quiet">{saySure(cell)}</p>
      <Facts rig={rig} cell={cell} picture={picture} />
      <Level rig={rig} cell={cell} takenAt={takenAt} />
      {heard && <TapEvidence heard={heard} hue={hueOf(source)} name={source.name} />}
      {cell.time && cell.time.known !== 'alone' && lacking > 0 && (
        <Details summary={say.timeKnown({ known: textOf(TIME_KNOWN[cell.time.known]) })}>
          <ul className="small">
            {SAY_JOINS.map((s) => (
              <li key={textOf(s)}>{textOf(s)}</li>
            ))}
          </ul>
        </Details>
      )}
    </section>
  );
}

const sentence = (text: string): string => `${text[0]!.toUpperCase()}${text.slice(1)}.`;

/** Drawn against read, figure by figure. */
function Facts({ rig, cell, picture }: Pick<Props, 'rig' | 'cell' | 'picture'>) {
  const heard = cell.read?.heard ?? null;
  const way = cell.time?.way ?? cell.expected.ways[0] ?? null;
  if (!heard && !way) return null;
  const { expected } = cell;
  const seconds = heard?.seconds.ways.map((w) =>
    say.msDb({ afterMs: formatSigned(w.afterMs, 1), underDb: formatNumber(w.underDb) }),
  );
  const drawnSeconds = expected.ways
    .filter((w) => w !== way)
    .slice(0, 3)
    .map((w) =>
      say.msDbOf({
        nominal: formatSigned(w.delayMs.nominal - way!.delayMs.nominal),
        levelDb: formatNumber(way!.levelDb - w.levelDb),
      }),
    );
  const rows: [what: string, read: string, drawn: string][] = [
    [
      say.belowLoudestThere(),
      sayUnderLoudest(cell.underDb) || '—',
      sayUnderLoudest(expected.underDb) || say.notDrawn(),
    ],
    [
      say.otherPaths(),
      seconds?.join('; ') ||
        (heard && !heard.wander
          ? say.noneAboveDb({ noneAboveDb: formatNumber(Math.abs(heard.seconds.noneAboveDb)) })
          : '—'),
      drawnSeconds.join('; ') || 'none',
    ],
    [say.bandwidth(), heard ? bandOf(cell) : '—', way ? sayBand(way) : '—'],
    [
      say.polarity(),
      heard ? { '1': say.sameAsLoudest(), '-1': 'inverted', null: say.unknown() }[`${heard.polarity}`] : '—',
      way ? (way.throughAir ? say.throughAirUnknown() : way.polarity === 1 ? say.asPlayed() : say.inverted()) : '—',
    ],
    [
      say.clock(),
      heard && heard.ppm !== null ? say.ppmAgainstItsPlayer({ ppm: formatSigned(heard.ppm, 1) }) : '—',
      cell.clockOffPpm === null ? '—' : say.ppmOffOthers({ clockOffPpm: formatSigned(cell.clockOffPpm, 1) }),
    ],
  ];
  return (
    <>
      <Table tight className="tap-facts">
        <Head columns={['&nbsp;', say.readTitle(), say.drawnTitle()]} />
        <tbody>
          {rows.map(([what, read, drawn]) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td className="fact">{read}</td>
              <td className="fact quiet">{drawn}</td>
            </tr>
          ))}
          {picture && (
            <tr>
              <th scope="row">{say.audioVsVideo()}</th>
              <td className="fact">
                {say.msMs({ offsetMs: formatSigned(picture.offsetMs, 1), boundMs: formatNumber(picture.boundMs, 1) })}
              </td>
              <td className="fact quiet">
                {say.framesReadPlayedBy({ read: picture.read, of: picture.of, PLAYER_SKEW_MS })}
              </td>
            </tr>
          )}
          {cell.time && (
            <tr>
              <th scope="row">{say.timeAgainstOtherReadings()}</th>
              <td className="fact">{say.ms({ offMs: formatSigned(cell.time.offMs, 1) })}</td>
              <td className="fact quiet">
                {say.withinMs({
                  toleranceMs: formatNumber(cell.time.toleranceMs, 1),
                  known: textOf(TIME_KNOWN[cell.time.known]),
                })}
              </td>
            </tr>
          )}
        </tbody>
      </Table>
      <p className="small quiet">
        {say.requiredAndPath({
          says: wantOf(cell.want).says,
          deviceIds: way ? say.drawnPath({ path: sayWay(rig, way.deviceIds) }) : '',
        })}
      </p>
    </>
  );
}

/** As far as octave bands can tell; closer where nothing is known to arrive beyond them. */
function bandOf(cell: TapCell): string {
  const { heard } = cell.read!;
  const present = heard!.bands.filter((b) => b.db !== null && b.db > PRESENT_DB);
  if (present.length === 0) return say.unknown();
  const { low, high } = edgesOf(heard!.bands);
  const end = (edge: BandEdge, octaveHz: number) =>
    edge === null || edge === 'beyond' ? formatHz(octaveHz) : formatHz(edge.nominal);
  return say.to({ lowHz: end(low, present[0]!.lowHz), highHz: end(high, present.at(-1)!.highHz) });
}
