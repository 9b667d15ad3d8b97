import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn, settingKey, sourceIn } from '#core/model/rig/index.ts';
import type { GainsFound, ladderFor } from '#core/routing/suggest/index.ts';
import { formatSigned } from '#web/shared/parts/index.ts';
import { level as say } from '#words/index.ts';
import { sayChange, sayFound, sayReason } from './say.ts';

interface ProposalProps {
  readonly rig: Rig;
  readonly ladder: ReturnType<typeof ladderFor>;
  readonly found: GainsFound | null;
  readonly unit: string;
  readonly trying: GainsFound['changes'];
}

/** What is turned, where to, and why; and who else hears it. */
export function Proposal({ rig, ladder, found, unit, trying }: ProposalProps) {
  if (trying.length === 0)
    return (
      <p className="quiet">
        {found?.changes.length === 0
          ? say.nothingNeedsTurning({ unit: sayFound(found, unit) })
          : say.lowestNoiseAtYour()}
      </p>
    );
  return (
    <>
      {found && <p>{sayFound(found, unit)}</p>}
      <ul>
        {trying.map((change) => (
          <li key={settingKey(change.deviceId, change.settingId)}>
            {sayChange(rig, change)} <span className="quiet">{found && ladder ? sayReason(ladder, change) : ''}</span>
          </li>
        ))}
      </ul>
      {found && found.held.length > 0 && (
        <p className="quiet small">
          {say.notChangedOtherSources({ join: found.held.map((h) => h.spec.name).join(', ') })}
        </p>
      )}
      {found && found.moved.length > 0 && (
        <p className="quiet small">
          {say.alsoChanges({
            join: found.moved
              .slice(0, 6)
              .map((m) => {
                const name = sourceIn(rig, m.sourceId).name;
                const to = listenerIn(rig, m.listenerId).name;
                return say.movedBy({ name, to, byDb: formatSigned(m.byDb, 1) });
              })
              .join('; '),
            more: found.moved.length > 6 ? say.andSomeMore({ n6: found.moved.length - 6 }) : '',
          })}
        </p>
      )}
    </>
  );
}
