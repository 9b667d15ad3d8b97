import { Button, chakra, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { connectorOf } from '#core/model/plug/index.ts';
import {
  addTasks,
  deviceIn,
  type Edit,
  findTypes,
  markDone,
  type PortRef,
  type Rig,
  type Verb,
} from '#core/model/rig/index.ts';
import {
  effectOf,
  type Offer,
  offersFor,
  pulledBy,
  type Socket,
  sayEnd,
  socketsOf,
  typesBeside,
  usualLength,
} from '#core/routing/wiring/index.ts';
import { type Finding, limitFor } from '#core/rules/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { formatNumber, Pick, Sheet, StateMark, TwoVerbs } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { common, feetBeside, lengthMOf, wire as say, textOf } from '#words/index.ts';

interface Props {
  readonly rig: Rig;
  readonly findings: readonly Finding[];
  /** Where the tap is: plugging begins there. */
  readonly from: PortRef | null;
  readonly onClose: () => void;
}

const keyOf = ({ deviceId, id }: Socket): string => `${deviceId}/${id}`;
const nameOf = (rig: Rig, socket: Socket): string => `${deviceName(rig, socket.deviceId)}, ${socket.name}`;

/** From here to there: what fits, the cable, its length, and what it would cause; then it is drawn. */
export function PlugDialog({ rig, findings, from, onClose }: Props) {
  const types = findTypes(rig);
  const sockets = useMemo(() => rig.devices.flatMap((d) => socketsOf(rig, d.id, findTypes(rig))), [rig]);
  const tapped = sockets.find((s) => s.deviceId === from?.deviceId && s.ports.some((p) => p.id === from.portId));
  const [start, setStart] = useState<Socket | null>(tapped ?? null);
  const [offer, setOffer] = useState<Offer | null>(null);
  const offers = useMemo(() => (start ? offersFor(rig, start) : []), [rig, start]);
  const outs = sockets.filter((s) => s.ports.some((p) => p.direction === 'out'));
  const title = start ? say.fromWith({ start: nameOf(rig, start) }) : say.connectFrom();
  return (
    <Sheet title={title} onClose={onClose}>
      {!start && (
        <Pick
          key="from"
          label={say.from()}
          autoFocus
          items={outs.map((s) => ({
            id: keyOf(s),
            label: nameOf(rig, s),
            note:
              s.cableIds.length > 0
                ? say.inUse({ s: pluggedInto(rig, s) })
                : types.get(deviceIn(rig, s.deviceId).typeId)!.name,
          }))}
          none={say.noOutputMatchesAdd()}
          onPick={(id) => setStart(sockets.find((s) => keyOf(s) === id)!)}
        />
      )}
      {start && !offer && (
        <Pick
          key="to"
          label={say.to()}
          autoFocus
          items={offers.map((o) => ({ id: keyOf(o.socket), label: nameOf(rig, o.socket), note: sayOffer(rig, o) }))}
          none={offers.length === 0 ? nothingFits(rig, start) : say.nothingThatFitsMatches()}
          onPick={(id) => setOffer(offers.find((o) => keyOf(o.socket) === id)!)}
        />
      )}
      {start && offer && <Plugging rig={rig} findings={findings} start={start} offer={offer} onClose={onClose} />}
    </Sheet>
  );
}

/** 'lead, HDMI to HDMI', 'taken already' */
function sayOffer(rig: Rig, { chain, cables, socket }: Offer): string {
  const { medium } = cables[0]!;
  const what = chain
    ? chain.parts.length === 0
      ? say.itsOwnCable()
      : say.partsAndPrice({
          join: chain.parts.map((p) => textOf(p.name)).join(' + '),
          n0: chain.price[0],
          n1: chain.price[1],
        })
    : MEDIUM[medium]();
  return socket.cableIds.length > 0 ? say.replacesCable({ what, socket: pluggedInto(rig, socket) }) : what;
}
const MEDIUM = {
  lead: say.cable,
  radio: say.wireless,
  software: say.insideComputer,
  air: say.throughAir,
  light: say.opticalInLineSight,
};

interface PluggingProps extends Omit<Props, 'from'> {
  readonly start: Socket;
  readonly offer: Offer;
}

function Plugging({ rig, findings, start, offer, onClose }: PluggingProps) {
  const dispatch = useAppDispatch();
  const { medium } = offer.cables[0]!;
  const [text, setText] = useState(String(usualLength(medium, start)));
  const lengthM = lengthMOf(text);
  const valid = lengthM >= 0 && lengthM <= 1000;
  const cables = useMemo(
    () => offer.cables.map((c) => ({ ...c, lengthM: valid ? lengthM : c.lengthM })),
    [offer, lengthM, valid],
  );
  // A socket holds one cable: a cable in one of the two is unplugged.
  const pulled = useMemo(() => pulledBy(rig, cables), [rig, cables]);
  const effect = useMemo(() => {
    const out = pulled.map(({ cableId }): Edit => ({ kind: 'unplug', cableId }));
    return effectOf(
      rig,
      { kind: 'batch', edits: [...out, ...cables.map((cable): Edit => ({ kind: 'plug', cable }))] },
      findings,
    );
  }, [rig, cables, pulled, findings]);
  const limit = limitFor(rig, cables[0]!);
  const label = say.connectStep({ start: nameOf(rig, start), socket: nameOf(rig, offer.socket) });
  const plug = (verb: Verb) => {
    const changes = [...pulled, ...cables.map((cable) => ({ cableId: cable.id, cable }))];
    const edit = verb === 'done' ? markDone(rig, changes) : addTasks(rig, changes, new Date().toISOString());
    if (dispatch(applyStep(edit, label))) onClose();
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (valid) plug('done');
      }}
    >
      <p>
        {cables.length > 1
          ? say.connectAllTo({ socket: nameOf(rig, offer.socket), offer: sayOffer(rig, offer), count: cables.length })
          : say.connectTo({ socket: nameOf(rig, offer.socket), offer: sayOffer(rig, offer) })}
      </p>
      {pulled.length > 0 && (
        <chakra.p className="fix" marginTop="8px">
          {say.unplugsCables({ pulled: sayPulled(rig, pulled) })}
        </chakra.p>
      )}
      {medium !== 'software' && (
        <chakra.p className="row" marginTop="10px">
          <Input
            aria-label={say.lengthM()}
            width="80px"
            textAlign="right"
            autoFocus
            aria-invalid={!valid}
            value={text}
            onFocus={(e) => e.target.select()}
            onChange={(e) => setText(e.target.value)}
          />
          m{feetBeside(lengthM)} {medium === 'lead' ? say.long() : say.away()}
          {limit && (
            <span className="quiet">
              {say.advisedAtMost({
                carefulM: formatNumber(limit.carefulM, limit.carefulM % 1 ? 1 : 0),
                mostM: limit.mostM,
              })}
            </span>
          )}
        </chakra.p>
      )}
      {effect && effect.come.length > 0 && <h2>{say.effect()}</h2>}
      {effect?.come.map((f) => (
        <chakra.p key={f.id} marginTop="4px">
          <StateMark state={f.severity} /> {textOf(f.says)}
        </chakra.p>
      ))}
      {effect && effect.go.length > 0 && (
        <chakra.p className="good" marginTop="8px">
          {say.clearsIssues({ finding: effect.go.length })}
        </chakra.p>
      )}
      {effect && effect.come.length + effect.go.length === 0 && (
        <chakra.p className="quiet" marginTop="8px">
          {say.noChangeInIssues()}
        </chakra.p>
      )}
      <chakra.p className="row" marginTop="14px">
        <TwoVerbs isForm disabled={!valid} autoFocus={medium === 'software'} onVerb={plug} />
        <Button onClick={onClose}>{common.cancel()}</Button>
      </chakra.p>
    </form>
  );
}

