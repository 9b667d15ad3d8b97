import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { scanFigures, undrawnDevices } from '#core/desk-tests/drawn/index.ts';
import type { Explanation } from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { FaultCard } from '#web/shared/faults/index.ts';
import { isUnderWay, useWork, WorkLine } from '#web/shared/jobs/index.ts';
import { LineButton, rich, StateMark, useKey } from '#web/shared/parts/index.ts';
import { applyStep, newId, useAppDispatch } from '#web/shared/store/index.ts';
import { explainScanAt } from '#web/shared/workers/index.ts';
import { scan as say, textOf } from '#words/index.ts';
import { DeviceTable } from './DeviceTable.tsx';
import type { ScanMade } from './engine.ts';
import { sayDifference, sayWay } from './say.ts';
import type { Drawing } from './useDrawing.ts';

interface Props {
  readonly rigId: string;
  readonly rig: Rig;
  readonly made: ScanMade;
  readonly drawing: Drawing;
  readonly onChoose: (at: { outputId: string; inputId: string }) => void;
}

/** What of the scan the drawing hasn't, and what of the drawing the scan didn't find; and what to do about either. */
export function AgainstDrawing({ rigId, rig, made, drawing, onChoose }: Props) {
  const { held, differing } = drawing;
  const asDrawn = held.paths.filter((p) => p.cell.read?.heard && p.differences.length === 0).length;
  return (
    <section aria-label={say.againstDrawing()}>
      <h2>
        {differing.length > 0
          ? say.differ({ paths: differing.length })
          : asDrawn > 0
            ? say.allAsDrawn({ paths: asDrawn })
            : say.nothingToHold()}
      </h2>
      {differing.length > 0 && (
        <>
          <ul className="plain-list">
            {differing.flatMap((path) =>
              path.differences.map((difference) => {
                const says = sayDifference(held.rig, path.cell, difference);
                return (
                  <li key={says}>
                    <LineButton onClick={() => onChoose(path)}>
                      <StateMark state="fix" /> {says}
                    </LineButton>
                  </li>
                );
              }),
            )}
          </ul>
          <Explanations key={made.at} rigId={rigId} rig={rig} made={made} drawing={drawing} />
        </>
      )}
      <Undrawn rig={rig} made={made} drawing={drawing} />
      <Figures rig={rig} made={made} drawing={drawing} />
      <DeviceTable rig={rig} made={made} drawing={drawing} />
    </section>
  );
}

type PartProps = Pick<Props, 'rig' | 'made' | 'drawing'>;

/** Which one thing would make the drawing agree: every fault and every link that isn't drawn, tried in a worker. */
function Explanations({ rigId, rig, made, drawing }: PartProps & { readonly rigId: string }) {
  const dispatch = useAppDispatch();
  const [last, setLast] = useState<{ readonly of: Drawing['held']; readonly found: readonly Explanation[] } | null>(
    null,
  );
  const { task, run, drop } = useWork();
  const { held, bindings } = drawing;
  const found = last?.of === held ? last.found : null;
  const begin = async () => {
    const explained = await run({
      name: say.tryingFaults(),
      start: (done) => explainScanAt(rig, made, bindings, done),
    });
    if (explained) setLast({ of: held, found: explained });
  };
  useKey('f', say.findCauseKey(), () => void begin(), !isUnderWay(task) && !found);
  return (
    <>
      {!isUnderWay(task) && !found && (
        <p className="row">
          <Button variant="solid" onClick={() => void begin()}>
            {rich(say.findCause, {})}
          </Button>
          <span className="quiet small">{say.triesAll()}</span>
        </p>
      )}
      <WorkLine task={task} name={say.tryingFaults()} onStop={drop} />
      {found?.length === 0 && (
        <p>
          <StateMark state="watch" /> {rich(say.noCause, {}, `/rigs/${rigId}/wire`)}
        </p>
      )}
      {found && found.length > 0 && (
        <ol className="tap-explains">
          {found.map((explanation) => {
            const [fault] = explanation.faults;
            const { edit, says } = fault!;
            return (
              <FaultCard
                key={fault!.id}
                rigId={rigId}
                explanation={explanation}
                sayAt={(at) => sayDifference(held.rig, at, at.disagreement)}
              >
                {edit && (
                  <Button
                    size="sm"
                    onClick={() => dispatch(applyStep(edit, say.drawingUpdated({ says: textOf(says) })))}
                  >
                    {say.updateDrawing()}
                  </Button>
                )}
                <span className="quiet small">{say.orScanAgain()}</span>
              </FaultCard>
            );
          })}
        </ol>
      )}
    </>
  );
}

/** Devices that the browser lists and the drawing hasn't. */
function Undrawn({ rig, made, drawing: { computerId, bindings } }: PartProps) {
  const dispatch = useAppDispatch();
  const undrawn = useMemo(() => undrawnDevices(rig, computerId, made, bindings), [rig, computerId, made, bindings]);
  if (!undrawn) return null;
  const { names, edit } = undrawn;
  return (
    <chakra.div className="row" marginTop="8px">
      <StateMark state="watch" />
      <span>{say.notInDrawing({ names: names.join(', '), devices: names.length })}</span>
      <Button size="sm" onClick={() => dispatch(applyStep(edit, say.devicesAdded({ devices: names.length })))}>
        {say.addDevices({ devices: names.length })}
      </Button>
    </chakra.div>
  );
}

/** Figures that the scan measured, each taken in after a look. */
function Figures({ rig, made, drawing: { held } }: PartProps) {
  const dispatch = useAppDispatch();
  const figures = useMemo(() => scanFigures(rig, made, held, newId), [rig, made, held]);
  if (figures.length === 0) return null;
  return (
    <section aria-label={say.figures()}>
      <chakra.h2 marginTop="12px">{say.figures()}</chakra.h2>
      <ul className="plain-list tap-figures">
        {figures.map(({ id, says, spread, edit }) => (
          <li key={id} className="row">
            <Button
              size="xs"
              aria-label={say.takeFigureOf({ says: textOf(says) })}
              onClick={() => dispatch(applyStep(edit, say.figureTaken({ says: textOf(says) })))}
            >
              {say.takeFigure()}
            </Button>
            <span>
              {textOf(says)} <span className="quiet fact">{say.measured({ spread: textOf(spread) })}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The drawn way of a path, for its card. */
export function AsDrawn({ drawing, at }: { drawing: Drawing; at: Drawing['held']['paths'][number] }) {
  const says = at.differences.map((d) => sayDifference(drawing.held.rig, at.cell, d));
  return (
    <chakra.div marginTop="8px">
      {says.map((s) => (
        <p key={s}>
          <StateMark state="fix" /> {s}
        </p>
      ))}
      {says.length === 0 && (
        <p>
          <StateMark state="good" /> {say.isAsDrawn()}
        </p>
      )}
      {at.cell.expected.ways[0] && <p className="small quiet">{sayWay(drawing.held.rig, at.cell.expected.ways[0])}</p>}
    </chakra.div>
  );
}
