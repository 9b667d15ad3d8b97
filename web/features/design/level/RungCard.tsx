import { Button, chakra } from '@chakra-ui/react';
import { hasUnity, heldTo, sayKnob } from '#core/model/rig/index.ts';
import { CREST_DB, type Rung, SCALE_UNITS } from '#core/signal/index.ts';
import { FigureRow, formatNumber, formatSigned, NumberInput, rich, Table } from '#web/shared/parts/index.ts';
import { level as say, textOf } from '#words/index.ts';

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
    <aside className="card" aria-label={say.stage()}>
      <h2 className="tapped">{textOf(rung.box)}</h2>
      <p>
        {textOf(rung.stage)} <span className="quiet small">{say.stageWith({ n1: index + 1, count })}</span>
      </p>
      {setting && (
        <>
          <chakra.p className="row" marginTop="10px">
            <NumberInput
              label={say.stageLevel({ box: textOf(rung.box), spec: setting.spec.name })}
              value={rung.gainDb}
              min={setting.spec.min}
              max={setting.spec.max}
              onValue={(db) => db !== undefined && onSet(heldTo(setting.spec, db))}
            />
            {say.db({ gainDb: textOf(sayKnob(setting.spec, rung.gainDb)) })}
          </chakra.p>
          <p className="small quiet">
            {say.knobRange({
              min: formatNumber(setting.spec.min),
              max: formatSigned(setting.spec.max),
              step: formatNumber(setting.spec.step, 1),
              mark: hasUnity(setting.spec) ? say.dbIsItsUnity() : '',
            })}
          </p>
          <chakra.p marginTop="6px">
            <Button aria-pressed={held} variant={held ? 'solid' : 'outline'} onClick={onHold}>
              {held ? say.locked() : say.lock()}
            </Button>
          </chakra.p>
        </>
      )}
      <Table tight marginTop="10px">
        <tbody>
          <FigureRow
            figure={{
              label: say.levelAfterIt({ unit }),
              value: levelDb,
              unit,
              kind: 'typical',
              source: say.sourcesLevelCarriedThrough(),
              terms: [],
            }}
          />
          <FigureRow
            figure={figure(
              say.typicalPeaks({ unit }),
              levelDb.nominal + CREST_DB.nominal,
              say.peaksVoiceAreTo({ low: CREST_DB.low, high: CREST_DB.high }),
            )}
          />
          {noiseDb !== null && <FigureRow figure={figure(say.noiseFloor({ unit }), noiseDb, say.noiseAllStagesUp())} />}
          {ceilingDb !== null && (
            <FigureRow figure={figure(say.clipPoint({ unit }), ceilingDb, say.aboveThisStageClips())} />
          )}
        </tbody>
      </Table>
      <chakra.p marginTop="8px">
        {snrDb === null ? say.noNoiseUpTo() : rich(say.snrHere, { snrDb: formatNumber(snrDb) })}{' '}
        {headroomDb !== null && (
          <span className={headroomDb < 0 ? 'fix' : ''}>
            {rich(say.headroomDb, { headroomDb: formatNumber(headroomDb) })}
          </span>
        )}
      </chakra.p>
      {lostDb >= 0.1 && (
        <p className="quiet">
          {say.lostHere({
            lostDb: formatNumber(lostDb, 1),
            beside: fromBesideDb >= 0.1 ? say.itToOtherInputs({ fromBesideDb: formatNumber(fromBesideDb, 1) }) : '',
          })}
        </p>
      )}
    </aside>
  );
}
