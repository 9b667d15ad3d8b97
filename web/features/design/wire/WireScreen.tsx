import { Button, chakra } from '@chakra-ui/react';
import { useDeferredValue, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { findPort, findTypes, type PortRef, portAt, portKey, type Rig } from '#core/model/rig/index.ts';
import type { Finding } from '#core/rules/index.ts';
import { type Evaluation, evaluationAt } from '#core/signal/index.ts';
import { MomentNote } from '#web/shared/moment/index.ts';
import { off, Page, rich, useKey, useSteady } from '#web/shared/parts/index.ts';
import {
  type Scene,
  sceneOf,
  selectMomentId,
  useAppSelector,
  useSettledRig,
  wireFindingsOf,
} from '#web/shared/store/index.ts';
import { wire as say } from '#words/index.ts';
import { LinksInside } from './Connections.tsx';
import { AddDialog } from './DeviceDialogs.tsx';
import { FindingCard } from './FindingCard.tsx';
import { useFixFinder } from './fixes.ts';
import { IssueDrawer } from './IssueDrawer.tsx';
import { LeadTable } from './LeadTable.tsx';
import { ManyDialog } from './ManyDialog.tsx';
import { LineMapView } from './map/index.ts';
import { NamedDialog } from './NamedDialog.tsx';
import { Papers } from './Papers.tsx';
import { PlugDialog } from './PlugDialog.tsx';
import { leadRows } from './rows.ts';
import { TapCard } from './TapCard.tsx';

/**
 * Wire: what is wrong or doubtful, and every cable with what to take for it. All of it follows an edit: what was made is
 * said in the frame first, and keys don't wait for the map.
 */
export function WireScreen() {
  const rig = useSettledRig();
  const momentId = useAppSelector(selectMomentId);
  const scene = useMemo(() => rig && sceneOf(rig, momentId), [rig, momentId]);
  return rig && scene ? (
    <Wire rig={rig} evaluation={evaluationAt(rig, null)} scene={scene} findings={wireFindingsOf(rig)} />
  ) : null;
}

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  /** The rig in the selected moment: shown by the map and the tap point. */
  readonly scene: Scene;
  readonly findings: readonly Finding[];
}

