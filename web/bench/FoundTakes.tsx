import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import type { FoundTake } from '#api/index.ts';
import { formatBytes } from '#web/parts/index.ts';
import { api, newId, sayProblem } from '#web/store/index.ts';

const SHOWN_OF_HASH = 8;
const nameOf = ({ sha256, ending }: FoundTake): string => `Found ${sha256.slice(0, SHOWN_OF_HASH)}${ending}`;

/** Files in the takes folder that no take refers to, after a lost or restored database: keep them, or delete them for good. */
export function FoundTakes() {
  const found = api.useFoundTakesQuery(undefined, { refetchOnMountOrArgChange: true });
  const [takeBack] = api.useTakeBackMutation();
  const [remove] = api.useDeleteFoundMutation();
  const [asked, setAsked] = useState<string | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const attempt = async (job: { unwrap: () => Promise<unknown> }) => {
    setAsked(null);
    try {
      await job.unwrap();
      setFailed(null);
    } catch (error) {
      setFailed(sayProblem(error));
    }
  };
  if (!found.data || found.data.length === 0) return null;
  return (
    <section aria-label="Found again">
      <h2>Found again</h2>
      <p className="quiet">
        These files are in the takes folder, but no take refers to them: the database is older than they are, or was
        lost. Nothing deletes them but you.
      </p>
      {failed && (
        <p className="fix" role="alert">
          {failed}
        </p>
      )}
      <table className="table tight">
        <thead>
          <tr>
            <th>File</th>
            <th className="number">Size</th>
            <th>
              <span className="visually-hidden">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {found.data.map((file) => (
            <tr key={file.sha256}>
              <td>{nameOf(file)}</td>
              <td className="number quiet">{formatBytes(file.bytes)}</td>
              <td className="number">
                <span className="row" style={{ justifyContent: 'flex-end' }}>
                  {asked === file.sha256 ? (
                    <>
                      <span className="small">This deletes the file for good.</span>
                      <Button onClick={() => void attempt(remove(file.sha256))}>Delete file</Button>
                      <Button onClick={() => setAsked(null)}>Cancel</Button>
                    </>
                  ) : (
                    <>
                      <Button
                        onClick={() => void attempt(takeBack({ sha256: file.sha256, id: newId(), name: nameOf(file) }))}
                      >
                        Add to takes
                      </Button>
                      <Button onClick={() => setAsked(file.sha256)}>Delete</Button>
                    </>
                  )}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
