import { Button, chakra } from '@chakra-ui/react';
import { useRef } from 'react';
import { Link } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { FileInput, rich, useFileDrop, useKey } from '#web/shared/parts/index.ts';
import { api, sayProblem, uploadIdOf } from '#web/shared/store/index.ts';
import { fileOf, forgetFile, rememberFile, useSendTake } from '#web/shared/take/index.ts';
import { frame, takes as say } from '#words/index.ts';
import { FoundTakes } from './FoundTakes.tsx';
import { OpenTakes } from './OpenTakes.tsx';
import { TakeChooser } from './TakeChooser.tsx';

interface Props {
  readonly takeIds: readonly string[];
  readonly onTakes: (ids: readonly string[]) => void;
  readonly failed: string | null;
  readonly onFailed: (message: string | null) => void;
  /** A take leaves Measure, and why is said there. */
  readonly onLeave: (id: string, why: string) => void;
  readonly rigId: string | null;
  readonly rig: Rig | null;
  readonly evaluation: Evaluation | null;
}

const ACCEPTED = '.wav,.mp4,.mov,.m4a,.webm,.mkv,.flac,.mp3,.ogg,audio/*,video/*';

const LARGE_BYTES = 100_000_000;
const PICTURE_FIRST_MS = 2500;
const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Takes come onto Measure here: chosen, dropped, or out of those that are kept. */
export function TakesPage({ takeIds, onTakes, failed, onFailed, onLeave, rigId, rig, evaluation }: Props) {
  const takes = api.useTakesQuery(undefined);
  const [remove] = api.useDeleteTakeMutation();
  const chooser = useRef<HTMLInputElement>(null);
  const send = useSendTake();
  const drop = useFileDrop((files) => void openFiles(files));
  useKey('o', say.openTake(), () => chooser.current?.click());

  const openFiles = async (files: readonly File[]) => {
    onFailed(null);
    const opened = files.slice(0, 2).map((file) => ({ id: uploadIdOf(file), file }));
    for (const { id, file } of opened) rememberFile(id, file);
    onTakes([...takeIds, ...opened.map((o) => o.id)]);
    // The first picture of a long take comes before its way to the server: both want the disk.
    if (opened.some(({ file }) => file.size > LARGE_BYTES)) await wait(PICTURE_FIRST_MS);
    for (const { id, file } of opened) {
      // It turned out to hold no take: before it was sent, or while it was.
      if (!fileOf(id)) continue;
      const sent = await send(id, file);
      if (sent && !fileOf(id)) await remove(id);
    }
  };
  /** Nothing is kept of a file that was just chosen and holds no take; one that was kept before stays where it is. */
  const leaves = (id: string, why: string) => {
    const isNew = fileOf(id) !== undefined;
    onLeave(id, isNew ? say.itWasNotSaved({ why }) : why);
    if (!isNew) return;
    forgetFile(id);
    // It may have been sent already, or be on its way: then it goes once it is there.
    void remove(id);
  };
  const records = takes.data ?? [];
  const known = takeIds.map((id) => ({
    id,
    record: records.find((t) => t.id === id),
    name: fileOf(id)?.name ?? records.find((t) => t.id === id)?.name ?? say.takeWord(),
  }));
  const missing = takes.data && known.some((k) => !k.record && !fileOf(k.id));
  return (
    <main className={`frame-page ${takeIds.length > 0 ? 'with-card' : ''}`} {...drop.target}>
      {failed && <p className="notice">{failed}</p>}
      {takes.isError && <p className="notice">{sayProblem(takes.error)}</p>}
      <FileInput
        chooser={chooser}
        label={say.takeFile()}
        accept={ACCEPTED}
        onFiles={(files) => void openFiles(files)}
      />
      {takeIds.length === 0 || missing ? (
        <div className="page">
          <h1>{frame.measure()}</h1>
          {missing && <p className="watch">{say.takeWasntSavedChoose()}</p>}
          <div className={`drop ${drop.over ? 'over' : ''}`}>
            <p>{rich(say.dropTakeHereWav, {}, '/slate')}</p>
            <chakra.p marginTop="12px">
              <Button variant="solid" onClick={() => chooser.current?.click()}>
                {rich(say.openTakeO, {})}
              </Button>
            </chakra.p>
          </div>
          <chakra.p className="row small" marginTop="10px">
            <Link to="/slate">{say.showSyncSlate()}</Link>
            <Link to="/round-trip">{say.measureRoundTripLatency()}</Link>
          </chakra.p>
          <TakeChooser takes={records} loading={takes.isLoading} onOpen={(ids) => onTakes(ids)} rig={rig} />
          <FoundTakes />
        </div>
      ) : (
        (takes.data || takes.isError) && (
          <OpenTakes
            takes={known}
            kept={records}
            onOpen={() => chooser.current?.click()}
            onAdd={(id) => onTakes([...takeIds, id])}
            onClear={() => onTakes([])}
            onUnreadable={leaves}
            onRemove={(id) => onTakes(takeIds.filter((t) => t !== id))}
            rigId={rigId}
            rig={rig}
            evaluation={evaluation}
          />
        )
      )}
    </main>
  );
}