/** The cables that are unplugged, each once. */
function sayPulled(rig: Rig, pulled: readonly { readonly cableId: string }[]): string {
  const leads = rig.cables.filter((c) => pulled.some((p) => p.cableId === c.id));
  return [...new Set(leads.map((c) => [sayEnd(rig, c.from), sayEnd(rig, c.to)].sort().join(say.toBetween())))].join(
    '; ',
  );
}

/** Why nothing is offered for a socket, and what would be. */
function nothingFits(rig: Rig, start: Socket): string {
  const types = findTypes(rig);
  const type = types.get(deviceIn(rig, start.deviceId).typeId)!;
  const would = typesBeside(types, { before: [type], after: [] }).slice(0, 3);
  const examples = would.length > 0 ? say.wouldFit({ type: type.name, join: would.map((t) => t.name).join('; ') }) : '';
  return say.nothingConnects({
    start: nameOf(rig, start),
    connector: textOf(connectorOf(start.connector)?.name ?? start.connector),
    examples,
  });
}

/** What is plugged into a socket. */
function pluggedInto(rig: Rig, { deviceId, cableIds }: Socket): string {
  const ids = rig.cables
    .filter((c) => cableIds.includes(c.id))
    .map((c) => (c.from.deviceId === deviceId ? c.to.deviceId : c.from.deviceId));
  return [...new Set(ids)].map((id) => deviceName(rig, id)).join(', ');
}
