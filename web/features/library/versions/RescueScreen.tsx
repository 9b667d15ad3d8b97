import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { RigVersion } from '#api/index.ts';
import { Frame, rich } from '#web/shared/parts/index.ts';
import { api, documentUrl, sayProblem } from '#web/shared/store/index.ts';
import { frame, versions as say } from '#words/index.ts';
import { VersionList } from './VersionList.tsx';

/** Earlier versions of a rig that can't be opened: the server makes one of them the present one. */
export function RescueScreen() {
  const { rigId = '' } = useParams();
  const navigate = useNavigate();
  const [failed, setFailed] = useState<string | null>(null);
  const versions = api.useVersionsQuery(rigId, { refetchOnMountOrArgChange: true });
  const [bringBack] = api.useBringBackMutation();
  const rescue = async ({ revision }: RigVersion) => {
    try {
      await bringBack({ id: rigId, revision }).unwrap();
      navigate(`/rigs/${rigId}/versions`);
    } catch (error) {
      setFailed(sayProblem(error));
    }
  };
  return (
    <Frame
      nav={[{ to: '/', label: say.rigs() }]}
      more={[{ to: '/bench', label: frame.measure() }]}
      top={<h1>{say.earlierVersions()}</h1>}
    >
      <main className="frame-page">
        <div className="page">
          <p className="quiet">
            {say.thisRigCantBe()} <a href={documentUrl(rigId)}>{say.downloadIt()}</a> {rich(say.thenBringBack, {}, '/')}
          </p>
          {failed && <p role="alert">{failed}</p>}
          {versions.error && !versions.data && <p role="alert">{sayProblem(versions.error)}</p>}
          {versions.data && (
            <VersionList
              rigId={rigId}
              versions={versions.data}
              presentRevision={null}
              present={null}
              onBringBack={(version) => void rescue(version)}
            />
          )}
        </div>
      </main>
    </Frame>
  );
}
