import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { RigVersion } from '#api/index.ts';
import { Frame } from '#web/parts/index.ts';
import { api, documentUrl, sayProblem } from '#web/store/index.ts';
import { frame } from '#words/index.ts';
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
      nav={[{ to: '/', label: 'Rigs' }]}
      more={[{ to: '/bench', label: frame.measure() }]}
      top={<h1>Earlier versions</h1>}
    >
      <main className="frame-page">
        <div className="page">
          <p className="quiet">
            This rig can’t be opened as it is. <a href={documentUrl(rigId)}>Download it</a> to keep it, then bring back
            the newest version that works. What is there now stays in this list. <Link to="/">Back to the rigs</Link>
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
