import type { Rig } from '#core/rig/index.ts';
import { type BandEdge, edgesOf, PRESENT_DB } from '#core/tap/index.ts';
import { PLAYER_SKEW_MS, SAY_JOINS, sayWay, type TapCell, TIME_KNOWN, type TunePicture } from '#core/taptest/index.ts';
import { TapEvidence } from '#web/charts/index.ts';
import {
  formatHz,
  formatNumber,
  formatSigned,
  hueOf,
  SourceLetter,
  StateMark,
  sayBand,
  wantOf,
} from '#web/parts/index.ts';
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
  const source = rig.sources.find((s) => s.id === cell.sourceId)!;
  const listener = rig.listeners.find((l) => l.id === cell.listenerId)!;
  const { state, word } = verdictOf(cell);
  const heard = cell.read?.heard ?? null;
  const says = sentencesOf(rig, cell);
  return (
    <section className="tap-reading" aria-label="Reading" data-testid="reading">
      <h2>
        <SourceLetter source={source} /> {source.name} at {listener.name}
      </h2>
      {says.length > 0 ? (
        says.map((s) => (
          <p key={s} className={state}>
            <StateMark state={state} /> {s}
          </p>
        ))
      ) : (
        <p className={state === 'none' ? 'quiet' : state}>
          <StateMark state={state} /> {word === '' ? 'Not there, and not drawn to be.' : sentence(word)}
        </p>
      )}
      <p className="quiet">{saySure(cell)}</p>
      <Facts rig={rig} cell={cell} picture={picture} />
      <Level rig={rig} cell={cell} takenAt={takenAt} />
      {heard && <TapEvidence heard={heard} hue={hueOf(source)} name={source.name} />}
      {cell.time && cell.time.known !== 'alone' && lacking > 0 && (
        <details>
          <summary className="small">Its time is {TIME_KNOWN[cell.time.known]}. To know more of it…</summary>
          <ul className="small">
            {SAY_JOINS.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        </details>
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
  const seconds = heard?.seconds.ways.map((w) => `${formatSigned(w.afterMs, 1)} ms, −${formatNumber(w.underDb)} dB`);
  const drawnSeconds = expected.ways
    .filter((w) => w !== way)
    .slice(0, 3)
    .map(
      (w) =>
        `${formatSigned(w.delayMs.nominal - way!.delayMs.nominal)} ms, −${formatNumber(way!.levelDb - w.levelDb)} dB`,
    );
  const rows: [what: string, read: string, drawn: string][] = [
    ['Under the loudest there', sayUnderLoudest(cell.underDb) || '—', sayUnderLoudest(expected.underDb) || 'not drawn'],
    [
      'Other ways',
      seconds?.join('; ') ||
        (heard && !heard.wander ? `none above −${formatNumber(Math.abs(heard.seconds.noneAboveDb))} dB` : '—'),
      drawnSeconds.join('; ') || 'none',
    ],
    ['Band', heard ? bandOf(cell) : '—', way ? sayBand(way) : '—'],
    [
      'Right way round',
      heard ? { '1': 'as the loudest', '-1': 'inverted', null: 'cannot be told' }[`${heard.polarity}`] : '—',
      way ? (way.throughAir ? 'through air: open' : way.polarity === 1 ? 'as played' : 'inverted') : '—',
    ],
    [
      'Clock',
      heard && heard.ppm !== null ? `${formatSigned(heard.ppm, 1)} ppm against its player` : '—',
      cell.clockOffPpm === null ? '—' : `${formatSigned(cell.clockOffPpm, 1)} ppm off the others`,
    ],
  ];
  return (
    <>
      <table className="table tight tap-facts">
        <thead>
          <tr>
            <th>&nbsp;</th>
            <th>Read</th>
            <th>Drawn</th>
          </tr>
        </thead>
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
              <th scope="row">Sound against its picture</th>
              <td className="fact">
                {formatSigned(picture.offsetMs, 1)} ms, ±{formatNumber(picture.boundMs, 1)} ms
              </td>
              <td className="fact quiet">
                {picture.read} of {picture.of} pictures read; played by a page, ±{PLAYER_SKEW_MS} ms more of its own
              </td>
            </tr>
          )}
          {cell.time && (
            <tr>
              <th scope="row">Time against the other readings</th>
              <td className="fact">{formatSigned(cell.time.offMs, 1)} ms</td>
              <td className="fact quiet">
                within ±{formatNumber(cell.time.toleranceMs, 1)} ms; {TIME_KNOWN[cell.time.known]}
              </td>
            </tr>
          )}
        </tbody>
      </table>
      <p className="small quiet">
        Wanted: {wantOf(cell.want).says}. {way && `Drawn way: ${sayWay(rig, way.deviceIds)}.`}
      </p>
    </>
  );
}

/** As far as the octaves tell; closer where one knows that beyond them nothing comes. */
function bandOf(cell: TapCell): string {
  const { heard } = cell.read!;
  const present = heard!.bands.filter((b) => b.db !== null && b.db > PRESENT_DB);
  if (present.length === 0) return 'cannot be told';
  const { low, high } = edgesOf(heard!.bands);
  const end = (edge: BandEdge, octaveHz: number) =>
    edge === null || edge === 'beyond' ? formatHz(octaveHz) : formatHz(edge.nominal);
  return `${end(low, present[0]!.lowHz)} to ${end(high, present.at(-1)!.highHz)}`;
}
