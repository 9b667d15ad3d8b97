import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { compareScans, FIRST_DBFS, LIMITS_DBFS, USUAL_LIMIT_DBFS } from '#core/desk-tests/scan/index.ts';
import { gateOf } from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { Gate } from '#web/shared/gate/index.ts';
import { Choice, formatDate, off, Page, Progress, rich, StateMark, useKey } from '#web/shared/parts/index.ts';
import { selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { canScan } from '#web/shared/workers/index.ts';
import { scan as say } from '#words/index.ts';
import { AgainstDrawing, AsDrawn } from './AgainstDrawing.tsx';
import type { ScanProgress } from './engine.ts';
import { Matrix } from './Matrix.tsx';
import { PathCard } from './PathCard.tsx';
import { sayChange, sayDbfs } from './say.ts';
import { pathAt, useDrawing } from './useDrawing.ts';
import { type ScanState, useScan } from './useScan.ts';

/** Scan of this computer: every output plays, every input listens, and the matrix shows what arrives where. */
export function ScanScreen() {
  const rig = useAppSelector(selectRig);
  const { rigId } = useParams();
  return rig && rigId ? <ScanPage key={rigId} rigId={rigId} rig={rig} /> : null;
}

function ScanPage({ rigId, rig }: { rigId: string; rig: Rig }) {
  const scan = useScan(rigId);
  const [limitDbfs, setLimit] = useState<number>(USUAL_LIMIT_DBFS);
  const [answers, setAnswers] = useState<Readonly<Record<string, boolean>>>({});
  const [at, setAt] = useState<{ outputId: string; inputId: string } | null>(null);
  const questions = useMemo(() => gateOf(rig), [rig]);
  const isOpen = questions.every((q) => answers[q.id]);
  const { made, progress } = scan;
  const able = canScan();
  const links = made?.links ?? [];
  const drawing = useDrawing(rigId, rig, made);
  const drawn = at ? pathAt(drawing, at) : undefined;
  const chosen = links.find((l) => l.outputId === at?.outputId && l.inputId === at.inputId);
  const toggle = () => (progress ? scan.stop() : void scan.start(limitDbfs));
  const move = (by: number) => {
    const next = links[((chosen ? links.indexOf(chosen) : by > 0 ? -1 : 0) + by + links.length) % links.length];
    if (next) setAt({ outputId: next.outputId, inputId: next.inputId });
  };
  useKey('s', say.startOrStopKey(), toggle, able && (progress !== null || isOpen));
  useKey('escape', say.startOrStopKey(), scan.stop, progress !== null);
  useKey('j', say.nextPathKey(), () => move(1), links.length > 0);
  useKey('k', say.previousPathKey(), () => move(-1), links.length > 0);
  const mayRefer = made !== null && !made.hasLost && !scan.isReference && !progress;
  useKey('e', say.keepAsReferenceKey(), scan.useAsReference, mayRefer);
  const nameOf = (id: string) =>
    [...(made?.outputs ?? []), ...(made?.inputs ?? [])].find((d) => d.id === id)?.name ?? '';
  return (
    <Page
      title={say.title()}
      actions={
        able && (
          <span className="row">
            <Choice
              label={say.limit()}
              value={`${limitDbfs}`}
              options={LIMITS_DBFS.map((db) => [`${db}`, say.limitDbfs({ db: sayDbfs(db) })] as const)}
              onChange={(db) => setLimit(Number(db))}
              {...(progress ? { disabled: say.stopFirst() } : {})}
            />
            <Button variant="solid" onClick={toggle} {...off(isOpen || progress ? null : say.confirmFirst())}>
              {rich(progress ? say.stop : made ? say.again : say.start, {})}
            </Button>
          </span>
        )
      }
      card={
        made &&
        chosen && (
          <PathCard
            link={chosen}
            from={nameOf(chosen.outputId)}
            to={nameOf(chosen.inputId)}
            fastestMs={Math.min(...links.map((l) => l.delayMs))}
            onClose={() => setAt(null)}
          >
            {drawing && drawn && <AsDrawn drawing={drawing} at={drawn} />}
          </PathCard>
        )
      }
    >
      <chakra.p className="quiet" marginTop="8px">
        {say.explains()}
      </chakra.p>
      {!able && <p className="watch">{rich(say.cantChooseOutputs, {}, `/rigs/${rigId}/tap`)}</p>}
      {able && !made && !progress && (
        <>
          <p className="quiet">{say.startsInaudible({ from: sayDbfs(FIRST_DBFS) })}</p>
          <p className="quiet">{say.asksForMicrophones()}</p>
          <Gate
            questions={questions}
            answers={answers}
            onAnswer={(id, isSo) => setAnswers((all) => ({ ...all, [id]: isSo }))}
          />
        </>
      )}
      {progress && <Under progress={progress} />}
      {scan.failed && (
        <p className="fix" role="alert">
          {scan.failed}
        </p>
      )}
      {made && (
        <>
          <Changes scan={scan} mayRefer={mayRefer} />
          <Matrix
            scan={made}
            changed={changedPairs(scan)}
            drawing={drawing}
            chosen={chosen}
            onChoose={({ outputId, inputId }) => setAt({ outputId, inputId })}
          />
          {links.length === 0 && !made.hasLost && <p className="watch">{say.nothingArrives()}</p>}
          {drawing && <AgainstDrawing rigId={rigId} rig={rig} made={made} drawing={drawing} onChoose={setAt} />}
          {made.hasLost && <p className="watch">{say.soundWasLost()}</p>}
          {made.skipped.map(({ name, why }) => (
            <p key={name} className="watch">
              {say.leftOut({ name, why })}
            </p>
          ))}
          <chakra.p className="small quiet" marginTop="8px">
            {say.scanned({
              at: formatDate(made.at),
              outputs: made.outputs.length,
              inputs: made.inputs.length,
              links: made.links.length,
              db: sayDbfs(Math.max(...made.outputs.map((o) => o.playedDbfs))),
            })}
          </chakra.p>
        </>
      )}
      <chakra.p className="small quiet" marginTop="12px">
        {say.hearsOnlyBrowser()}
      </chakra.p>
    </Page>
  );
}

function Under({ progress: { playing, share } }: { progress: ScanProgress }) {
  const says = playing
    ? say.playing({ name: playing.name, db: sayDbfs(playing.levelDbfs) })
    : share > 0
      ? say.reading()
      : say.opening();
  return (
    <chakra.div className="row" role="status" marginTop="12px">
      <Progress label={says} value={share} width="240px" />
      <span>{says}</span>
    </chakra.div>
  );
}

/** What moved since the reference, and the way to make this one the reference. */
function Changes({ scan, mayRefer }: { scan: ScanState; mayRefer: boolean }) {
  const { made, reference } = scan;
  const changes = useMemo(() => (made && reference ? compareScans(reference, made) : []), [made, reference]);
  // What was lost is no change.
  if (!made || !reference || made.hasLost) return null;
  if (scan.isReference) return <p className="quiet">{say.isReference()}</p>;
  const at = formatDate(reference.at);
  return (
    <section aria-live="polite" data-testid="scan-changes">
      {changes.length === 0 ? (
        <p className="good">
          <StateMark state="good" /> {say.sameAs({ at })}
        </p>
      ) : (
        <>
          <h2>{say.changed({ changes: changes.length, at })}</h2>
          <ul>
            {changes.map((change) => {
              const says = sayChange(change);
              return (
                <li key={says}>
                  <StateMark state="fix" /> {says}
                </li>
              );
            })}
          </ul>
        </>
      )}
      {mayRefer && (
        <chakra.p marginTop="6px">
          <Button onClick={scan.useAsReference}>
            {say.keepAsReference()} <kbd>e</kbd>
          </Button>
        </chakra.p>
      )}
    </section>
  );
}

/** Pairs between which something changed, by their names. */
function changedPairs({ made, reference }: ScanState): ReadonlySet<string> {
  const changes = made && reference && !made.hasLost ? compareScans(reference, made) : [];
  return new Set(changes.flatMap((c) => ('from' in c ? [`${c.from}>${c.to}`] : [])));
}
