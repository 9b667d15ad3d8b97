import { Button, Input } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { type Finding, limitFor } from '#core/check/index.ts';
import { connectorOf } from '#core/plug/index.ts';
import { alreadySo, type Edit, findTypes, type PortRef, type Rig, toDoAtDesk } from '#core/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
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
} from '#core/wire/index.ts';
import { count, formatNumber, Pick, Sheet, StateMark } from '#web/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/store/index.ts';

interface Props {
  readonly rig: Rig;
  readonly findings: readonly Finding[];
  /** Where the tap is: plugging begins there. */
  readonly from: PortRef | null;
  readonly onClose: () => void;
}

const keyOf = ({ deviceId, id }: Socket): string => `${deviceId}/${id}`;
const nameOf = (rig: Rig, socket: Socket): string => `${deviceName(rig, socket.deviceId)}, ${socket.name}`;

/** From here to there: what fits, the lead, its length, and what it would cause; then it is drawn. */
export function PlugDialog({ rig, findings, from, onClose }: Props) {
  const types = findTypes(rig);
  const sockets = useMemo(() => rig.devices.flatMap((d) => socketsOf(rig, d.id, findTypes(rig))), [rig]);
  const tapped = sockets.find((s) => s.deviceId === from?.deviceId && s.ports.some((p) => p.id === from.portId));
  const [start, setStart] = useState<Socket | null>(tapped ?? null);
  const [offer, setOffer] = useState<Offer | null>(null);
  const offers = useMemo(() => (start ? offersFor(rig, start) : []), [rig, start]);
  const outs = sockets.filter((s) => s.ports.some((p) => p.direction === 'out'));
  const title = start ? `From ${nameOf(rig, start)}` : 'Plug: from where?';
  return (
    <Sheet title={title} onClose={onClose}>
      {!start && (
        <Pick
          key="from"
          label="From"
          autoFocus
          items={outs.map((s) => ({
            id: keyOf(s),
            label: nameOf(rig, s),
            note:
              s.cableIds.length > 0
                ? `plugged: ${pluggedInto(rig, s)}`
                : types.get(rig.devices.find((d) => d.id === s.deviceId)!.typeId)!.name,
          }))}
          none="No output has these words. Add a device first."
          onPick={(id) => setStart(sockets.find((s) => keyOf(s) === id)!)}
        />
      )}
      {start && !offer && (
        <Pick
          key="to"
          label="To"
          autoFocus
          items={offers.map((o) => ({ id: keyOf(o.socket), label: nameOf(rig, o.socket), note: sayOffer(rig, o) }))}
          none={offers.length === 0 ? nothingFits(rig, start) : 'Nothing that fits has these words.'}
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
      ? 'its own lead'
      : `${chain.parts.map((p) => p.name).join(' + ')}, ${chain.price[0]} to ${chain.price[1]} euros`
    : MEDIUM[medium];
  return socket.cableIds.length > 0 ? `${what}; taken by ${pluggedInto(rig, socket)}` : what;
}
const MEDIUM = {
  lead: 'a lead',
  radio: 'by radio',
  software: 'within the computer',
  air: 'through air',
  light: 'by sight',
};

interface PluggingProps extends Omit<Props, 'from'> {
  readonly start: Socket;
  readonly offer: Offer;
}

function Plugging({ rig, findings, start, offer, onClose }: PluggingProps) {
  const dispatch = useAppDispatch();
  const { medium } = offer.cables[0]!;
  const [text, setText] = useState(String(usualLength(medium, start)));
  const lengthM = Number(text.replace(',', '.'));
  const valid = text.trim() !== '' && Number.isFinite(lengthM) && lengthM >= 0 && lengthM <= 1000;
  const cables = useMemo(
    () => offer.cables.map((c) => ({ ...c, lengthM: valid ? lengthM : c.lengthM })),
    [offer, lengthM, valid],
  );
  // A socket holds one lead: what stands in one of the two comes out with it.
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
  const label = `Plug ${nameOf(rig, start)} to ${nameOf(rig, offer.socket)}`;
  const plug = (verb: 'to-do' | 'so') => {
    const changes = [...pulled, ...cables.map((cable) => ({ cableId: cable.id, cable }))];
    const edit = verb === 'so' ? alreadySo(rig, changes) : toDoAtDesk(rig, changes, new Date().toISOString());
    if (dispatch(applyStep(edit, label))) onClose();
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (valid) plug('so');
      }}
    >
      <p>
        To {nameOf(rig, offer.socket)}: {sayOffer(rig, offer)}
        {cables.length > 1 && `, ${count(cables.length, 'way')} in one lead`}.
      </p>
      {pulled.length > 0 && (
        <p className="fix" style={{ marginTop: 8 }}>
          Comes out: {sayPulled(rig, pulled)}.
        </p>
      )}
      {medium !== 'software' && (
        <p className="row" style={{ marginTop: 10 }}>
          <Input
            aria-label="Length, m"
            width="80px"
            textAlign="right"
            inputMode="decimal"
            autoFocus
            aria-invalid={!valid}
            value={text}
            onFocus={(e) => e.target.select()}
            onChange={(e) => setText(e.target.value)}
          />
          m {medium === 'lead' ? 'long' : 'away'}
          {limit && (
            <span className="quiet">
              careful {formatNumber(limit.carefulM, limit.carefulM % 1 ? 1 : 0)} m, at most {limit.mostM} m
            </span>
          )}
        </p>
      )}
      {effect && effect.come.length > 0 && <h2>What comes with it</h2>}
      {effect?.come.map((f) => (
        <p key={f.id} style={{ marginTop: 4 }}>
          <StateMark state={f.severity} /> {f.says}
        </p>
      ))}
      {effect && effect.go.length > 0 && (
        <p className="good" style={{ marginTop: 8 }}>
          {count(effect.go.length, 'finding')} fewer.
        </p>
      )}
      {effect && effect.come.length + effect.go.length === 0 && (
        <p className="quiet" style={{ marginTop: 8 }}>
          No finding comes or goes.
        </p>
      )}
      <p className="row" style={{ marginTop: 14 }}>
        <Button type="submit" variant="solid" disabled={!valid} autoFocus={medium === 'software'}>
          It is so already <kbd>Enter</kbd>
        </Button>
        <Button disabled={!valid} onClick={() => plug('to-do')}>
          To do at the desk
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </form>
  );
}

/** The leads that come out, each once. */
function sayPulled(rig: Rig, pulled: readonly { readonly cableId: string }[]): string {
  const leads = rig.cables.filter((c) => pulled.some((p) => p.cableId === c.id));
  return [...new Set(leads.map((c) => [sayEnd(rig, c.from), sayEnd(rig, c.to)].sort().join(' to ')))].join('; ');
}

/** Why nothing is offered for a socket, and what would be. */
function nothingFits(rig: Rig, start: Socket): string {
  const types = findTypes(rig);
  const type = types.get(rig.devices.find((d) => d.id === start.deviceId)!.typeId)!;
  const would = typesBeside(types, { before: [type], after: [] }).slice(0, 3);
  const examples =
    would.length > 0 ? ` From ${type.name} one goes to, for example: ${would.map((t) => t.name).join('; ')}.` : '';
  return `No device here has a socket that ${nameOf(rig, start)} (${connectorOf(start.connector)?.name ?? start.connector}) can be joined to.${examples} Add a device first.`;
}

/** What is plugged into a socket. */
function pluggedInto(rig: Rig, { deviceId, cableIds }: Socket): string {
  const ids = rig.cables
    .filter((c) => cableIds.includes(c.id))
    .map((c) => (c.from.deviceId === deviceId ? c.to.deviceId : c.from.deviceId));
  return [...new Set(ids)].map((id) => deviceName(rig, id)).join(', ');
}
