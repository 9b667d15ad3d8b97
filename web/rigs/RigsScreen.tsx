import { Button } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { RigSummary } from '#api/index.ts';
import { count, Frame, formatDate, StateMark, useKey } from '#web/parts/index.ts';
import { api, documentUrl, sayProblem } from '#web/store/index.ts';
import { useRigActions } from './actions.ts';
import { Backup } from './Backup.tsx';

/** Rigs that are still being checked are asked for again this often. */
const PENDING_MS = 1000;

/** Home: what one may want first, and below it the rigs with their verdicts. */
export function RigsScreen() {
  const navigate = useNavigate();
  const [pending, setPending] = useState(false);
  const rigs = api.useRigsQuery(undefined, {
    pollingInterval: pending ? PENDING_MS : 0,
    refetchOnMountOrArgChange: true,
  });
  const waits = rigs.data?.some((r) => r.state === 'pending') ?? false;
  if (waits !== pending) setPending(waits);
  const { notice, sent, dismiss, begin, duplicate, exportRig, importFile, remove, undoRemove, removed } =
    useRigActions();
  const chooser = useRef<HTMLInputElement>(null);
  const [search, setSearch] = useState('');
  const beginDesk = async () => {
    const id = await begin();
    if (id) navigate(`/rigs/${id}/wire`);
  };
  useKey('n', 'Begin an empty desk', () => void beginDesk());
  useKey('d', 'Type what is on your desk', () => navigate('/new'));
  useKey('o', 'Use a template', () => navigate('/new?template'));
  useKey('b', 'Listen to a file on the bench', () => navigate('/bench'));
  useKey('i', 'Import a rig', () => chooser.current?.click());
  const shown = (rigs.data ?? []).filter((r) => r.name.toLowerCase().includes(search.trim().toLowerCase()));
  const demo = rigs.data?.find((r) => r.name.startsWith('Boathouse relay'));
  return (
    <Frame nav={[{ to: '/', label: 'Rigs' }]} more={[{ to: '/bench', label: 'Bench' }]} top={<h1>Rigs</h1>}>
      <main className="frame-page">
        <div className="page">
          <section className="doors" aria-label="Where to begin">
            <div className="door">
              <h2 style={{ marginTop: 0 }}>Listen to a file</h2>
              <p className="quiet">
                Is it late? Where are its claps? How do two files lie to each other? No rig needed.
              </p>
              <p style={{ marginTop: 12 }}>
                <Button variant="solid" onClick={() => navigate('/bench')}>
                  Open the bench <kbd>b</kbd>
                </Button>
              </p>
            </div>
            <div className="door">
              <h2 style={{ marginTop: 0 }}>My desk</h2>
              <p className="quiet">
                What is on it, in under five minutes: from an occasion that is like yours, or typed from source to end.
              </p>
              <p className="row" style={{ marginTop: 12 }}>
                <Button variant="solid" onClick={() => navigate('/new')}>
                  What’s on my desk <kbd>d</kbd>
                </Button>
                <Button onClick={() => navigate('/new?template')}>
                  Template <kbd>o</kbd>
                </Button>
                <Button onClick={() => void beginDesk()}>
                  Begin empty <kbd>n</kbd>
                </Button>
              </p>
            </div>
            {demo && (
              <div className="door">
                <h2 style={{ marginTop: 0 }}>See one go wrong</h2>
                <p className="quiet">
                  Boathouse relay, as its crew left it: couch, desk, a guest at home. Measure its takes, put it right.
                </p>
                <p style={{ marginTop: 12 }}>
                  <Button onClick={() => navigate(`/rigs/${demo.id}/sync`)}>Open Boathouse relay</Button>
                </p>
              </div>
            )}
          </section>
          <div className="spread" style={{ marginTop: 26 }}>
            <h2 style={{ margin: 0 }}>Rigs kept here</h2>
            <span className="row">
              {(rigs.data?.length ?? 0) > 5 && (
                <input
                  aria-label="Search rigs"
                  placeholder="Search"
                  value={search}
                  onChange={(e) => setSearch(e.target.value)}
                />
              )}
              <Button onClick={() => chooser.current?.click()}>
                Import <kbd>i</kbd>
              </Button>
            </span>
          </div>
          <input
            ref={chooser}
            type="file"
            accept=".json,application/json,.zip,application/zip"
            hidden
            aria-label="Rig file"
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = '';
              if (file) void importFile(file);
            }}
          />
          {sent !== null && (
            <p className="row" role="status">
              <progress value={sent} max={1} aria-label="Archive sent" />{' '}
              {sent < 1 ? `${Math.round(100 * sent)} % sent` : 'All sent; it is read and checked.'}
            </p>
          )}
          <div aria-live="polite">
            {notice && (
              <p className="row" style={{ margin: '8px 0' }}>
                <StateMark state={notice.state} /> {notice.says}
                {removed && <Button onClick={() => void undoRemove()}>Undo</Button>}
                <Button variant="plain" onClick={dismiss}>
                  Close
                </Button>
              </p>
            )}
          </div>
          {rigs.isLoading && <p className="quiet">Looking for your rigs…</p>}
          {rigs.isError && !rigs.data && (
            <p className="row">
              <StateMark state="watch" /> {sayProblem(rigs.error)}{' '}
              <Button onClick={() => void rigs.refetch()}>Try again</Button>
            </p>
          )}
          {rigs.data?.length === 0 && (
            <p className="quiet">There is no rig yet. Import one, or listen to a file on the bench.</p>
          )}
          {shown.length > 0 && (
            <table className="table tight" style={{ marginTop: 8 }}>
              <thead>
                <tr>
                  <th>Rig</th>
                  <th>Verdict</th>
                  <th>Rests on</th>
                  <th>Changed</th>
                  <th>
                    <span className="visually-hidden">What to do with it</span>
                  </th>
                </tr>
              </thead>
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
                          ? 'as drawn'
                          : count(rig.measured, 'measurement')}
                      {rig.toDo > 0 ? `, ${rig.toDo} to do` : ''}
                    </td>
                    <td className="quiet">{formatDate(rig.updatedAt)}</td>
                    <td className="number">
                      <span className="row" style={{ justifyContent: 'flex-end' }}>
                        {rig.state === 'unreadable' ? (
                          <>
                            <Button asChild>
                              <a href={documentUrl(rig.id)} download>
                                Download JSON
                              </a>
                            </Button>
                            <Button asChild>
                              <Link to={`/versions/${rig.id}`}>Earlier versions</Link>
                            </Button>
                          </>
                        ) : (
                          <>
                            <Button onClick={() => void duplicate(rig)}>Duplicate</Button>
                            <Button onClick={() => void exportRig(rig)}>Export</Button>
                          </>
                        )}
                        <Button onClick={() => void remove(rig)}>Delete</Button>
                      </span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <Backup />
        </div>
      </main>
    </Frame>
  );
}

function RigVerdict({ rig }: { rig: RigSummary }) {
  if (rig.state === 'pending') return <span className="quiet">checking…</span>;
  if (rig.state === 'too-large')
    return (
      <span className="watch">
        <StateMark state="watch" /> too large to check here
      </span>
    );
  if (rig.state === 'unreadable')
    return (
      <span className="fix">
        <StateMark state="fix" /> can’t be read: {rig.says}
      </span>
    );
  const state = rig.toFix > 0 ? 'fix' : rig.toWatch > 0 ? 'watch' : 'good';
  return (
    <span className={state}>
      <StateMark state={state} />{' '}
      {rig.toFix > 0 ? `${rig.toFix} to fix` : rig.toWatch > 0 ? `${rig.toWatch} to watch` : 'all in time'}
    </span>
  );
}