function Wire({ rig, evaluation, scene, findings }: Props) {
  const [params, setParams] = useSearchParams();
  // The address follows the tap, later than keys come: what counts is held here.
  const [place, setPlace] = useState(params.get('tap'));
  const tap = useMemo(() => parseTap(rig, place), [rig, place]);
  const put = (at: PortRef | null) => {
    const text = at && portKey(at.deviceId, at.portId);
    setPlace(text);
    setParams(
      (all) => {
        if (text) all.set('tap', text);
        else all.delete('tap');
        return all;
      },
      { replace: true },
    );
  };
  const chosen = findings.find((f) => f.id === params.get('finding')) ?? findings[0];
  const [isCardOpen, setCardOpen] = useState(true);
  const askFixes = useFixFinder();
  const choose = (finding: Finding | undefined) => {
    if (!finding) return;
    setCardOpen(true);
    setPlace(null);
    setParams(
      (all) => {
        all.set('finding', finding.id);
        all.delete('tap');
        return all;
      },
      { replace: true },
    );
  };
  const chooseRow = useSteady(choose);
  const move = (by: number) => {
    const at = chosen ? findings.indexOf(chosen) : 0;
    choose(findings[(at + by + findings.length) % findings.length]);
  };
  useKey('j', say.nextIssue(), () => move(1));
  useKey('k', say.previousIssue(), () => move(-1));
  const [dialog, setDialog] = useState<'plug' | 'add' | 'many' | 'named' | null>(null);
  useKey('p', say.connect(), () => setDialog('plug'), dialog === null && rig.devices.length > 1);
  useKey('a', say.addDevice(), () => setDialog('add'), dialog === null);
  useKey('shift+a', say.addSeveralWithCounts(), () => setDialog('many'), dialog === null);
  useKey(
    'q',
    say.nextQuestion(),
    () => choose(nextAsked(findings, chosen)),
    findings.some((f) => f.asks && !f.dismissed),
  );
  useKey('escape', say.clearTapPoint(), () => put(null), tap !== null);
  useKey('escape', say.closePanel(), () => setCardOpen(false), tap === null && isCardOpen && dialog === null);
  const putSteady = useSteady(put);
  // Tables and papers are read after the map, not while one makes it.
  const drawn = useMemo(() => ({ rig, evaluation }), [rig, evaluation]);
  const onPaper = useDeferredValue(drawn);
  const rows = useMemo(() => leadRows(onPaper.rig, onPaper.evaluation, findings), [onPaper, findings]);
  return (
    <Page
      title={say.signalMapTitle()}
      actions={
        <span className="row">
          <Button
            variant="solid"
            onClick={() => setDialog('plug')}
            {...off(rig.devices.length < 2 ? say.twoDevicesFirst() : null)}
          >
            {rich(say.connectP, {})}
          </Button>
          <Button onClick={() => setDialog('add')}>{rich(say.addDeviceKeyed, {})}</Button>
        </span>
      }
      card={
        tap ? (
          <TapCard
            rig={scene.rig}
            plain={rig}
            evaluation={scene.evaluation}
            tap={tap}
            findings={findings}
            onFinding={choose}
            onClose={() => put(null)}
          />
        ) : (
          chosen &&
          isCardOpen && (
            <FindingCard
              key={chosen.id}
              rig={rig}
              finding={chosen}
              askFixes={askFixes}
              onAnswered={() => choose(nextAsked(findings, chosen) ?? chosen)}
              onClose={() => setCardOpen(false)}
            />
          )
        )
      }
    >
      <MomentNote edits="into-all" />
      {dialog === 'plug' && <PlugDialog rig={rig} findings={findings} from={tap} onClose={() => setDialog(null)} />}
      {dialog === 'add' && (
        <AddDialog
          rig={rig}
          onClose={() => setDialog(null)}
          onAdded={() => setDialog(null)}
          onOther={(way) => setDialog(way)}
        />
      )}
      {dialog === 'many' && <ManyDialog rig={rig} onClose={() => setDialog(null)} />}
      {dialog === 'named' && <NamedDialog rig={rig} onClose={() => setDialog(null)} />}
      {rig.devices.length === 0 && <chakra.p marginTop="12px">{rich(say.noDevicesYetPress, {})}</chakra.p>}
      {rig.devices.length > 0 && (
        <LineMapView
          rig={scene.rig}
          evaluation={scene.evaluation}
          findings={findings}
          chosen={tap ? undefined : chosen}
          isAsked={params.has('finding')}
          tap={tap}
          onTap={putSteady}
          onFinding={chooseRow}
        />
      )}
      <LeadTable rig={onPaper.rig} rows={rows} chosen={chosen?.where.cableIds ?? NONE} />
      <LinksInside rig={onPaper.rig} />
      <Papers {...onPaper} />
      <IssueDrawer findings={findings} chosen={tap ? undefined : chosen} onChoose={chooseRow} onMove={move} />
    </Page>
  );
}

const NONE: readonly string[] = [];

/** The question after a finding in the list, round and round; the finding itself is not meant. */
function nextAsked(findings: readonly Finding[], after: Finding | undefined): Finding | undefined {
  const at = after ? findings.findIndex((f) => f.id === after.id) : -1;
  return [...findings.slice(at + 1), ...findings.slice(0, Math.max(0, at))].find((f) => f.asks && !f.dismissed);
}

/** 'mixer.main-out' as a place of the rig; null where there is none such (any more). */
function parseTap(rig: Rig, text: string | null): PortRef | null {
  const { deviceId, portId } = portAt(text ?? '');
  const ref = deviceId && portId ? { deviceId, portId } : null;
  return ref && findPort(rig, findTypes(rig), ref) ? ref : null;
}
