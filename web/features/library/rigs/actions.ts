import { useState } from 'react';
import { LARGEST_RIG_BYTES, type RigSummary } from '#api/index.ts';
import { SaidError } from '#core/base/said/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { State } from '#core/signal/index.ts';
import { announce, saveAs } from '#web/shared/parts/index.ts';
import { api, isOffline, sayProblem, uploads, useAppDispatch } from '#web/shared/store/index.ts';
import { common, frame, rigs } from '#words/index.ts';

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
  const [sent, setSent] = useState<number | null>(null);

  const say = ({ state, says }: Notice) => announce(state, says);
  const attempt = async (job: () => Promise<Notice>) => {
    try {
      say(await job());
    } catch (error) {
      say({ state: 'fix', says: error instanceof SaidError ? error.message : sayProblem(error) });
    }
  };
  const bringBack = (rig: RigSummary) =>
    attempt(async () => {
      await restoreRig(rig.id).unwrap();
      return { state: 'good', says: rigs.restored({ rig: rig.name }) };
    });
  const documentOf = async (rig: RigSummary) =>
    (await dispatch(api.endpoints.rig.initiate(rig.id, { forceRefetch: true })).unwrap()).document;

  return {
    /** The share of an archive that is sent; null while none is. */
    sent,
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
        // The way back stays until something else is said.
        announce('good', rigs.deleted({ rig: rig.name }), {
          label: common.undo(),
          name: frame.undoStep({ step: rigs.deleted({ rig: rig.name }) }),
          run: () => void bringBack(rig),
          stays: true,
        });
      } catch (error) {
        say({ state: 'fix', says: sayProblem(error) });
      }
    },
  };
}
