import { Button, chakra, Input } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import {
  type Cable,
  choosing,
  chosenDevice,
  type Edit,
  type EndSaid,
  endName,
  endsBehind,
  findDevice,
  findPort,
  findTypes,
  followingDefault,
  makeDefault,
  ownEndName,
  type PortRef,
  type PortSpec,
  type Rig,
  relinked,
  sameEnd,
  soundDevicesOf,
  unsetDefault,
  withEnd,
} from '#core/model/rig/index.ts';
import { deviceName, type Evaluation, SCALE_UNITS } from '#core/signal/index.ts';
import { formatNumber, Head, hidden, SourceLetter, Table, Term } from '#web/shared/parts/index.ts';
import { applyStep, selectRig, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { common, route as say } from '#words/index.ts';

/**
 * The sound devices of a computer, as its programs see them: names worth reading, which is the default, what is hidden or
 * disabled, who uses each and whether they follow the default, and what arrives there now, by which the right one is found.
 */
export function SoundDevices({ evaluation, deviceId }: { evaluation: Evaluation; deviceId: string }) {
  const dispatch = useAppDispatch();
  // What is said of a computer is said of the rig, whichever moment is looked at.
  const plain = useAppSelector(selectRig);
  const [all, setAll] = useState(false);
  if (!plain || !findDevice(plain, deviceId)) return null;
  const types = findTypes(plain);
  const ends = [...soundDevicesOf(plain, deviceId, 'record'), ...soundDevicesOf(plain, deviceId, 'play')];
  if (ends.length === 0) return null;
  const uses = plain.cables.flatMap((cable) => {
    const chosen = chosenDevice(plain, types, cable);
    return chosen ? [{ cable, chosen }] : [];
  });
  const take = (edit: Edit, says: string) => dispatch(applyStep(edit, says));
  const usesOf = (ref: PortRef) => uses.filter((u) => sameEnd(u.chosen.ref, ref)).map((u) => u.cable);
  // Empty sockets are many, and seldom needed.
  const isIdle = (ref: PortRef) => usesOf(ref).length === 0 && !isKnown(plain, ref);
  const shown = all ? ends : ends.filter((ref) => !isIdle(ref));
  return (
    <>
      <h2>
        <Term id="sound-device">{say.audioDevices()}</Term>
      </h2>
      <Table tight aria-label={say.audioDevices()}>
        <Head columns={[say.name(), say.type(), say.signalNow(), say.usedBy(), hidden(say.defaultShownEnabled())]} />
        <tbody>
          {shown.map((ref) => (
            <EndRow
              key={`${ref.deviceId}/${ref.portId}`}
              rig={plain}
              evaluation={evaluation}
              computerId={deviceId}
              at={ref}
              port={findPort(plain, types, ref)!}
              cables={usesOf(ref)}
              onEdit={take}
            />
          ))}
        </tbody>
      </Table>
      {ends.some(isIdle) && (
        <Button size="xs" variant="plain" aria-pressed={all} onClick={() => setAll(!all)}>
          {all ? say.onlyThoseInUse() : say.moreWithNothingConnected({ length: ends.filter(isIdle).length })}
        </Button>
      )}
    </>
  );
}

/** Whether something is plugged in behind an end, or someone has said anything of it. */
function isKnown(rig: Rig, ref: PortRef): boolean {
  const device = findDevice(rig, ref.deviceId)!;
  if (device.ends?.[ref.portId]) return true;
  const type = findTypes(rig).get(device.typeId)!;
  if (!type.hosts) return true;
  const behind = new Set(endsBehind(type, ref.portId).map((p) => p.id));
  const isBehind = (end: PortRef) => end.deviceId === ref.deviceId && behind.has(end.portId);
  return rig.cables.some((c) => isBehind(c.from) || isBehind(c.to));
}

interface EndProps {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly computerId: string;
  readonly at: PortRef;
  readonly port: PortSpec;
  /** Links of programs that have chosen it. */
  readonly cables: readonly Cable[];
  readonly onEdit: (edit: Edit, says: string) => void;
}

function EndRow({ rig, evaluation, computerId, at, port, cables, onEdit }: EndProps) {
  const device = findDevice(rig, at.deviceId)!;
  const end: EndSaid = device.ends?.[port.id] ?? {};
  const called = ownEndName(rig, findTypes(rig), at);
  const own = at.deviceId === computerId ? called : `${device.name}, ${called}`;
  const name = end.name ?? own;
  const [text, setText] = useState(name);
  useEffect(() => setText(name), [name]);
  const edit = (next: EndSaid, says: string) =>
    onEdit(withEnd(device, port.id, next), `${device.name}, ${port.name}: ${says}`);
  const settle = () => {
    const next = text.trim();
    const { name: _before, ...rest } = end;
    if (next === '' || next === own) {
      setText(own);
      if (end.name) edit(rest, say.ownNameAgain());
    } else if (next !== name) edit({ ...rest, name: next.slice(0, 120) }, say.renamedDevice({ next }));
  };
  const flag = (key: 'hidden' | 'disabled', says: readonly [string, string]) => {
    const { [key]: now, ...rest } = end;
    edit(now ? rest : { ...rest, [key]: true }, now ? says[1] : says[0]);
  };
  const isInput = port.direction === 'out';
  return (
    <tr className={end.hidden ? 'quiet' : ''}>
      <td>
        <Input
          size="xs"
          width="150px"
          aria-label={say.nameOfEnd({ output: isInput ? say.inputWord() : say.outputWord(), own })}
          maxLength={120}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={settle}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
        />
      </td>
      <chakra.td className="quiet small" whiteSpace="nowrap">
        {isInput ? say.inputWord() : say.outputWord()}
      </chakra.td>
      <td>
        <ComesThere rig={rig} evaluation={evaluation} at={at} />
      </td>
      <td>
        {cables.map((cable) => (
          <UsedBy key={cable.id} rig={rig} cable={cable} at={at} onEdit={onEdit} />
        ))}
      </td>
      <td>
        <chakra.span className="row" flexWrap="nowrap">
          <Button
            size="xs"
            aria-pressed={end.preferred ?? false}
            variant={end.preferred ? 'solid' : 'outline'}
            onClick={() =>
              onEdit(
                end.preferred ? unsetDefault(rig, at) : makeDefault(rig, computerId, at),
                say.defaultStep({
                  computerId: deviceName(rig, computerId),
                  output: isInput ? say.inputWord() : say.outputWord(),
                  name: end.preferred ? say.notSet() : name,
                }),
              )
            }
          >
            {end.preferred ? say.defaultWord() : say.notDefault()}
          </Button>
          <Button size="xs" aria-pressed={end.hidden ?? false} onClick={() => flag('hidden', ['hidden', 'shown'])}>
            {end.hidden ? say.hidden() : say.shownWord()}
          </Button>
          <Button
            size="xs"
            aria-pressed={end.disabled ?? false}
            variant={end.disabled ? 'solid' : 'outline'}
            onClick={() => flag('disabled', ['disabled', 'enabled'])}
          >
            {end.disabled ? say.disabled() : say.enabled()}
          </Button>
        </chakra.span>
      </td>
    </tr>
  );
}

interface UsedByProps {
  readonly rig: Rig;
  readonly cable: Cable;
  readonly at: PortRef;
  readonly onEdit: EndProps['onEdit'];
}

/** A program at a sound device: it has chosen it itself, or goes with the default. */
function UsedBy({ rig, cable, at, onEdit }: UsedByProps) {
  const program = sameEnd(cable.to, at) ? cable.from : cable.to;
  const box = deviceName(rig, program.deviceId);
  const name = `${box}, ${endName(rig, findTypes(rig), program)}`;
  const follows = cable.follows !== undefined;
  return (
    <chakra.div className="row small" flexWrap="nowrap" gap="6px">
      {name}
      <Button
        size="xs"
        aria-pressed={follows}
        variant={follows ? 'solid' : 'outline'}
        aria-label={say.followsDefault({ name })}
        onClick={() =>
          onEdit(
            relinked(follows ? choosing(rig, cable, at) : followingDefault(rig, cable)),
            follows ? say.setInApp({ name }) : say.followsDefaultOf({ name }),
          )
        }
      >
        {follows ? say.followsDefaultWord() : say.setInAppWord()}
      </Button>
    </chakra.div>
  );
}

/** The sources that arrive at an end, and how loud the loudest is. */
function ComesThere({ rig, evaluation, at }: { rig: Rig; evaluation: Evaluation; at: PortRef }) {
  const { graph, arrivals } = evaluation;
  const nodes = graph.nodesOf(at);
  const here = nodes.flatMap((n) => arrivals[n]!);
  const sources = rig.sources.filter((_, i) => here.some((a) => a.sourceIndex === i));
  if (sources.length === 0) return <span className="quiet small">{common.nothing()}</span>;
  const scale = nodes[0] === undefined ? 'dbfs' : graph.nodes[nodes[0]]!.scale;
  return (
    <chakra.span className="row" gap="4px">
      {sources.map((s) => (
        <SourceLetter key={s.id} source={s} />
      ))}
      <span className="small">
        {formatNumber(Math.max(...here.map((a) => a.levelDb)))} {SCALE_UNITS[scale]}
      </span>
    </chakra.span>
  );
}
