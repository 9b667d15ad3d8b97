import { Button, chakra, Field, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { NumberInput, off, Sheet } from '#web/shared/parts/index.ts';
import { common, run as say } from '#words/index.ts';

interface Props {
  /** As the plan has it; null where it was never said. */
  readonly hours: number | null;
  readonly onWhen: (startsAt: Date, hours: number) => void;
  readonly onClose: () => void;
}

const MAX_HOURS = 72;

/** When the session starts and how long it lasts: a calendar has no times that no one gave. */
export function WhenDialog({ hours, onWhen, onClose }: Props) {
  const [start, setStart] = useState('');
  const [length, setLength] = useState<number | undefined>(hours ?? undefined);
  const startsAt = new Date(start);
  const isGiven = !Number.isNaN(startsAt.getTime()) && length !== undefined && length > 0;
  return (
    <Sheet title={say.calendarIcs()} onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (isGiven) onWhen(startsAt, length);
        }}
      >
        <Field.Root>
          <Field.Label>{say.sessionStarts()}</Field.Label>
          <Input autoFocus type="datetime-local" value={start} onChange={(e) => setStart(e.target.value)} />
        </Field.Root>
        <chakra.p className="row" marginTop="8px">
          <span>{say.lastsHours()}</span>
          <NumberInput label={say.lastsHours()} value={length} min={0} max={MAX_HOURS} onValue={setLength} />
        </chakra.p>
        <p className="quiet small">{say.setupAndChecksBefore()}</p>
        <chakra.p className="row" marginTop="12px">
          <Button type="submit" variant="solid" {...off(isGiven ? null : say.giveStartAndLength())}>
            {say.saveCalendar()}
          </Button>
          <Button onClick={onClose}>{common.cancel()}</Button>
        </chakra.p>
      </form>
    </Sheet>
  );
}
