import { Button, chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { type LevelCause, levelEdit, reconcileLevel } from '#core/desk-tests/reconcile/index.ts';
import { levelOf, type TapCell } from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { formatNumber, sayCause } from '#web/shared/parts/index.ts';
import { applyStep, newId, useAppDispatch } from '#web/shared/store/index.ts';
import { tapTest as say } from '#words/index.ts';

interface Props {
  readonly rig: Rig;
  readonly cell: TapCell;
  readonly takenAt: string;
}

/** Which knob would have its level as it was read; setting it draws it so, as measured. */
export function Level({ rig, cell, takenAt }: Props) {
  const dispatch = useAppDispatch();
  const reading = useMemo(() => levelOf(rig, cell, { takenAt, newId }), [rig, cell, takenAt]);
  const read = useMemo(() => reading && reconcileLevel(rig, reading), [rig, reading]);
  const knobs = read?.ok ? read.causes.filter((c) => c.kind === 'knob') : [];
  if (!reading || knobs.length === 0) return null;
  const takeIn = (cause: LevelCause) => {
    const made = levelEdit(rig, reading, cause);
    if (made.ok) dispatch(applyStep(made.edit, say.levelMeasuredBy({ reading: reading.label })));
  };
  const off = cell.levelOffDb!;
  return (
    <>
      <p>{say.itIsDbThan({ off: formatNumber(Math.abs(off), 1), quieter: off > 0 ? say.louder() : say.quieter() })}</p>
      <ul className="plain-list" aria-label={say.possibleCauses()}>
        {knobs.map((cause) => (
          <chakra.li key={cause.kind === 'knob' ? cause.where : ''} className="row" marginTop="4px">
            <Button size="xs" onClick={() => takeIn(cause)}>
              {say.thatsCause()}
            </Button>
            <span>{sayCause(cause, '')}</span>
          </chakra.li>
        ))}
      </ul>
    </>
  );
}
