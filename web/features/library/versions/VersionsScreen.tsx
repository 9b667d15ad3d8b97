import { useParams } from 'react-router';
import type { RigVersion } from '#api/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { formatDate, Page } from '#web/shared/parts/index.ts';
import {
  api,
  applyStep,
  sayProblem,
  selectDesk,
  selectRig,
  useAppDispatch,
  useAppSelector,
} from '#web/shared/store/index.ts';
import { versions as say } from '#words/index.ts';
import { VersionList } from './VersionList.tsx';

/** Earlier versions of the open rig: look at one without leaving the present, and bring it back as one step. */
export function VersionsScreen() {
  const { rigId = '' } = useParams();
  const dispatch = useAppDispatch();
  const rig = useAppSelector(selectRig);
  const { revision } = useAppSelector(selectDesk);
  const versions = api.useVersionsQuery(rigId, { refetchOnMountOrArgChange: true });
  if (!rig) return null;
  const bringBack = (version: RigVersion, earlier: Rig) =>
    dispatch(
      applyStep(
        { kind: 'replace', rig: earlier },
        say.bringBackVersion({ savedAt: formatDate(version.savedAt) }),
        'import',
      ),
    );
  return (
    <Page title={say.earlierVersions()}>
      <p className="quiet">{say.everySaveLastDay()}</p>
      {versions.error && !versions.data && <p role="alert">{sayProblem(versions.error)}</p>}
      {versions.isLoading && <p className="quiet">{say.readingVersions()}</p>}
      {versions.data && (
        <VersionList
          rigId={rigId}
          versions={versions.data}
          presentRevision={revision}
          present={rig}
          onBringBack={bringBack}
        />
      )}
    </Page>
  );
}
