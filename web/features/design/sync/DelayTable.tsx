import { chakra, Input } from '@chakra-ui/react';
import { type ReactNode, useEffect, useState } from 'react';
import {
  findDevice,
  heldTo,
  listenerIn,
  type Rig,
  settingKey,
  settingOf,
  sourceIn,
  type Trial,
} from '#core/model/rig/index.ts';
import { type Figure, framesFromMs, msFromFrames } from '#core/model/units/index.ts';
import type { DelaySetting, Evaluation } from '#core/signal/index.ts';
import {
  figures,
  formatNumber,
  formatOffset,
  Head,
  rich,
  SourceLetter,
  StateMark,
  Table,
  TermButton,
} from '#web/shared/parts/index.ts';
import { common, sync as say } from '#words/index.ts';

interface Props {
  /** With what is tried; `now` without it. */
  readonly rig: Rig;
  readonly now: Rig;
  readonly evaluation: Evaluation;
  readonly listenerId: string;
  readonly settings: readonly DelaySetting[];
  readonly trial: Trial;
  readonly onTry: (key: string, value: number) => void;
  /** What can be done with what is tried. */
  readonly children: ReactNode;
}

/** Every delay that can be set on the way here: on what it acts, what it is, what is proposed, and what becomes of it. */
export function DelayTable({ rig, now, evaluation, listenerId, settings, trial, onTry, children }: Props) {
  const [inFrames, setInFrames] = useState(false);
  const sourceOf = (id: string) => sourceIn(rig, id);
  return (
    <>
      <div className="spread delay-settings">
        <h2>
          {say.delaySettings()}{' '}
          <TermButton className="small quiet" fontWeight={400} onClick={() => setInFrames(!inFrames)}>
            {inFrames ? say.inFramesShowMs() : say.inMsShowFrames()}
          </TermButton>
        </h2>
        <chakra.span className="row" marginTop="14px">
          {children}
        </chakra.span>
      </div>
      <Table tight>
        <Head
          columns={[
            say.where(),
            say.delays(),
            say.alsoAffects(),
            figures(say.stepMax()),
            figures(say.now()),
            figures(say.target({ ms: inFrames ? say.frames() : 'ms' })),
            say.result(),
          ]}
        />
        <tbody>
          {settings.map((setting) => {
            const key = settingKey(setting.deviceId, setting.spec.id);
            const device = findDevice(now, setting.deviceId)!;
            const nowValue = settingOf(device, setting.spec).value as number;
            const acts = [...setting.delaysSound, ...setting.delaysPicture];
            const changed = trial[key] !== undefined && trial[key] !== nowValue;
            return (
              <tr key={key}>
                <td>
                  {setting.deviceName}, {setting.spec.name}
                </td>
                <td>
                  <chakra.span className="row" gap="3px">
                    {acts.map((id) => (
                      <SourceLetter key={id} source={sourceOf(id)} />
                    ))}
                    {setting.delaysPicture.length > 0 && <span className="small quiet">{say.video()}</span>}
                  </chakra.span>
                </td>
                <td className="quiet">{alsoNames(rig, setting)}</td>
                <td className="quiet number">
                  {formatNumber(setting.spec.step)}, {formatNumber(setting.spec.max)} {setting.spec.unit}
                </td>
                <td className="number">
                  {formatNumber(nowValue)} {setting.spec.unit}{' '}
                  <span className={`small ${setting.task ? 'watch' : 'quiet'}`}>
                    {setting.task ? common.toDo() : common[setting.known]()}
                  </span>
                </td>
                <td className="number">
                  <DelayInput
                    rig={rig}
                    setting={setting}
                    value={trial[key] ?? nowValue}
                    inFrames={inFrames}
                    onTry={(value) => onTry(key, value)}
                  />
                </td>
                <td>
                  {(changed || setting.task) && (
                    <Then evaluation={evaluation} listenerId={listenerId} sourceIds={acts} />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      <chakra.p className="small quiet" marginTop="6px">
        {rich(say.thisPageCantTurn, {})}
      </chakra.p>
    </>
  );
}

function alsoNames(rig: Rig, { alsoListeners }: DelaySetting): string {
  const names = alsoListeners.map((id) => listenerIn(rig, id).name.split(',')[0]!);
  if (names.length === 0) return say.noOthers();
  return names.length <= 2
    ? names.join(', ')
    : say.andMore({ join: names.slice(0, 2).join(', '), n2: names.length - 2 });
}

/** The sources that the setting acts on, as they would then be. */
function Then({
  evaluation,
  listenerId,
  sourceIds,
}: {
  evaluation: Evaluation;
  listenerId: string;
  sourceIds: readonly string[];
}) {
  const pairs = sourceIds.flatMap((sourceId) => {
    const pair = evaluation.pairs.find((p) => p.listenerId === listenerId && p.sourceId === sourceId);
    const offset = pair?.ways[0]?.offset;
    return pair && offset ? [{ pair, offset }] : [];
  });
  const rests = [...new Set(pairs.map(({ offset }) => restsOn(offset)).filter(Boolean))];
  return (
    <>
      {pairs.map(({ pair, offset }) => (
        <chakra.div key={pair.sourceId} className={pair.verdict.state} whiteSpace="nowrap">
          <StateMark state={pair.verdict.state} /> {formatOffset(offset.value.nominal)} ±
          {formatNumber((offset.value.high - offset.value.low) / 2)}
        </chakra.div>
      ))}
      {rests.map((says) => (
        <div key={says} className="small quiet">
          {says}
        </div>
      ))}
    </>
  );
}

/** Which takes an offset rests on, or that none says anything of it. */
function restsOn({ terms }: Figure): string {
  const takes = [...new Set(terms.filter((t) => t.kind === 'measured').map((t) => t.source))];
  const isTypical = terms.some((t) => t.kind === 'typical' && t.value.high > t.value.low);
  if (takes.length === 0) return isTypical ? say.fromTypicalFiguresMeasure() : '';
  return say.from({ join: takes.join(', '), figures: isTypical ? say.andTypicalFigures() : '' });
}

interface DelayInputProps {
  readonly rig: Rig;
  readonly setting: DelaySetting;
  readonly value: number;
  readonly inFrames: boolean;
  readonly onTry: (value: number) => void;
}

/** Typed in ms or frames, held to the device's step and range when it is left; the chart answers while typing. */
function DelayInput({ rig, setting, value, inFrames, onTry }: DelayInputProps) {
  const { spec } = setting;
  const rate = rig.session.frameRate;
  const toShown = (v: number) => {
    const ms = spec.unit === 'frames' ? msFromFrames(v, rate) : v;
    return inFrames ? framesFromMs(ms, rate) : ms;
  };
  const fromShown = (v: number) => {
    const ms = inFrames ? msFromFrames(v, rate) : v;
    return heldTo(spec, spec.unit === 'frames' ? framesFromMs(ms, rate) : ms);
  };
  const show = (v: number) => String(Number(toShown(v).toFixed(inFrames ? 2 : 3)));
  const [text, setText] = useState(show(value));
  const [typing, setTyping] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: while typing the text is the person's own
  useEffect(() => {
    if (!typing) setText(show(value));
  }, [value, inFrames, typing]);
  const typed = Number(text.replace(',', '.').replace('−', '-'));
  const invalid = text.trim() === '' || !Number.isFinite(typed);
  const settle = (v: number) => onTry(heldTo(spec, v));
  return (
    <Input
      aria-label={`${setting.deviceName}, ${spec.name}, ${inFrames ? say.frames() : 'ms'}`}
      width="78px"
      textAlign="right"
      inputMode="decimal"
      aria-invalid={invalid}
      value={text}
      onFocus={(e) => {
        setTyping(true);
        e.target.select();
      }}
      onBlur={() => setTyping(false)}
      onChange={(e) => {
        setText(e.target.value);
        const next = Number(e.target.value.replace(',', '.').replace('−', '-'));
        if (e.target.value.trim() !== '' && Number.isFinite(next)) onTry(fromShown(next));
      }}
      onKeyDown={(e) => {
        if (e.key !== 'ArrowUp' && e.key !== 'ArrowDown') return;
        e.preventDefault();
        const next = heldTo(spec, value + (e.key === 'ArrowUp' ? 1 : -1) * spec.step * (e.shiftKey ? 10 : 1));
        setText(show(next));
        settle(next);
      }}
    />
  );
}
