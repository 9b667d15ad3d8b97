import { formatNumber } from '#web/shared/parts/index.ts';
import { mix as say } from '#words/index.ts';
import { CEILING_DBTP, type MixSetup } from './setup.ts';
import type { Balancing } from './useBalance.ts';

/** What the mix measured when it was made, and what was done to its peaks. */
export function Whole({ setup, balancing: { balanced } }: { setup: MixSetup; balancing: Balancing }) {
  if (!balanced) return null;
  const { integratedLufs, rangeLu, truePeakDbtp, limited } = balanced.levels;
  if (integratedLufs === null || truePeakDbtp === null) return <p className="watch">{say.mixIsSilentRaise()}</p>;
  const over = truePeakDbtp - (setup.ceilingDbtp ?? CEILING_DBTP);
  return (
    <p data-testid="whole">
      {say.wholeMixMeasured()}{' '}
      <span className="strong">{say.lufsOf({ integratedLufs: formatNumber(integratedLufs, 1) })}</span>
      {say.rangeAndPeak({ n0: formatNumber(rangeLu ?? 0, 1) })}{' '}
      <span className="strong">{say.dbtpOf({ truePeakDbtp: formatNumber(truePeakDbtp, 1) })}</span>.{' '}
      {limited && limited.mostDb > 0.1
        ? say.limiterReducesGainBy({
            mostDb: formatNumber(limited.mostDb, 1),
            seconds: formatNumber(limited.seconds, 1),
            mostDb2: formatNumber(integratedLufs - limited.mostDb, 1),
          })
        : limited
          ? say.noLimitingNeeded()
          : over > 0
            ? say.thatIsDbAbove({
                over: formatNumber(over, 1),
                CEILING_DBTP: formatNumber(setup.ceilingDbtp ?? CEILING_DBTP),
                over2: formatNumber(integratedLufs - over, 1),
              })
            : ''}
    </p>
  );
}
