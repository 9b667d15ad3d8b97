import { Button } from '@chakra-ui/react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { BackupReady, Copies, Problem, Restored } from '#api/index.ts';
import { count, FileInput, formatBytes, Sheet, StateMark } from '#web/parts/index.ts';
import { api, uploadBackup, useAppDispatch } from '#web/store/index.ts';
import { sayAge, sayRestored } from './say-backup.ts';

const FILES = '.zip,application/zip';
const DAY = new Intl.DateTimeFormat(undefined, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: 'numeric',
  minute: '2-digit',
});

/** @throws Error with the server's sentence */
async function ask(path: string, method = 'GET'): Promise<unknown> {
  const response = await fetch(path, { method });
  if (response.status === 204) return null;
  const json: unknown = await response.json();
  if (!response.ok) throw new Error(Problem.parse(json).detail);
  return json;
}

/** A backup that was looked at: under the address it is restored by. */
interface Preview {
  readonly url: string;
  readonly name: string;
  readonly restored: Restored;
  /** It was sent for this, and goes when it is not wanted. */
  readonly sent: boolean;
}

/** The whole desk in one file, and back; the copies that are kept without asking. */
export function Backup() {
  const dispatch = useAppDispatch();
  const chooser = useRef<HTMLInputElement>(null);
  const [copies, setCopies] = useState<Copies | null>(null);
  const [says, setSays] = useState<{ state: 'good' | 'fix'; text: string } | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [choosing, setChoosing] = useState(false);
  const look = useCallback(
    () =>
      void ask('/api/backups/copies').then(
        (json) => setCopies(Copies.parse(json)),
        () => setCopies(null),
      ),
    [],
  );
  useEffect(look, [look]);
  const attempt = async (doing: string, job: () => Promise<string | null>) => {
    setBusy(doing);
    try {
      const done = await job();
      setSays(done === null ? null : { state: 'good', text: done });
    } catch (error) {
      const lost = error instanceof TypeError;
      setSays({
        state: 'fix',
        text: lost ? 'The server isn’t responding. Nothing was changed.' : (error as Error).message,
      });
    } finally {
      setBusy(null);
    }
  };
  const backUp = () =>
    attempt('Preparing the backup…', async () => {
      const ready = BackupReady.parse(await ask('/api/backups', 'POST'));
      const link = document.createElement('a');
      link.href = `/api/backups/${ready.id}`;
      link.download = ready.name;
      link.click();
      return `Backup of ${count(ready.rigs, 'rig')}, ${count(ready.takes, 'take')} and ${count(ready.photographs, 'photograph')}: your browser is downloading ${formatBytes(ready.bytes)}.`;
    });
  const choose = (file: File) =>
    attempt('Reading the backup…', async () => {
      const url = await uploadBackup(file, {
        onProgress: (share) => setBusy(`Reading the backup: ${Math.round(100 * share)}%`),
      });
      setBusy('Checking every file against its hash…');
      try {
        setPreview({ url, name: file.name, restored: Restored.parse(await ask(url)), sent: true });
      } catch (error) {
        await ask(url, 'DELETE').catch(() => undefined);
        throw error;
      }
      return null;
    });
  const bringIn = (url: string) =>
    attempt('Restoring…', async () => {
      setPreview(null);
      const restored = Restored.parse(await ask(url, 'POST'));
      dispatch(api.util.invalidateTags(['Rigs', 'Takes', 'Versions', 'Found']));
      return `Restored. ${sayRestored(restored).join(' ')}`;
    });
  const openCopy = (name: string) =>
    attempt('Checking every file against its hash…', async () => {
      setChoosing(false);
      const url = `/api/restores/copies/${name}`;
      setPreview({ url, name, restored: Restored.parse(await ask(url)), sent: false });
      return null;
    });
  const cancel = ({ url, sent }: Preview) => {
    setPreview(null);
    if (sent) void ask(url, 'DELETE').catch(() => undefined);
  };
  const latest = copies?.copies[0];
  return (
    <section aria-label="Backup" style={{ marginTop: 30 }}>
      <div className="spread">
        <h2 style={{ margin: 0 }}>Backup</h2>
        <span className="row">
          <Button disabled={busy !== null} onClick={() => void backUp()}>
            Back up everything
          </Button>
          <Button disabled={busy !== null} onClick={() => chooser.current?.click()}>
            Restore
          </Button>
          {latest && (
            <Button disabled={busy !== null} onClick={() => setChoosing(true)}>
              Automatic copies
            </Button>
          )}
        </span>
      </div>
      <p className="quiet">
        {latest
          ? `Last automatic copy: ${sayAge(Date.now() - Date.parse(latest.madeAt))}. One is kept for each day something changed, ${copies.withTakes ? 'takes included' : 'without takes'}, in ${copies.folder}; ${copies.copies.length} of 7 now.`
          : 'A copy is kept for each day something changed. There is none yet.'}{' '}
        {copies && !copies.withTakes && 'They are on the same disk as the originals: download a backup now and then.'}
      </p>
      <FileInput
        chooser={chooser}
        label="Backup file"
        accept={FILES}
        onFiles={([file]) => {
          if (file) void choose(file);
        }}
      />
      <div aria-live="polite">
        {busy && <p className="quiet">{busy}</p>}
        {says && (
          <p className="row">
            <StateMark state={says.state} /> {says.text}
          </p>
        )}
      </div>
      {choosing && copies && (
        <Sheet title="Automatic copies" onClose={() => setChoosing(false)}>
          <ul className="plain">
            {copies.copies.map((c) => (
              <li key={c.name} className="spread">
                <span>
                  {DAY.format(new Date(c.madeAt))} <span className="quiet">{formatBytes(c.bytes)}</span>
                </span>
                <Button
                  aria-label={`Restore the copy of ${DAY.format(new Date(c.madeAt))}`}
                  onClick={() => void openCopy(c.name)}
                >
                  Restore
                </Button>
              </li>
            ))}
          </ul>
        </Sheet>
      )}
      {preview && (
        <Sheet title="Restore this backup?" onClose={() => cancel(preview)}>
          <p>
            {preview.name}, made {new Date(preview.restored.madeAt).toLocaleString()},{' '}
            {formatBytes(preview.restored.bytes)}. Every file in it is intact.
          </p>
          <ul>
            {sayRestored(preview.restored).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <p className="quiet">Nothing that is here is changed or deleted.</p>
          <p className="row">
            <Button variant="solid" onClick={() => void bringIn(preview.url)}>
              Restore
            </Button>
            <Button onClick={() => cancel(preview)}>Cancel</Button>
          </p>
        </Sheet>
      )}
    </section>
  );
}
