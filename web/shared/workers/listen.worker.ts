import './spoken.ts';
import { expose, transfer } from 'comlink';
import { loudnessMeter } from '#core/audio/measure/index.ts';
import { type Listening, renderListening } from '#core/desk-tests/stand-ins/index.ts';
import type { PortRef, Rig } from '#core/model/rig/index.ts';
import { check } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';

/** What is heard at a place, and how loud the loop is: a switch between places keeps the loudness by it. */
export interface HeardLoop extends Listening {
  /** LUFS of the loop as it stands; null for silence. */
  readonly integratedLufs: number | null;
}

/** The cables that hum as drawn, and that no one ignores. */
const hummingLeads = (rig: Rig, evaluation: ReturnType<typeof evaluate>): string[] =>
  check(rig, evaluation)
    .filter((f) => f.rule === 'ground-hum-loop' && !f.dismissed)
    .flatMap((f) => f.where.cableIds);

const api = {
  render(rig: Rig, at: PortRef, seconds: number, sampleRateHz: number): HeardLoop {
    const evaluation = evaluate(rig);
    const humCableIds = hummingLeads(rig, evaluation);
    const heard = renderListening({ rig, evaluation, at, seconds, sampleRateHz, humCableIds });
    const meter = loudnessMeter(heard.channels.length, sampleRateHz);
    meter.push(heard.channels);
    const loop = { ...heard, integratedLufs: heard.channels.length > 0 ? meter.result().integratedLufs : null };
    return transfer(loop, heard.channels.map((c) => c.buffer) as ArrayBuffer[]);
  },
};
export type ListenApi = typeof api;
expose(api);
