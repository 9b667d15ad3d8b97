import { formatNumber, Slider } from '#web/shared/parts/index.ts';
import { common, listen as say } from '#words/index.ts';
import { LOWEST_DB } from './deck.ts';

export const LEVEL_STEP_DB = 3;

/** How loud one listens, from silent to full scale; what is heard starts low. */
export function LevelSlider({ db, onDb }: { db: number; onDb: (db: number) => void }) {
  const says = db <= LOWEST_DB ? say.silent() : say.db({ db: formatNumber(db) });
  return (
    <span className="row">
      <span className="small quiet">{common.level()}</span>
      <Slider label={say.listeningLevelDb()} says={says} min={LOWEST_DB} max={0} value={db} onValue={onDb} />
      <span className="fact small">{says}</span>
    </span>
  );
}
