import { Button, Input } from '@chakra-ui/react';
import { memo, useState } from 'react';
import { clockOf, knobDb, readingsOf, readLevel } from '#core/units/index.ts';
import { formatNumber, formatSigned, Sheet, useKey } from '#web/parts/index.ts';

/** One level in every scale, always at hand: typed with its unit, told by the rig's own reference. */
export const Scales = memo(function Scales({ fullScaleDbu }: { fullScaleDbu: number }) {
  const [open, setOpen] = useState(false);
  useKey('u', 'Scales: one level in all of them', () => setOpen(true), !open);
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        Scales <kbd>u</kbd>
      </Button>
      {open && (
        <Sheet title="One level in every scale" onClose={() => setOpen(false)}>
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
        aria-label="A level with its unit"
        aria-invalid={typed === null}
        width="200px"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <p className="small quiet" style={{ marginTop: 4 }}>
        +4 dBu, 0 VU, −18 dBFS, −23 LUFS, 1.2 V, 50 %, or one o’clock.
      </p>
      <div aria-live="polite">
        {typed === null && <p style={{ marginTop: 10 }}>A number and a unit, or where a knob points.</p>}
        {typed?.kind === 'level' && (
          <table className="table tight" aria-label="In every scale" style={{ marginTop: 10 }}>
            <tbody>
              {readingsOf(typed, { fullScaleDbu }).map(({ unit, value, note }) => (
                <tr key={unit}>
                  <td className="number">
                    {unit === 'V' || unit === '%' ? formatNumber(value, value < 10 ? 3 : 1) : formatSigned(value, 1)}
                  </td>
                  <td>{unit}</td>
                  <td className="small quiet">{note}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {typed?.kind === 'knob' && <Knob travel={typed.travel} />}
      </div>
    </>
  );
}

function Knob({ travel }: { travel: number }) {
  const start = `${clockOf(travel)}: ${formatNumber(100 * travel)} % of its travel`;
  if (travel === 0) return <p style={{ marginTop: 10 }}>{start}, all the way down.</p>;
  const [low, nominal, high] = knobDb(travel);
  return (
    <p style={{ marginTop: 10 }}>
      {start}; with an audio taper {formatNumber(nominal)} dB from its maximum{' '}
      <span className="quiet">
        (typical, {formatNumber(low)} to {formatNumber(high)} dB)
      </span>
      .
    </p>
  );
}
