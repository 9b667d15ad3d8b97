import { formatNumber } from '#web/parts/index.ts';
import { CEILING_DBTP, type MixSetup } from './setup.ts';
import type { Balancing } from './useBalance.ts';

/** What the mix measured when it was made, and what was done to its peaks. */
export function Whole({ setup, balancing: { balanced } }: { setup: MixSetup; balancing: Balancing }) {
  if (!balanced) return null;
  const { integratedLufs, rangeLu, truePeakDbtp, limited } = balanced.levels;
  if (integratedLufs === null || truePeakDbtp === null) return <p className="watch">The mix is silent.</p>;
  const over = truePeakDbtp - (setup.ceilingDbtp ?? CEILING_DBTP);
  return (
    <p data-testid="whole">
      The whole, mixed and measured: <span className="strong">{formatNumber(integratedLufs, 1)} LUFS</span>, range{' '}
      {formatNumber(rangeLu ?? 0, 1)} LU, true peak <span className="strong">{formatNumber(truePeakDbtp, 1)} dBTP</span>
      .{' '}
      {limited && limited.mostDb > 0.1
        ? `A limiter takes off ${formatNumber(limited.mostDb, 1)} dB at most, for ${formatNumber(limited.seconds, 1)} s in all; without it, ${formatNumber(integratedLufs - limited.mostDb, 1)} LUFS would fit.`
        : limited
          ? 'Nothing has to be limited for it.'
          : over > 0
            ? `That is ${formatNumber(over, 1)} dB over ${formatNumber(setup.ceilingDbtp ?? CEILING_DBTP)} dBTP: set a ceiling, or aim at ${formatNumber(integratedLufs - over, 1)} LUFS.`
            : ''}
    </p>
  );
}
