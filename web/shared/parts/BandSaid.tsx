import type { Band } from '#core/signal/index.ts';
import { common, parts as say, textOf } from '#words/index.ts';
import { sayBand } from './format.ts';
import { Term } from './Term.tsx';

/** The band of a way, and who says so; nothing where nothing ends it. */
export function BandSaid({ band }: { band: Band }) {
  if (band.lowHz === 0 && !Number.isFinite(band.highHz)) return null;
  return (
    <p className="quiet">
      {say.bandIs({ band: sayBand(band) })}
      <Term id={band.kind}>{common[band.kind]()}</Term>: {textOf(band.source)}).
    </p>
  );
}
