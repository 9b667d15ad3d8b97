import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import type { Series } from '#core/live/run/index.ts';
import { ControlChart, sayChart, useWidth } from '#web/shared/charts/index.ts';
import { rich, StateMark } from '#web/shared/parts/index.ts';
import { log as say } from '#words/index.ts';

const SHOWN = 4;
const MIN_PX = 320;

/** Measured figures over the sessions, those that have moved first. */
export function Figures({ series }: { series: readonly Series[] }) {
  const [all, setAll] = useState(false);
  const shown = all ? series : series.slice(0, SHOWN);
  const moved = series.filter((s) => s.moved).length;
  if (series.length === 0) return null;
  return (
    <section aria-label={say.figuresOverTime()}>
      <h2>
        {say.figuresOverTime()}{' '}
        <span className={moved > 0 ? 'watch' : 'quiet'}>
          {moved > 0 ? say.measurementHasChangedBy({ moved }) : say.nothingHasChangedBy()}
        </span>
      </h2>
      <p className="quiet small">{rich(say.controlChartsBandSd, {})}</p>
      <div className="log-charts">
        {shown.map((s) => (
          <Chart key={s.key} series={s} />
        ))}
      </div>
      {series.length > SHOWN && (
        <Button onClick={() => setAll(!all)}>{all ? say.showFewer() : say.showAll({ series: series.length })}</Button>
      )}
    </section>
  );
}

/** One figure with what it says, as wide as there is room for it. */
function Chart({ series }: { series: Series }) {
  const [box, widthPx] = useWidth<HTMLElement>(MIN_PX);
  return (
    <figure ref={box}>
      <figcaption>
        <StateMark state={series.moved ? 'watch' : series.chart ? 'good' : 'none'} /> {sayChart(series)}
      </figcaption>
      <ControlChart series={series} widthPx={Math.max(MIN_PX, widthPx)} />
    </figure>
  );
}
