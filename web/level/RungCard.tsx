import { Button } from '@chakra-ui/react';
import { hasUnity, heldTo, sayKnob } from '#core/rig/index.ts';
import { CREST_DB, type Rung, SCALE_UNITS } from '#core/signal/index.ts';
import { FigureRow, formatNumber, formatSigned, NumberInput, Term } from '#web/parts/index.ts';

interface Props {
  readonly rung: Rung;
  readonly index: number;
  readonly count: number;
  readonly held: boolean;
  readonly onSet: (valueDb: number) => void;
  readonly onHold: () => void;
}

/** One step of the ladder: what it does, what stands after it, and where its knob points. */
export function RungCard({ rung, index, count, held, onSet, onHold }: Props) {
  const { setting, levelDb, noiseDb, ceilingDb, snrDb, headroomDb, lostDb, fromBesideDb } = rung;
  const unit = SCALE_UNITS[rung.scale];
  const figure = (label: string, db: number, source: string) => ({
    label,
    value: { low: db, nominal: db, high: db },
    unit,
    kind: 'typical' as const,
    source,
    terms: [],
  });
  return (
    <aside className="card" aria-label="Step">
      <h2 className="tapped">{rung.box}</h2>
      <p>
        {rung.stage}{' '}
        <span className="quiet small">
          step {index + 1} of {count}
        </span>
      </p>
      {setting && (
        <>
          <p className="row" style={{ marginTop: 10 }}>
            <NumberInput
              label={`${rung.box}, ${setting.spec.name}, dB`}
              value={rung.gainDb}
              min={setting.spec.min}
              max={setting.spec.max}
              onValue={(db) => db !== undefined && onSet(heldTo(setting.spec, db))}
            />
            dB, {sayKnob(setting.spec, rung.gainDb)}
          </p>
          <p className="small quiet">
            From {formatNumber(setting.spec.min)} to {formatSigned(setting.spec.max)} dB in steps of{' '}
            {formatNumber(setting.spec.step, 1)}
            {hasUnity(setting.spec) ? '; 0 dB is its unity mark' : ''}. Where a knob points is typical of its kind.
          </p>
          <p style={{ marginTop: 6 }}>
            <Button aria-pressed={held} variant={held ? 'solid' : 'outline'} onClick={onHold}>
              {held ? 'Held as it is' : 'Hold it as it is'}
            </Button>
          </p>
        </>
      )}
      <table className="table tight" style={{ marginTop: 10 }}>
        <tbody>
          <FigureRow
            figure={{
              label: `Level after it, ${unit}`,
              value: levelDb,
              unit,
              kind: 'typical',
              source:
                'The source’s level carried through every gain and conversion up to here; the range is that of the source and of what is known of the boxes.',
              terms: [],
            }}
          />
          <FigureRow
            figure={figure(
              `Usual peaks, ${unit}`,
              levelDb.nominal + CREST_DB.nominal,
              `Peaks of a voice stand ${CREST_DB.low} to ${CREST_DB.high} dB over its average.`,
            )}
          />
          {noiseDb !== null && (
            <FigureRow
              figure={figure(
                `Noise, ${unit}`,
                noiseDb,
                'The noises of all stages up to here, added by power, with all that comes in beside.',
              )}
            />
          )}
          {ceilingDb !== null && (
            <FigureRow
              figure={figure(
                `Ceiling, ${unit}`,
                ceilingDb,
                'Above this the stage clips; in the digital domain it is full scale.',
              )}
            />
          )}
        </tbody>
      </table>
      <p style={{ marginTop: 8 }}>
        {snrDb === null ? (
          'Nothing makes noise up to here.'
        ) : (
          <>
            <Term id="snr">Over the noise</Term>: {formatNumber(snrDb)} dB.
          </>
        )}{' '}
        {headroomDb !== null && (
          <span className={headroomDb < 0 ? 'fix' : ''}>
            <Term id="headroom">Room over the peaks</Term>: {formatNumber(headroomDb)} dB.
          </span>
        )}
      </p>
      {lostDb >= 0.1 && (
        <p className="quiet">
          Here {formatNumber(lostDb, 1)} dB are lost to noise
          {fromBesideDb >= 0.1 ? `, ${formatNumber(fromBesideDb, 1)} of them to what comes in beside` : ''}.
        </p>
      )}
    </aside>
  );
}
