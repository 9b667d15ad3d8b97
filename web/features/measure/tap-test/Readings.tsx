import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import {
  apartOf,
  expectedOf,
  type Judged,
  judge,
  type TapCell,
  type TunePicture,
} from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { LineButton, rich, StateMark } from '#web/shared/parts/index.ts';
import { tapTest as say } from '#words/index.ts';
import { DrillOver } from './DrillOver.tsx';
import { Explain } from './Explain.tsx';
import { Figures } from './Figures.tsx';
import { Reading } from './Reading.tsx';
import { type At, ReadTable } from './ReadTable.tsx';
import { apartLines } from './sentences.ts';
import type { Tap } from './useTap.ts';
import { verdictOf } from './words.ts';

interface Props {
  readonly rigId: string;
  readonly rig: Rig;
  readonly tap: Tap;
  readonly onTakes: () => void;
}

/** Readings of the takes against the drawing and the plan: disagreements first. */
export function Readings({ rigId, rig, tap, onTakes }: Props) {
  const judged = useMemo((): Judged => {
    const listenerIds = tap.read.map((t) => t.listenerId);
    return judge(rig, expectedOf(rig, evaluate(rig), listenerIds), tap.read, tap.players);
  }, [rig, tap.read, tap.players]);
  const apart = useMemo(() => judged.cells.filter(isApart).sort((a, b) => weightOf(b) - weightOf(a)), [judged]);
  const [chosen, setChosen] = useState<At | null>(null);
  if (tap.read.length === 0)
    return (
      <p>
        {say.noTakesYetOr()}{' '}
        <Button size="xs" onClick={onTakes}>
          {say.goToTakes()}
        </Button>
      </p>
    );
  const first = apart[0] ?? judged.cells[0]!;
  const at = chosen ?? { sourceId: first.sourceId, listenerId: first.listenerId };
  const cell = judged.cells.find((c) => c.sourceId === at.sourceId && c.listenerId === at.listenerId);
  const untaken = rig.listeners.filter((l) => !tap.read.some((t) => t.listenerId === l.id));
  return (
    <>
      <DrillOver rig={rig} tap={tap} />
      <Apart rigId={rigId} rig={rig} apart={apart} at={at} onAt={setChosen} all={judged.cells.length} />
      {judged.apart > 0 && <Explain rigId={rigId} rig={rig} tap={tap} judged={judged} onAgain={onTakes} />}
      <h2>{say.whoGetsWhatAs()}</h2>
      <p className="quiet small">
        {say.cellLegend({
          join:
            untaken.length > 0 ? ` ${say.noTakeYetOf({ destinations: untaken.map((l) => l.name).join(', ') })}` : '',
        })}
      </p>
      <ReadTable rig={rig} cells={judged.cells} at={at} onAt={setChosen} />
      {cell && (
        <Reading
          key={`${at.sourceId} ${at.listenerId}`}
          rig={rig}
          cell={cell}
          picture={pictureAt(tap, cell)}
          takenAt={tap.takes.find((t) => t.listenerId === cell.listenerId)!.at}
          lacking={judged.lacking}
        />
      )}
      <Figures rig={rig} tap={tap} judged={judged} />
    </>
  );
}

const isApart = (c: TapCell): boolean =>
  c.disagreements.length > 0 || c.toPlan === 'lacking' || c.toPlan === 'unwanted';
/** What is against the plan alone comes after what the drawing does not know. */
const weightOf = (c: TapCell): number => apartOf(c) || 0.5;

function pictureAt(tap: Tap, { sourceId, listenerId }: At): TunePicture | null {
  const tune = tap.players.find((p) => p.sourceId === sourceId)?.tune;
  return tap.takes.find((t) => t.listenerId === listenerId)?.pictures.find((p) => p.tune === tune) ?? null;
}

interface ApartProps {
  readonly rigId: string;
  readonly rig: Rig;
  readonly apart: readonly TapCell[];
  readonly at: At;
  readonly all: number;
  readonly onAt: (at: At) => void;
}

const SHOWN = 8;

function Apart({ rigId, rig, apart, at, all, onAt }: ApartProps) {
  const [more, setMore] = useState(false);
  if (apart.length === 0)
    return (
      <p role="status" className="good">
        <StateMark state="good" /> {say.readingIsAsDrawn({ reading: all })}
      </p>
    );
  const lines = apartLines(rig, apart);
  const shown = more ? lines : lines.slice(0, SHOWN);
  return (
    <section aria-label={say.whatDoesntMatch()}>
      <h2>{say.whatDoesntMatch()}</h2>
      <ul className="plain-list tap-apart">
        {shown.map(({ cell, says }) => {
          const isChosen = cell.sourceId === at.sourceId && cell.listenerId === at.listenerId;
          return (
            <li key={says}>
              <LineButton aria-current={isChosen || undefined} onClick={() => onAt(cell)}>
                <StateMark state={verdictOf(cell).state} /> {says}
              </LineButton>
            </li>
          );
        })}
      </ul>
      {apart.some((c) => c.disagreements.length === 0) && (
        <p className="quiet small">{rich(say.ifSignalIsAs, {}, `/rigs/${rigId}/route`)}</p>
      )}
      {lines.length > SHOWN && (
        <Button size="xs" onClick={() => setMore(!more)}>
          {more ? say.showOnlyWorst() : say.more({ SHOWN: lines.length - SHOWN })}
        </Button>
      )}
    </section>
  );
}
