import { endName, findDevice, findPort, findTypes, portAt } from '#core/model/rig/index.ts';
import { type Arrival, delayOf, deviceName, evaluate, readPath, SCALE_UNITS } from '#core/signal/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';
import { inMoment, readRig } from './rig-file.ts';

const loudestFirst = (list: readonly Arrival[]): Arrival[] => [...list].sort((a, b) => b.levelDb - a.levelDb);
const round = (x: number): number => Math.round(x * 1000) / 1000;

/** What is there: every source that arrives at a port, channel by channel, by which way. */
export const tap: Command = async ([path, place], { values }) => {
  const rig = inMoment(await readRig(path!), values.moment);
  const { deviceId, portId } = portAt(place!);
  const port = findPort(rig, findTypes(rig), { deviceId, portId });
  if (!port) {
    const device = findDevice(rig, deviceId);
    const ports =
      device &&
      findTypes(rig)
        .get(device.typeId)!
        .ports.map((p) => p.id);
    throw new UsageError(
      ports
        ? say.hasNoPortIt({ device: deviceId, port: portId, names: ports.join(', ') })
        : say.thereIsNoDevice({ device: deviceId, names: rig.devices.map((d) => d.id).join(', ') }),
    );
  }
  const evaluation = evaluate(rig);
  const { graph, arrivals, noiseDb } = evaluation;
  const channels = graph.nodesOf({ deviceId, portId }).map((node) => {
    const { channelId, scale } = graph.nodes[node]!;
    const noise = noiseDb[node]!;
    return {
      channel: channelId,
      noise: Number.isFinite(noise) ? { value: round(noise), unit: SCALE_UNITS[scale] } : null,
      arrivals: loudestFirst(arrivals[node]!).map((arrival) => ({
        source: rig.sources[arrival.sourceIndex]!.id,
        level: { value: round(arrival.levelDb), unit: SCALE_UNITS[scale] },
        delayMs: round(delayOf(evaluation, arrival).value.nominal),
        polarity: arrival.polarity,
        way: readPath(graph, arrival).deviceIds,
      })),
    };
  });
  return {
    json: { device: deviceId, port: portId, channels },
    text: [
      `${deviceName(rig, deviceId)}, ${endName(rig, findTypes(rig), { deviceId, portId })}`,
      ...channels.flatMap((c) => [
        `  ${c.channel}${c.noise ? say.noise({ level: c.noise.value.toFixed(1), unit: c.noise.unit }) : ''}${c.arrivals.length === 0 ? say.nothingArrives() : ''}`,
        ...c.arrivals.map(
          (a) =>
            `    ${say.arrivesBy({ source: a.source, level: a.level.value.toFixed(1), unit: a.level.unit, delay: a.delayMs.toFixed(0), way: a.way.map((id) => deviceName(rig, id)).join(' > ') })}`,
        ),
      ]),
    ].join('\n'),
  };
};
