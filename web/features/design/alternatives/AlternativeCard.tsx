import { Button } from '@chakra-ui/react';
import { findTypes, isHardware } from '#core/model/rig/index.ts';
import { type Option, OWN } from '#core/routing/plan/index.ts';
import { rich, StateMark } from '#web/shared/parts/index.ts';
import { alternatives as say, textOf } from '#words/index.ts';

/** One way closer: what it is, what it cannot, what is in it. */
export function AlternativeCard({ option, onBuild }: { option: Option; onBuild: () => void }) {
  const { kind, rig, cannot } = option;
  const types = findTypes(rig);
  const boxes = rig.devices.filter((d) => isHardware(types.get(d.typeId)!));
  return (
    <section className="run-step" aria-label={say.selectedAlternative()}>
      <div className="spread">
        <p className="run-says">{textOf(kind.name)}</p>
        {kind.id !== OWN && (
          <Button variant="solid" onClick={onBuild}>
            {rich(say.createThisRigR, {})}
          </Button>
        )}
      </div>
      <p>{textOf(kind.says)}</p>
      {kind.school && <p className="quiet">{say.twoSchools({ school: textOf(kind.school) })}</p>}
      <p>
        {cannot.length === 0 ? (
          <span className="good">
            <StateMark state="good" /> {say.meetsWholePlan()}
          </span>
        ) : (
          <span className="watch">
            <StateMark state="watch" /> {say.doesntMeet({ join: cannot.join('; ') })}
          </span>
        )}
      </p>
      <p className="small quiet">
        {say.devicePricesDelaysAnd({ boxes: boxes.length, join: boxes.map((d) => d.name).join(', ') })}
      </p>
    </section>
  );
}
