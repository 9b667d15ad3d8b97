import { useMemo } from 'react';
import { type Spectrum, thirdOctaves } from '#core/audio/measure/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { charts as say } from '#words/index.ts';
import { ValueRules } from './Axes.tsx';
import { layoutSpectrum, SPECTRUM_HEIGHT } from './spectra.ts';

/** What a take is made of: its mean spectrum as a line, third octaves as bars, dB of a sine of full scale. */
export function SpectrumChart({ spectrum, label, widthPx }: { spectrum: Spectrum; label: string; widthPx: number }) {
  const laid = useMemo(() => layoutSpectrum(spectrum, thirdOctaves(spectrum), widthPx), [spectrum, widthPx]);
  return (
    <svg width={widthPx} height={SPECTRUM_HEIGHT} role="img" aria-label={label}>
      <ValueRules ticks={laid.dbTicks.map(({ db, px }) => ({ px, text: formatNumber(db) }))} from={36} to={widthPx} />
      {laid.bars.map(({ band, x, width, y }) => (
        <rect key={band.hz} x={x} width={width} y={y} height={Math.max(0, laid.bottom - y)} fill="var(--rule)">
          <title>{say.hzDbfs({ hz: formatNumber(band.hz), db: formatNumber(band.db, 1) })}</title>
        </rect>
      ))}
      <path d={laid.path} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
      {laid.hzTicks.map(({ label: text, px }) => (
        <text key={text} x={px} y={SPECTRUM_HEIGHT - 4} className="ink2 small" textAnchor="middle">
          {text}
        </text>
      ))}
    </svg>
  );
}
