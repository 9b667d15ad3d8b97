import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sayProblem, selectTour, tourBegun, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { tour as say } from '#words/index.ts';
import { TOUR } from './steps.ts';

/** The rig that the tour is taken on, with its faults; it comes with the first tour. */
async function practiceRig() {
  const { boathouse } = await import('#demo/boathouse.ts');
  return { ...boathouse, name: say.rigName({ rig: boathouse.name }) };
}

/** Begins the tour on a new practice rig; that of the tour before is deleted. */
export function useStartTour() {
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const { rigId: before } = useAppSelector((state) => selectTour(state));
  const [create] = api.useCreateRigMutation();
  const [remove] = api.useDeleteRigMutation();
  const [state, setState] = useState<{ readonly busy: boolean; readonly failed: string | null }>({
    busy: false,
    failed: null,
  });
  const start = async (): Promise<boolean> => {
    setState({ busy: true, failed: null });
    try {
      const id = crypto.randomUUID();
      await create({ id, document: await practiceRig() }).unwrap();
      if (before !== null) {
        const rigs = await dispatch(api.endpoints.rigs.initiate(undefined, { forceRefetch: true, subscribe: false }));
        const old = rigs.data?.find((rig) => rig.id === before);
        // It may be gone, or open and newer: then it stays.
        if (old) await remove({ id: old.id, revision: old.revision });
      }
      dispatch(tourBegun(id));
      navigate(`/rigs/${id}/${TOUR[0]!.page}`);
      setState({ busy: false, failed: null });
      return true;
    } catch (error) {
      setState({ busy: false, failed: sayProblem(error) });
      return false;
    }
  };
  return { ...state, start };
}
