import { Button, chakra } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import { endName, findDevice, findTypes, type PortRef, type Rig } from '#core/model/rig/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import type { Finding } from '#core/rules/index.ts';
import { deviceName, type Evaluation, readPath, SCALE_UNITS } from '#core/signal/index.ts';
import { ListenButton } from '#web/shared/listen/index.ts';
import {
  figures,
  formatNumber,
  Head,
  LineButton,
  rich,
  SourceLetter,
  StateMark,
  Table,
  Term,
  Why,
} from '#web/shared/parts/index.ts';
import { common, wire as say, textOf } from '#words/index.ts';
import { arrivalsAt } from './arrivals-at.ts';
import { BoxFacts } from './BoxFacts.tsx';

interface Props {
  /** The rig in the selected moment. */
  readonly rig: Rig;
  /** The rig itself: what is said of the device is said of that. */
  readonly plain: Rig;
  readonly evaluation: Evaluation;
  readonly tap: PortRef;
  readonly findings: readonly Finding[];
  readonly onFinding: (finding: Finding) => void;
  readonly onClose: () => void;
}

/** What is at the tap: which sources, how loud, over which noise, how late, by which way; and what is wrong there. */
export function TapCard({ rig, plain, evaluation, tap, findings, onFinding, onClose }: Props) {
  const navigate = useNavigate();
  const device = findDevice(plain, tap.deviceId);
  const { sounds, pictures, noise } = arrivalsAt(evaluation, tap);
  const here = findings
    .map((finding, i) => ({ finding, number: i + 1 }))
    .filter(({ finding }) => finding.where.deviceIds.includes(tap.deviceId));
  return (
    <aside className="card" aria-label={say.tapPoint()}>
      <h2 className="tapped">
        <Term id="tap">{say.tapPoint()}</Term>: {deviceName(rig, tap.deviceId)}, {endName(plain, findTypes(plain), tap)}
      </h2>
      {sounds.length + pictures.length === 0 ? (
        <chakra.p marginTop="8px">{say.noSignalHere()}</chakra.p>
      ) : (
        <Table tight marginTop="6px">
          <Head columns={[say.signal(), figures(common.level()), figures(say.delayMs())]} />
          <tbody>
            {pictures.map(({ arrival, delay }) => (
              <tr key={`p${arrival.sourceIndex}`}>
                <td>
                  <SourceLetter source={rig.sources[arrival.sourceIndex]!} /> {say.videoMark()}
                </td>
                <td />
                <Delay delay={delay} />
              </tr>
            ))}
            {sounds.map(({ arrival, delay, scale }) => (
              <tr key={`s${arrival.sourceIndex}-${arrival.way}-${arrival.delayMs.nominal}`}>
                <td>
                  <SourceLetter source={rig.sources[arrival.sourceIndex]!} />{' '}
                  <span className="small">{wayOf(rig, evaluation, arrival)}</span>
                </td>
                <td className="number">
                  {formatNumber(arrival.levelDb)} {SCALE_UNITS[scale]}
                </td>
                <Delay delay={delay} />
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {noise && (
        <chakra.p className="quiet" marginTop="6px">
          <Term id="noise-floor">{say.noiseFloor()}</Term> {formatNumber(noise.db)} {SCALE_UNITS[noise.scale]}
          {sounds[0] && say.belowLoudest({ db: formatNumber(sounds[0].arrival.levelDb - noise.db) })}
        </chakra.p>
      )}
      {sounds.length > 0 && <p className="quiet small">{say.typicalFiguresWhereNo()}</p>}
      {here.length > 0 && <h2>{say.onThisDevice()}</h2>}
      {here.map(({ finding, number }) => (
        <chakra.p key={finding.id} marginTop="6px">
          <StateMark state={finding.dismissed ? 'none' : finding.severity} /> {number}{' '}
          <LineButton onClick={() => onFinding(finding)}>{textOf(finding.asks ?? finding.says)}</LineButton>
        </chakra.p>
      ))}
      {device && <BoxFacts rig={plain} device={device} onGone={onClose} />}
      <chakra.p className="row" marginTop="16px">
        <ListenButton
          rig={rig}
          spot={{ at: tap, name: `${deviceName(rig, tap.deviceId)}, ${endName(plain, findTypes(plain), tap)}` }}
          silent={sounds.length === 0}
        />
        <Button onClick={() => navigate('../bench')}>{say.measureTake()}</Button>
        <Button onClick={onClose}>{rich(say.clearEsc, {})}</Button>
      </chakra.p>
    </aside>
  );
}

const Delay = ({ delay }: { delay: Figure }) => (
  <td className="number">
    <Why figure={delay}>{formatNumber(delay.value.nominal)}</Why>{' '}
    <span className="quiet small">
      {say.toOfAlso({ low: formatNumber(delay.value.low), high: formatNumber(delay.value.high) })}
    </span>
  </td>
);

const SHOWN_BOXES = 3;
/** 'by Mixer, Desk computer': the last devices on its path. */
function wayOf(rig: Rig, { graph }: Evaluation, arrival: Parameters<typeof readPath>[1]): string {
  const ids = readPath(graph, arrival).deviceIds.slice(0, -1);
  const last = ids.slice(-SHOWN_BOXES).map((id) => deviceName(rig, id));
  return last.length === 0
    ? say.startsHere()
    : say.viaDevices({ SHOWN_BOXES: ids.length > SHOWN_BOXES ? '… ' : '', join: last.join(', ') });
}
