import type { DeviceType, Stage } from '#core/model/rig/index.ts';
import { type Drawing, layout, type Shape, type Wire } from '#core/output/layout/index.ts';
import { gear as say } from '#words/index.ts';

/** A way through a device: all channels that go between the same two ports by it. */
interface InsideWay {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly picture: boolean;
  /** In the order that a signal meets them, in words. */
  readonly stages: readonly string[];
}
export interface InsideDrawing {
  readonly ways: readonly InsideWay[];
  readonly drawing: Drawing;
}

const WIDTH = 150;
const HEAD = 10;

/** In words, with the setting's name where one sets it. */
export function sayStage(type: DeviceType, stage: Stage): string {
  const named = (id: string) => type.settings.find((s) => s.id === id)?.name ?? id;
  switch (stage.do) {
    case 'delay':
      return `${named(stage.setting)} (delay)`;
    case 'latency': {
      const figure = type.figures[stage.figure];
      return figure ? `${figure.label}: ${figure.range.join(', ')} ${figure.unit} (${figure.kind})` : stage.figure;
    }
    case 'gain':
      return `${named(stage.setting)} (level)`;
    case 'fixed-gain':
      return say.db({ n0: stage.db > 0 ? '+' : '', db: stage.db });
    case 'door': {
      const spec = type.settings.find((s) => s.id === stage.setting);
      const label = spec?.kind === 'switch' ? spec.options.find((o) => o.value === stage.openWhen)?.label : null;
      return say.openWhileIs({
        setting: named(stage.setting),
        off: label ?? (stage.openWhen === true ? say.on() : say.off()),
      });
    }
    case 'convert':
      return say.converterToFullScale({ to: stage.to, join: stage.fullScaleDbu.join(', ') });
    case 'hear':
      return say.microphoneDbvPa({ join: stage.sensitivityDbvPerPa.join(', ') });
    case 'radiate':
      return say.speakerDbSplAt({ join: stage.splAt0Dbu.join(', ') });
    case 'noise':
      return say.noiseFloorDb({ db: stage.db });
    case 'ceiling':
      return say.clipPointDb({ db: stage.db });
    case 'band':
      return say.hzToKhz({ lowHz: stage.lowHz, n1000: stage.highHz / 1000 });
    case 'invert':
      return say.polarityInverted();
    case 'clock':
      return say.itsOwnClock();
  }
}

/** The inside of a type: inputs to the left, outputs to the right, points where ways meet between, each way once. */
export function drawInside(type: DeviceType): InsideDrawing {
  const ways = new Map<string, InsideWay>();
  for (const way of type.inside) {
    const [[from, channel], [to]] = [way.from.split('.'), way.to.split('.')] as [[string, string], [string]];
    const stages = way.stages.map((s) => sayStage(type, s));
    const id = `${from} ${to} ${stages.join('|')}`;
    const picture =
      type.ports.find((p) => p.id === from)?.channels.find((c) => c.id === channel)?.carries === 'picture';
    if (!ways.has(id)) ways.set(id, { id, from, to, picture, stages });
  }
  const list = [...ways.values()];
  const wires: Wire[] = list.map((w) => ({
    id: w.id,
    from: { node: w.from, port: 'out' },
    to: { node: w.to, port: 'in' },
  }));
  const shapes: Shape[] = type.ports.map((p) => ({
    id: p.id,
    widthPx: WIDTH,
    headPx: HEAD,
    ins: wires.some((w) => w.to.node === p.id) ? ['in'] : [],
    outs: wires.some((w) => w.from.node === p.id) ? ['out'] : [],
  }));
  return { ways: list, drawing: layout(shapes, wires) };
}
