import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import type { RigVersion } from '#api/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { Head, hidden, Table, useKey } from '#web/shared/parts/index.ts';
import { common, versions as say } from '#words/index.ts';
import { dayOf, sayJudged, sayMoved, timeOf } from './say.ts';
import { VersionLook } from './VersionLook.tsx';

interface Props {
  readonly rigId: string;
  /** Newest first. */
  readonly versions: readonly RigVersion[];
  /** The revision that is open, and the rig as it is now; null if it can't be opened. */
  readonly presentRevision: number | null;
  readonly present: Rig | null;
  readonly onBringBack: (version: RigVersion, rig: Rig) => void;
}

const FIRST_SHOWN = 60;

/** Versions by day: when, what changed, how the verdict moved; the one that is looked at opens below its row. */
export function VersionList({ rigId, versions, presentRevision, present, onBringBack }: Props) {
  const [openRevision, setOpenRevision] = useState<number | null>(null);
  const [shown, setShown] = useState(FIRST_SHOWN);
  const at = versions.findIndex((v) => v.revision === openRevision);
  const go = (by: number) => {
    const next = versions[Math.max(0, Math.min(versions.length - 1, at < 0 ? 0 : at + by))];
    if (next) setOpenRevision(next.revision);
  };
  useKey('j', say.nextVersionOlder(), () => go(1));
  useKey('k', say.previousVersionNewer(), () => go(-1));
  if (versions.length === 0) return <p className="quiet">{say.noVersionsYetFirst()}</p>;
  return (
    <>
      <Table tight aria-label={say.versions()}>
        <Head columns={[say.saved(), say.whatChanged(), say.verdict(), hidden(common.actions())]} />
        <tbody>
          {versions.slice(0, shown).map((version, i) => {
            const older = versions[i + 1];
            const newDay = i === 0 || dayOf(version.savedAt) !== dayOf(versions[i - 1]!.savedAt);
            const open = version.revision === openRevision;
            return [
              newDay && (
                <tr key={`day ${version.savedAt}`}>
                  <th colSpan={4} scope="rowgroup">
                    {dayOf(version.savedAt)}
                  </th>
                </tr>
              ),
              <tr key={version.revision} aria-current={version.revision === presentRevision ? 'true' : undefined}>
                <td className="fact">{timeOf(version.savedAt)}</td>
                <td>
                  {version.changes.length > 0
                    ? version.changes.join('; ')
                    : older
                      ? say.changedOutsideThisPage()
                      : say.firstVersionKept()}
                </td>
                <td className="quiet">
                  {sayJudged(version.judged)}
                  {sayMoved(older?.judged ?? null, version.judged)}
                </td>
                <td className="number">
                  {version.revision === presentRevision ? (
                    <span className="quiet">{say.now()}</span>
                  ) : (
                    <Button aria-expanded={open} onClick={() => setOpenRevision(open ? null : version.revision)}>
                      {open ? common.close() : say.look()}
                    </Button>
                  )}
                </td>
              </tr>,
              open && version.revision !== presentRevision && (
                <tr key={`look ${version.revision}`}>
                  <td colSpan={4}>
                    <VersionLook rigId={rigId} version={version} present={present} onBringBack={onBringBack} />
                  </td>
                </tr>
              ),
            ];
          })}
        </tbody>
      </Table>
      {versions.length > shown && (
        <p>
          <Button onClick={() => setShown(shown + FIRST_SHOWN)}>
            {say.showMore({ shown: versions.length - shown })}
          </Button>
        </p>
      )}
    </>
  );
}
