import { Button } from '@chakra-ui/react';
import { type Option, OWN } from '#core/plan/index.ts';
import { findTypes, isHardware } from '#core/rig/index.ts';
import { count, StateMark } from '#web/parts/index.ts';

/** One way closer: what it is, what it cannot, what is in it. */
export function WayCard({ option, onBuild }: { option: Option; onBuild: () => void }) {
  const { kind, rig, cannot } = option;
  const types = findTypes(rig);
  const boxes = rig.devices.filter((d) => isHardware(types.get(d.typeId)!));
  return (
    <section className="run-step" aria-label="The way that is looked at">
      <div className="spread">
        <p className="run-says">{kind.name}</p>
        {kind.id !== OWN && (
          <Button variant="solid" onClick={onBuild}>
            Make a rig of it <kbd>r</kbd>
          </Button>
        )}
      </div>
      <p>{kind.says}</p>
      {kind.school && <p className="quiet">Two schools: {kind.school}</p>}
      <p>
        {cannot.length === 0 ? (
          <span className="good">
            <StateMark state="good" /> It brings all that the plan wants.
          </span>
        ) : (
          <span className="watch">
            <StateMark state="watch" /> It cannot: {cannot.join('; ')}.
          </span>
        )}
      </p>
      <p className="small quiet">
        {count(boxes.length, 'box', 'boxes')}: {boxes.map((d) => d.name).join(', ')}. Prices, delays and noise are
        typical figures.
      </p>
    </section>
  );
}
