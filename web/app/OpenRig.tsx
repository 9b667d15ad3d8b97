import { useEffect, useState } from 'react';
import { Link, Outlet } from 'react-router';
import { startHistory } from '#core/rig/index.ts';
import { isTooLarge } from '#core/signal/index.ts';
import { ListenBar } from '#web/listen/index.ts';
import { Frame } from '#web/parts/index.ts';
import {
  api,
  closed,
  documentUrl,
  isOffline,
  opened,
  readDraft,
  sayProblem,
  selectRig,
  selectScene,
  stageStatesOf,
  useAppDispatch,
  useAppSelector,
  useHandTicks,
  useJournal,
  useSettledRig,
} from '#web/store/index.ts';
import { WatchNotice, watchers } from '#web/watch/index.ts';
import { RigNotices } from './RigNotices.tsx';
import { RigTop } from './RigTop.tsx';
import { verdictOf } from './verdict.ts';

/** Opens a rig: from the server, or as it was left in this browser, whichever is further. */
function useOpenRig(rigId: string): string | null {
  const dispatch = useAppDispatch();
  const [failed, setFailed] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    const draft = readDraft(rigId);
    const request = dispatch(api.endpoints.rig.initiate(rigId, { forceRefetch: true }));
    request.then((answer) => {
      if (gone) return;
      if (answer.data && isTooLarge(answer.data.document)) {
        setFailed(
          'It is too large to be worked out in the browser without freezing it: more connections inside its devices than a desk has. Export it, remove what you don’t need, and import it again.',
        );
      } else if (answer.data) {
        const { revision, document: rig } = answer.data;
        const same = draft && JSON.stringify(draft.history.rig) === JSON.stringify(rig);
        if (draft && same) dispatch(opened({ rigId, history: draft.history, revision, save: 'saved' }));
        else if (draft && !draft.saved && draft.revision === revision)
          dispatch(opened({ rigId, history: draft.history, revision, save: 'unsaved' }));
        else if (draft && !draft.saved)
          dispatch(
            opened({
              rigId,
              history: draft.history,
              revision: draft.revision,
              save: 'conflict',
              newer: { revision, rig },
            }),
          );
        else dispatch(opened({ rigId, history: startHistory(rig), revision, save: 'saved' }));
      } else if (draft && isOffline(answer.error)) {
        dispatch(opened({ rigId, history: draft.history, revision: draft.revision, save: 'unsaved' }));
      } else setFailed(sayProblem(answer.error));
    });
    return () => {
      gone = true;
      request.unsubscribe();
      dispatch(closed());
    };
  }, [rigId, dispatch]);
  return failed;
}

/** The frame of an open rig: stages with their states, the verdict, undo and redo, what is to be done at the desk. */
export function OpenRig({ rigId }: { rigId: string }) {
  const failed = useOpenRig(rigId);
  useJournal(rigId);
  useHandTicks();
  useEffect(() => () => watchers.stopAll(), []);
  const rig = useAppSelector(selectRig);
  const settled = useSettledRig();
  const scene = useAppSelector(selectScene);
  if (failed) {
    return (
      <main className="page">
        <h1>The rig cannot be opened</h1>
        <p className="quiet">{failed}</p>
        <p className="row">
          <Link to="/">Back to the rigs</Link>
          <a href={documentUrl(rigId)} download>
            Download its JSON
          </a>
          <Link to={`/versions/${rigId}`}>Earlier versions</Link>
        </p>
      </main>
    );
  }
  if (!rig || !settled) return <p className="page quiet">Opening the rig…</p>;
  const stages = stageStatesOf(settled);
  return (
    <Frame
      nav={[
        { to: `/rigs/${rigId}/plan`, label: 'Plan', state: stages.plan },
        { to: `/rigs/${rigId}/wire`, label: 'Wire', state: stages.wire },
        { to: `/rigs/${rigId}/route`, label: 'Route', state: stages.route },
        { to: `/rigs/${rigId}/level`, label: 'Level', state: stages.level },
        { to: `/rigs/${rigId}/sync`, label: 'Sync', state: stages.sync },
        { to: `/rigs/${rigId}/run`, label: 'Run' },
      ]}
      more={[
        { to: `/rigs/${rigId}/desk`, label: 'At the desk' },
        { to: `/rigs/${rigId}/tap`, label: 'Tap test' },
        { to: `/rigs/${rigId}/trouble`, label: 'Trouble' },
        { to: `/rigs/${rigId}/log`, label: 'Log' },
        { to: `/rigs/${rigId}/versions`, label: 'Versions' },
        { to: `/rigs/${rigId}/ways`, label: 'Ways to build' },
        { to: `/rigs/${rigId}/beside`, label: 'Side by side' },
        { to: `/rigs/${rigId}/bench`, label: 'Bench' },
        { to: `/rigs/${rigId}/gear`, label: 'Gear' },
      ]}
      top={<RigTop rigId={rigId} rig={rig} verdict={verdictOf(settled)} />}
    >
      <RigNotices />
      <WatchNotice rig={rig} rigId={rigId} />
      <Outlet />
      {scene && <ListenBar rig={scene.rig} />}
    </Frame>
  );
}
