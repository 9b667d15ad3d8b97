import { Button, chakra, Input } from '@chakra-ui/react';
import { lazy, Suspense, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { RigSummary } from '#api/index.ts';
import { useStartTour } from '#web/features/live/tour/index.ts';
import {
  FileInput,
  Frame,
  formatDate,
  Head,
  hidden,
  Progress,
  rich,
  StateMark,
  sayToFix,
  Table,
  useKey,
} from '#web/shared/parts/index.ts';
import { api, documentUrl, readLastRig, sayProblem } from '#web/shared/store/index.ts';
import { common, frame, rigs } from '#words/index.ts';
import { useRigActions } from './actions.ts';
import { Backup } from './Backup.tsx';
import { DoorPicture } from './DoorPicture.tsx';

/** Rigs that are still being checked are asked for again this often. */
const PENDING_MS = 1000;

/** What is next in a rig takes all that reads one: it comes after the page. */
const LastRig = lazy(async () => ({ default: (await import('#web/features/live/next/index.ts')).LastRig }));

/** Home: what one may want first, and below it the rigs with their verdicts. */
export function RigsScreen() {
  const navigate = useNavigate();
  const [pending, setPending] = useState(false);
  const kept = api.useRigsQuery(undefined, {
    pollingInterval: pending ? PENDING_MS : 0,
    refetchOnMountOrArgChange: true,
  });
  const waits = kept.data?.some((r) => r.state === 'pending') ?? false;
  if (waits !== pending) setPending(waits);
  const { sent, begin, duplicate, exportRig, importFile, remove } = useRigActions();
  const chooser = useRef<HTMLInputElement>(null);
  const [search, setSearch] = useState('');
  const beginDesk = async () => {
    const id = await begin();
    if (id) navigate(`/rigs/${id}/wire`);
  };
  useKey('n', rigs.startEmptyKey(), () => void beginDesk());
  useKey('d', rigs.whatsOnMyDeskKey(), () => navigate('/new'));
  useKey('o', rigs.templateKey(), () => navigate('/new?template'));
  useKey('b', rigs.openMeasureKey(), () => navigate('/bench'));
  useKey('i', rigs.importKey(), () => chooser.current?.click());
  const shown = (kept.data ?? []).filter((r) => r.name.toLowerCase().includes(search.trim().toLowerCase()));
  const lastId = readLastRig();
  const last = kept.data?.find((r) => r.id === lastId && r.state === 'judged');
  const tour = useStartTour();
  const demo = kept.data?.find((r) => r.name.startsWith('Boathouse relay'));
  return (
    <Frame
      nav={[{ to: '/', label: rigs.title() }]}
      more={[{ to: '/bench', label: frame.measure() }]}
      top={<h1>{rigs.title()}</h1>}
    >
      <main className="frame-page">
        <div className="page">
          <p className="lead">{rigs.whatThisIs()}</p>
          {last && (
            <Suspense fallback={null}>
              <LastRig rigId={last.id} />
            </Suspense>
          )}
          <section className="doors" aria-label={rigs.whereToBegin()}>
            <div className="door">
              {!last && <DoorPicture of="file" />}
              <chakra.h2 marginTop="0">{rigs.measureFile()}</chakra.h2>
              <p className="quiet">{rigs.measureFileSays()}</p>
              <chakra.p marginTop="12px">
                <Button variant="solid" onClick={() => navigate('/bench')}>
                  {rich(rigs.openMeasure, {})}
                </Button>
              </chakra.p>
            </div>
            <div className="door">
              {!last && <DoorPicture of="desk" />}
              <chakra.h2 marginTop="0">{rigs.mySetup()}</chakra.h2>
              <p className="quiet">{rigs.mySetupSays()}</p>
              <chakra.p className="row" marginTop="12px">
                <Button variant="solid" onClick={() => navigate('/new')}>
                  {rich(rigs.whatsOnMyDesk, {})}
                </Button>
                <Button onClick={() => navigate('/new?template')}>{rich(rigs.template, {})}</Button>
                <Button onClick={() => void beginDesk()}>{rich(rigs.startEmpty, {})}</Button>
              </chakra.p>
            </div>
            <div className="door">
              {!last && <DoorPicture of="demo" />}
              <chakra.h2 marginTop="0">{rigs.tryDemo()}</chakra.h2>
              <p className="quiet">{rigs.tryDemoSays()}</p>
              <chakra.p className="row" marginTop="12px">
                <Button variant="solid" loading={tour.busy} onClick={() => void tour.start()}>
                  {rigs.takeTour()}
                </Button>
                {demo && <Button onClick={() => navigate(`/rigs/${demo.id}/wire`)}>{rigs.openDemo()}</Button>}
              </chakra.p>
              {tour.failed && (
                <p role="status">
                  <StateMark state="fix" /> {tour.failed}
                </p>
              )}
            </div>
          </section>
          <chakra.div className="spread" marginTop="26px">
            <chakra.h2 margin="0">{rigs.yourRigs()}</chakra.h2>
            <span className="row">
              {(kept.data?.length ?? 0) > 5 && (
                <Input
                  width="190px"
                  aria-label={rigs.searchRigs()}
                  placeholder={rigs.search()}
                  value={search}
                  onChange={(e) => setSearch(e.target.value)}
                />
              )}
              <Button onClick={() => chooser.current?.click()}>{rich(rigs.import, {})}</Button>
            </span>
          </chakra.div>
          <FileInput
            chooser={chooser}
            label={rigs.rigFile()}
            accept=".json,application/json,.zip,application/zip"
            onFile={(file) => void importFile(file)}
          />
          {sent !== null && (
            <p className="row" role="status">
              <Progress value={sent} label={rigs.archiveSent()} />{' '}
              {sent < 1 ? rigs.sent({ share: sent }) : rigs.allSent()}
            </p>
          )}
          {kept.isLoading && <p className="quiet">{rigs.loading()}</p>}
          {kept.isError && !kept.data && (
            <p className="row">
              <StateMark state="watch" /> {sayProblem(kept.error)}{' '}
              <Button onClick={() => void kept.refetch()}>{common.tryAgain()}</Button>
            </p>
          )}
          {kept.data?.length === 0 && <p className="quiet">{rigs.empty()}</p>}
          {shown.length > 0 && (
            <Table tight marginTop="8px">
              <Head columns={[rigs.rig(), rigs.verdict(), rigs.basedOn(), rigs.changed(), hidden(rigs.actions())]} />
              <tbody>
                {shown.map((rig) => (
                  <tr key={rig.id}>
                    <td>
                      {rig.state === 'unreadable' ? (
                        <span className="strong">{rig.name}</span>
                      ) : (
                        <Link to={`/rigs/${rig.id}/sync`} className="strong">
                          {rig.name}
                        </Link>
                      )}
                    </td>
                    <td>
                      <RigVerdict rig={rig} />
                    </td>
                    <td className="quiet">
                      {rig.state !== 'judged'
                        ? ''
                        : rig.measured === 0
                          ? rigs.asDrawn()
                          : rigs.measurements({ count: rig.measured })}
                      {rig.toDo > 0 ? rigs.toDo({ count: rig.toDo }) : ''}
                    </td>
                    <td className="quiet">{formatDate(rig.updatedAt)}</td>
                    <td className="number">
                      <chakra.span className="row" justifyContent="flex-end">
                        {rig.state === 'unreadable' ? (
                          <>
                            <Button asChild>
                              <a href={documentUrl(rig.id)} download>
                                {frame.downloadJson()}
                              </a>
                            </Button>
                            <Button asChild>
                              <Link to={`/versions/${rig.id}`}>{frame.earlierVersions()}</Link>
                            </Button>
                          </>
                        ) : (
                          <>
                            <Button onClick={() => void duplicate(rig)}>{rigs.duplicate()}</Button>
                            <Button onClick={() => void exportRig(rig)}>{rigs.export()}</Button>
                          </>
                        )}
                        <Button onClick={() => void remove(rig)}>{common.delete()}</Button>
                      </chakra.span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          )}
          <Backup />
        </div>
      </main>
    </Frame>
  );
}

function RigVerdict({ rig }: { rig: RigSummary }) {
  if (rig.state === 'pending') return <span className="quiet">{rigs.checking()}</span>;
  if (rig.state === 'too-large')
    return (
      <span className="watch">
        <StateMark state="watch" /> {rigs.tooLarge()}
      </span>
    );
  if (rig.state === 'unreadable')
    return (
      <span className="fix">
        <StateMark state="fix" /> {rigs.unreadable({ reason: rig.says ?? '' })}
      </span>
    );
  const state = rig.blockers > 0 ? 'stop' : rig.toFix > 0 ? 'fix' : rig.toWatch > 0 ? 'watch' : 'good';
  return (
    <span className={state}>
      <StateMark state={state} />{' '}
      {rig.toFix > 0 ? sayToFix(rig) : rig.toWatch > 0 ? rigs.warnings({ count: rig.toWatch }) : rigs.matches()}
    </span>
  );
}
