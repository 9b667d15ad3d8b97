import { useEffect, useState } from 'react';
import { Link, Outlet, useParams } from 'react-router';
import { type Rig, startHistory } from '#core/model/rig/index.ts';
import { isTooLarge } from '#core/signal/index.ts';
import { AheadProvider, NextLine, useConfirmed } from '#web/features/live/next/index.ts';
import { TourLine } from '#web/features/live/tour/index.ts';
import { WatchNotice, watchers } from '#web/features/live/watch/index.ts';
import { ListenBar } from '#web/shared/listen/index.ts';
import { Frame } from '#web/shared/parts/index.ts';
import {
  api,
  closed,
  documentUrl,
  isOffline,
  keepLastRig,
  openRig,
  readDraft,
  type Scene,
  sayProblem,
  selectRig,
  selectScene,
  stageStatesOf,
  useAppDispatch,
  useAppSelector,
  useJournal,
  usePhoneNews,
  useSettledRig,
} from '#web/shared/store/index.ts';
import '#words/core.ts';
import { frame, guides, next } from '#words/index.ts';
import { RigNotices } from './RigNotices.tsx';
import { RigTop } from './RigTop.tsx';
import { useAnnouncedSteps } from './useAnnouncedSteps.ts';
import { verdictOf } from './verdict.ts';

/** Opens a rig: from the server, or as it was left in this browser, whichever is further. */
function useOpenRig(rigId: string): string | null {
  const dispatch = useAppDispatch();
  const [failed, setFailed] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    const draft = readDraft(rigId);
    const request = dispatch(api.endpoints.rig.initiate(rigId));
    request.then((answer) => {
      if (gone) return;
      if (answer.data) keepLastRig(rigId);
      if (answer.data && isTooLarge(answer.data.document)) {
        setFailed(frame.tooLarge());
      } else if (answer.data) {
        const { revision, document: rig } = answer.data;
        const same = draft && JSON.stringify(draft.history.rig) === JSON.stringify(rig);
        if (draft && same) dispatch(openRig({ rigId, history: draft.history, revision, save: 'saved' }));
        else if (draft && !draft.saved && draft.revision === revision)
          dispatch(openRig({ rigId, history: draft.history, revision, save: 'unsaved' }));
        else if (draft && !draft.saved)
          dispatch(
            openRig({
              rigId,
              history: draft.history,
              revision: draft.revision,
              save: 'conflict',
              newer: { revision, rig },
            }),
          );
        else dispatch(openRig({ rigId, history: startHistory(rig), revision, save: 'saved' }));
      } else if (draft && isOffline(answer.error)) {
        dispatch(openRig({ rigId, history: draft.history, revision: draft.revision, save: 'unsaved' }));
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

/** The rig that the address names; another one begins anew. */
export function RigFrame() {
  const { rigId = '' } = useParams();
  return <OpenRig key={rigId} rigId={rigId} />;
}

/** The frame of an open rig: pages with their states, the verdict, undo and redo, the to-do list. */
export function OpenRig({ rigId }: { rigId: string }) {
  const failed = useOpenRig(rigId);
  useJournal(rigId);
  usePhoneNews();
  useAnnouncedSteps();
  useEffect(() => () => watchers.stopAll(), []);
  const rig = useAppSelector(selectRig);
  const settled = useSettledRig();
  const scene = useAppSelector(selectScene);
  if (failed) {
    return (
      <main className="page">
        <h1>{frame.cannotOpen()}</h1>
        <p className="quiet">{failed}</p>
        <p className="row">
          <Link to="/">{frame.backToRigs()}</Link>
          <a href={documentUrl(rigId)} download>
            {frame.downloadJson()}
          </a>
          <Link to={`/versions/${rigId}`}>{frame.earlierVersions()}</Link>
        </p>
      </main>
    );
  }
  if (!rig || !settled) return <p className="page quiet">{frame.opening()}</p>;
  return (
    <AheadProvider rig={settled}>
      <Framed rigId={rigId} rig={rig} settled={settled} scene={scene} />
    </AheadProvider>
  );
}

interface FramedProps {
  readonly rigId: string;
  readonly rig: Rig;
  /** The rig that verdicts are of, see `useSettledRig`. */
  readonly settled: Rig;
  readonly scene: Scene | null;
}

function Framed({ rigId, rig, settled, scene }: FramedProps) {
  const stages = stageStatesOf(settled);
  const unconfirmed = !useConfirmed();
  const to = (page: string) => `/rigs/${rigId}/${page}`;
  return (
    <Frame
      nav={[
        { to: to('plan'), key: 'p', label: frame.plan(), state: stages.plan, unconfirmed },
        { to: to('wire'), key: 'w', label: frame.wire(), state: stages.wire, unconfirmed },
        { to: to('route'), key: 'r', label: frame.route(), state: stages.route, unconfirmed },
        { to: to('level'), key: 'l', label: frame.level(), state: stages.level, unconfirmed },
        { to: to('sync'), key: 's', label: frame.sync(), state: stages.sync, unconfirmed },
        { to: to('run'), key: 'u', label: frame.run() },
      ]}
      more={[
        { to: to('next'), key: 'n', label: next.title() },
        { to: to('desk'), key: 't', label: frame.toDoList(), waits: settled.tasks.length },
        { to: to('how'), key: 'h', label: guides.title() },
        { to: to('tap'), label: frame.tapTest() },
        { to: to('scan'), label: frame.scan() },
        { to: to('trouble'), label: frame.troubleshoot() },
        { to: to('log'), key: 'o', label: frame.log() },
        { to: to('versions'), key: 'v', label: frame.versions() },
        { to: to('ways'), label: frame.alternatives() },
        { to: to('beside'), label: frame.compare() },
        { to: to('bench'), key: 'b', label: frame.measure() },
        { to: to('gear'), key: 'g', label: frame.gear() },
      ]}
      top={<RigTop rigId={rigId} rig={rig} verdict={verdictOf(settled)} />}
      next={
        <>
          <NextLine rig={rig} rigId={rigId} />
          <TourLine rigId={rigId} />
        </>
      }
    >
      <RigNotices />
      <WatchNotice rig={rig} rigId={rigId} />
      <Outlet />
      {scene && <ListenBar rig={scene.rig} />}
    </Frame>
  );
}
