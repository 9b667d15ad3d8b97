import { useState } from 'react';
import { LARGEST_RIG_BYTES, type RigSummary } from '#api/index.ts';
import { SaidError } from '#core/base/said/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { State } from '#core/signal/index.ts';
import { saveAs } from '#web/shared/parts/index.ts';
import { api, isOffline, sayProblem, uploads, useAppDispatch } from '#web/shared/store/index.ts';
import { rigs } from '#words/index.ts';

interface Notice {
  readonly state: State;
  readonly says: string;
}

/** The model comes when the first rig is made or read, and with it the words for what it refuses. */
const model = async () => {
  await import('#words/core.ts');
  return import('#core/model/rig/index.ts');
};

/** Actions on a rig as a whole. Each reports its result; a delete can be undone. */
export function useRigActions() {
  const dispatch = useAppDispatch();
  const [create] = api.useCreateRigMutation();
  const [deleteRig] = api.useDeleteRigMutation();
  const [sendArchive] = uploads.useSendArchiveMutation();
  const [restoreRig] = api.useRestoreRigMutation();
  const [notice, setNotice] = useState<Notice | null>(null);
  const [sent, setSent] = useState<number | null>(null);
  const [removed, setRemoved] = useState<RigSummary | null>(null);

  /** Says the outcome; what was deleted before can then no longer be taken back here. */
  const say = (next: Notice | null, taken: RigSummary | null = null) => {
    setNotice(next);
    setRemoved(taken);
  };
  const attempt = async (job: () => Promise<Notice>) => {
    try {
      say(await job());
    } catch (error) {
      say({ state: 'fix', says: error instanceof SaidError ? error.message : sayProblem(error) });
    }
  };
  const documentOf = async (rig: RigSummary) =>
    (await dispatch(api.endpoints.rig.initiate(rig.id, { forceRefetch: true })).unwrap()).document;

  return {
    notice,
    /** The share of an archive that is sent; null while none is. */
    sent,
    removed,
    dismiss: () => say(null),
    duplicate: (rig: RigSummary) =>
      attempt(async () => {
        const copy = { ...(await documentOf(rig)), name: rigs.copyOf({ rig: rig.name }) };
        await create({ id: crypto.randomUUID(), document: copy }).unwrap();
        return { state: 'good', says: rigs.created({ rig: copy.name }) };
      }),
    /** A new rig, with nothing on it where none is given; its id, or null with the reason said. */
    begin: async (rig?: Rig): Promise<string | null> => {
      const id = crypto.randomUUID();
      try {
        const document = rig ?? (await model()).emptyRig(rigs.newRig());
        await create({ id, document }).unwrap();
        return id;
      } catch (error) {
        say({ state: 'fix', says: sayProblem(error) });
        return null;
      }
    },
    exportRig: (rig: RigSummary) =>
      attempt(async () => {
        saveAs(`${rig.name}.json`, JSON.stringify(await documentOf(rig), null, 2), 'application/json');
        return { state: 'good', says: rigs.exported({ rig: rig.name }) };
      }),
    importFile: (file: File) =>
      attempt(async () => {
        if (/\.zip$/i.test(file.name)) {
          try {
            const back = await sendArchive({ file, onProgress: setSent }).unwrap();
            return {
              state: 'good',
              says: rigs.archiveRestored({ rig: back.name, takes: back.takes }),
            };
          } catch (error) {
            return { state: 'fix', says: isOffline(error) ? rigs.serverIsntResponding() : sayProblem(error) };
          } finally {
            setSent(null);
          }
        }
        if (file.size > LARGEST_RIG_BYTES) return { state: 'fix', says: rigs.fileTooLarge({ file: file.name }) };
        const rig = (await model()).parseRigText(await file.text());
        await create({ id: crypto.randomUUID(), document: rig }).unwrap();
        return { state: 'good', says: rigs.imported({ rig: rig.name }) };
      }),
    remove: async (rig: RigSummary) => {
      try {
        await deleteRig({ id: rig.id, revision: rig.revision }).unwrap();
        say({ state: 'good', says: rigs.deleted({ rig: rig.name }) }, rig);
      } catch (error) {
        say({ state: 'fix', says: sayProblem(error) });
      }
    },
    undoRemove: () =>
      attempt(async () => {
        if (!removed) return { state: 'watch', says: rigs.nothingToUndo() };
        await restoreRig(removed.id).unwrap();
        return { state: 'good', says: rigs.restored({ rig: removed.name }) };
      }),
  };
}
