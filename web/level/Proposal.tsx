import type { Rig } from '#core/rig/index.ts';
import type { GainsFound, ladderFor } from '#core/solve/index.ts';
import { formatSigned } from '#web/parts/index.ts';
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
          ? `Nothing is to be turned. ${sayFound(found, unit)}`
          : 'The least noise at the level that is wanted, with room over the peaks at every step: early gain first, then unity.'}
      </p>
    );
  return (
    <>
      {found && <p>{sayFound(found, unit)}</p>}
      <ul>
        {trying.map((change) => (
          <li key={`${change.deviceId}.${change.settingId}`}>
            {sayChange(rig, change)} <span className="quiet">{found && ladder ? sayReason(ladder, change) : ''}</span>
          </li>
        ))}
      </ul>
      {found && found.held.length > 0 && (
        <p className="quiet small">
          Left as they are, since others hang on them or you hold them: {found.held.map((h) => h.spec.name).join(', ')}.
        </p>
      )}
      {found && found.moved.length > 0 && (
        <p className="quiet small">
          Also moves:{' '}
          {found.moved
            .slice(0, 6)
            .map((m) => {
              const name = rig.sources.find((s) => s.id === m.sourceId)!.name;
              const to = rig.listeners.find((l) => l.id === m.listenerId)!.name;
              return `${name} at ${to} ${formatSigned(m.byDb, 1)} dB`;
            })
            .join('; ')}
          {found.moved.length > 6 ? ` and ${found.moved.length - 6} more` : ''}.
        </p>
      )}
    </>
  );
}
