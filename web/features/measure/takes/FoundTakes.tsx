import { Button, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { FoundTake } from '#api/index.ts';
import { figures, formatBytes, Head, hidden, Table } from '#web/shared/parts/index.ts';
import { api, newId, sayProblem } from '#web/shared/store/index.ts';
import { common, takes as say } from '#words/index.ts';

const SHOWN_OF_HASH = 8;
const nameOf = ({ sha256, ending }: FoundTake): string =>
  say.foundFile({ SHOWN_OF_HASH: sha256.slice(0, SHOWN_OF_HASH), ending });

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
    <section aria-label={say.foundAgain()}>
      <h2>{say.foundAgain()}</h2>
      <p className="quiet">{say.theseFilesAreIn()}</p>
      {failed && (
        <p className="fix" role="alert">
          {failed}
        </p>
      )}
      <Table tight>
        <Head columns={[say.file(), figures(say.size()), hidden(common.actions())]} />
        <tbody>
          {found.data.map((file) => (
            <tr key={file.sha256}>
              <td>{nameOf(file)}</td>
              <td className="number quiet">{formatBytes(file.bytes)}</td>
              <td className="number">
                <chakra.span className="row" justifyContent="flex-end">
                  {asked === file.sha256 ? (
                    <>
                      <span className="small">{say.thisDeletesFilePermanently()}</span>
                      <Button onClick={() => void attempt(remove(file.sha256))}>{say.deleteFile()}</Button>
                      <Button onClick={() => setAsked(null)}>{common.cancel()}</Button>
                    </>
                  ) : (
                    <>
                      <Button
                        onClick={() => void attempt(takeBack({ sha256: file.sha256, id: newId(), name: nameOf(file) }))}
                      >
                        {say.addToTakes()}
                      </Button>
                      <Button onClick={() => setAsked(file.sha256)}>{common.delete()}</Button>
                    </>
                  )}
                </chakra.span>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}
