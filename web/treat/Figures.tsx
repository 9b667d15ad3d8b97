import type { TreatmentFigures } from '#core/mix/index.ts';
import { formatNumber, formatSigned, Term } from '#web/parts/index.ts';

const ROWS: readonly {
  readonly key: keyof TreatmentFigures;
  readonly name: string;
  readonly unit: string;
  readonly term: 'lufs' | 'true-peak' | 'peak-to-loudness' | 'loudness-range' | 'noise-floor';
}[] = [
  { key: 'integratedLufs', name: 'Loudness', unit: 'LUFS', term: 'lufs' },
  { key: 'truePeakDbtp', name: 'True peak', unit: 'dBTP', term: 'true-peak' },
  { key: 'peakToLoudnessDb', name: 'Peaks over loudness', unit: 'dB', term: 'peak-to-loudness' },
  { key: 'rangeLu', name: 'Range', unit: 'LU', term: 'loudness-range' },
  { key: 'overNoiseLu', name: 'Voice over what is between', unit: 'LU', term: 'noise-floor' },
];

/** What it does to loudness, to peaks, and to the noise between the phrases. */
export function Figures({ before, treated }: { before: TreatmentFigures; treated: TreatmentFigures | null }) {
  const say = (value: number | null) => (value === null ? 'none' : formatNumber(value, 1));
  return (
    <table className="table tight" data-testid="treated">
      <thead>
        <tr>
          <th>Measured</th>
          <th className="number">Before</th>
          <th className="number">Treated</th>
          <th className="number">By</th>
        </tr>
      </thead>
      <tbody>
        {ROWS.map(({ key, name, unit, term }) => {
          const [was, is] = [before[key], treated?.[key] ?? null];
          return (
            <tr key={key}>
              <td>
                <Term id={term}>{name}</Term>, {unit}
              </td>
              <td className="number">{say(was)}</td>
              <td className="number strong">{treated ? say(is) : ''}</td>
              <td className="number quiet">{was !== null && is !== null ? formatSigned(is - was, 1) : ''}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
