import { Button, chakra } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import type { Restored } from '#api/index.ts';
import { FileInput, formatBytes, off, Sheet, StateMark } from '#web/shared/parts/index.ts';
import { isOffline, sayProblem, uploads } from '#web/shared/store/index.ts';
import { common, rigs as say } from '#words/index.ts';
import { backups } from './backups.ts';
import { sayAge, sayRestored } from './say-backup.ts';

const FILES = '.zip,application/zip';
const DAY = new Intl.DateTimeFormat(undefined, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: 'numeric',
  minute: '2-digit',
});

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
  const chooser = useRef<HTMLInputElement>(null);
  const { data: copies } = backups.useCopiesQuery(undefined, { refetchOnMountOrArgChange: true });
  const [prepare] = backups.usePrepareBackupMutation();
  const [lookAt] = backups.useLookAtBackupMutation();
  const [restore] = backups.useRestoreBackupMutation();
  const [forget] = backups.useDropBackupMutation();
  const [send] = uploads.useSendBackupMutation();
  const [says, setSays] = useState<{ state: 'good' | 'fix'; text: string } | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [choosing, setChoosing] = useState(false);
  const attempt = async (doing: string, job: () => Promise<string | null>) => {
    setBusy(doing);
    try {
      const done = await job();
      setSays(done === null ? null : { state: 'good', text: done });
    } catch (error) {
      setSays({ state: 'fix', text: isOffline(error) ? say.serverIsntResponding() : sayProblem(error) });
    } finally {
      setBusy(null);
    }
  };
  const backUp = () =>
    attempt(say.preparingBackup(), async () => {
      const ready = await prepare(undefined).unwrap();
      const link = document.createElement('a');
      link.href = `/api/backups/${ready.id}`;
      link.download = ready.name;
      link.click();
      return say.backupRigTakeAnd({
        rig: ready.rigs,
        take: ready.takes,
        photograph: ready.photographs,
        bytes: formatBytes(ready.bytes),
      });
    });
  const choose = (file: File) =>
    attempt(say.readingBackup(), async () => {
      const onProgress = (share: number) => setBusy(say.readingBackupWith({ share: Math.round(100 * share) }));
      const url = await send({ file, onProgress }).unwrap();
      setBusy(say.checkingEveryFileAgainst());
      try {
        setPreview({ url, name: file.name, restored: await lookAt(url).unwrap(), sent: true });
      } catch (error) {
        await forget(url);
        throw error;
      }
      return null;
    });
  const bringIn = (url: string) =>
    attempt(say.restoring(), async () => {
      setPreview(null);
      return say.restoredWith({ join: sayRestored(await restore(url).unwrap()).join(' ') });
    });
  const openCopy = (name: string) =>
    attempt(say.checkingEveryFileAgainst(), async () => {
      setChoosing(false);
      const url = `restores/copies/${name}`;
      setPreview({ url, name, restored: await lookAt(url).unwrap(), sent: false });
      return null;
    });
  const cancel = ({ url, sent }: Preview) => {
    setPreview(null);
    if (sent) void forget(url);
  };
  const latest = copies?.copies[0];
  return (
    <chakra.section aria-label={say.backup()} marginTop="30px">
      <div className="spread">
        <chakra.h2 margin="0">{say.backup()}</chakra.h2>
        <span className="row">
          <Button {...off(busy)} onClick={() => void backUp()}>
            {say.backUpEverything()}
          </Button>
          <Button {...off(busy)} onClick={() => chooser.current?.click()}>
            {say.restore()}
          </Button>
          {latest && (
            <Button {...off(busy)} onClick={() => setChoosing(true)}>
              {say.automaticCopies()}
            </Button>
          )}
        </span>
      </div>
      <p className="quiet">
        {latest
          ? say.lastAutomaticCopyOne({
              madeAt: sayAge(Date.now() - Date.parse(latest.madeAt)),
              takes: copies.withTakes ? say.takesIncluded() : say.withoutTakes(),
              folder: copies.folder,
              copies: copies.copies.length,
            })
          : say.noAutomaticCopiesYet()}{' '}
        {copies && !copies.withTakes && say.theyAreOnSame()}
      </p>
      <FileInput
        chooser={chooser}
        label={say.backupFile()}
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
        <Sheet title={say.automaticCopies()} onClose={() => setChoosing(false)}>
          <ul className="plain">
            {copies.copies.map((c) => (
              <li key={c.name} className="spread">
                <span>
                  {DAY.format(new Date(c.madeAt))} <span className="quiet">{formatBytes(c.bytes)}</span>
                </span>
                <Button
                  aria-label={say.restoreCopy({ madeAt: DAY.format(new Date(c.madeAt)) })}
                  onClick={() => void openCopy(c.name)}
                >
                  {say.restore()}
                </Button>
              </li>
            ))}
          </ul>
        </Sheet>
      )}
      {preview && (
        <Sheet title={say.restoreThisBackup()} onClose={() => cancel(preview)}>
          <p>
            {say.intact({
              preview: preview.name,
              toLocaleString: new Date(preview.restored.madeAt).toLocaleString(),
              bytes: formatBytes(preview.restored.bytes),
            })}
          </p>
          <ul>
            {sayRestored(preview.restored).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <p className="quiet">{say.nothingHereIsChanged()}</p>
          <p className="row">
            <Button variant="solid" onClick={() => void bringIn(preview.url)}>
              {say.restore()}
            </Button>
            <Button onClick={() => cancel(preview)}>{common.cancel()}</Button>
          </p>
        </Sheet>
      )}
    </chakra.section>
  );
}
