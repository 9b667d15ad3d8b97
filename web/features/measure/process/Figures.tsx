import type { TreatmentFigures } from '#core/audio/mix/index.ts';
import { figures, formatNumber, formatSigned, Head, Table, Term } from '#web/shared/parts/index.ts';
import { common, process as say } from '#words/index.ts';

const ROWS: readonly {
  readonly key: keyof TreatmentFigures;
  readonly name: string;
  readonly unit: string;
  readonly term: 'lufs' | 'true-peak' | 'peak-to-loudness' | 'loudness-range' | 'noise-floor';
}[] = [
  { key: 'integratedLufs', name: say.loudness(), unit: 'LUFS', term: 'lufs' },
  { key: 'truePeakDbtp', name: say.truePeak(), unit: 'dBTP', term: 'true-peak' },
  { key: 'peakToLoudnessDb', name: say.peakToLoudnessRatio(), unit: 'dB', term: 'peak-to-loudness' },
  { key: 'rangeLu', name: say.loudnessRangeLra(), unit: 'LU', term: 'loudness-range' },
  { key: 'overNoiseLu', name: say.voiceAboveBackground(), unit: 'LU', term: 'noise-floor' },
];

/** What it does to loudness, to peaks, and to the noise between the phrases. */
export function Figures({ before, treated }: { before: TreatmentFigures; treated: TreatmentFigures | null }) {
  const figure = (value: number | null) => (value === null ? common.none() : formatNumber(value, 1));
  return (
    <Table tight data-testid="treated">
      <Head columns={[say.measured(), figures(say.before()), figures(say.processed()), figures(say.difference())]} />
      <tbody>
        {ROWS.map(({ key, name, unit, term }) => {
          const [was, is] = [before[key], treated?.[key] ?? null];
          return (
            <tr key={key}>
              <td>
                <Term id={term}>{name}</Term>, {unit}
              </td>
              <td className="number">{figure(was)}</td>
              <td className="number strong">{treated ? figure(is) : ''}</td>
              <td className="number quiet">{was !== null && is !== null ? formatSigned(is - was, 1) : ''}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}
