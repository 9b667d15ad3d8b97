import { Button, chakra, Input } from '@chakra-ui/react';
import { memo, useState } from 'react';
import { clockOf, knobDb, readingsOf, readLevel } from '#core/model/units/index.ts';
import { formatNumber, formatSigned, Sheet, Table, useKey } from '#web/shared/parts/index.ts';
import { frame, frame as say, textOf } from '#words/index.ts';

/** One level in every scale: typed with its unit, converted by the rig's own reference. */
export const Scales = memo(function Scales({ fullScaleDbu }: { fullScaleDbu: number }) {
  const [open, setOpen] = useState(false);
  useKey('u', frame.levelConverter(), () => setOpen(true), !open);
  return (
    <>
      <Button onClick={() => setOpen(true)} title={frame.levelConverter()}>
        {frame.converter()} <kbd>u</kbd>
      </Button>
      {open && (
        <Sheet title={frame.levelConverter()} onClose={() => setOpen(false)}>
          <Converter fullScaleDbu={fullScaleDbu} />
        </Sheet>
      )}
    </>
  );
});

function Converter({ fullScaleDbu }: { fullScaleDbu: number }) {
  const [text, setText] = useState('+4 dBu');
  const typed = readLevel(text);
  return (
    <>
      <Input
        autoFocus
        aria-label={frame.levelWithUnit()}
        aria-invalid={typed === null}
        width="200px"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <chakra.p className="small quiet" marginTop="4px">
        {frame.levelExamples()}
      </chakra.p>
      <div aria-live="polite">
        {typed === null && <chakra.p marginTop="10px">{frame.levelUnread()}</chakra.p>}
        {typed?.kind === 'level' && (
          <Table tight aria-label={frame.inEveryScale()} marginTop="10px">
            <tbody>
              {readingsOf(typed, { fullScaleDbu }).map(({ unit, value, note }) => (
                <tr key={unit}>
                  <td className="number">
                    {unit === 'V' || unit === '%' ? formatNumber(value, value < 10 ? 3 : 1) : formatSigned(value, 1)}
                  </td>
                  <td>{unit}</td>
                  <td className="small quiet">{textOf(note)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
        {typed?.kind === 'knob' && <Knob travel={typed.travel} />}
      </div>
    </>
  );
}

function Knob({ travel }: { travel: number }) {
  const start = say.atTravel({ travel: clockOf(travel), travel2: formatNumber(100 * travel) });
  if (travel === 0) return <chakra.p marginTop="10px">{say.fullyDown({ start })}</chakra.p>;
  const [low, nominal, high] = knobDb(travel);
  return (
    <chakra.p marginTop="10px">
      {say.withTaper({ start, nominal: formatNumber(nominal) })}{' '}
      <span className="quiet">{say.typicalRange({ low: formatNumber(low), high: formatNumber(high) })}</span>.
    </chakra.p>
  );
}
