/** Forty sources, forty listeners, one router between. */
export function fortyByForty() {
  const numbers = [...Array(40).keys()];
  const port = (id: string, direction: string) => ({
    id,
    name: id,
    direction,
    connector: 'jack-635-trs',
    level: 'line',
    channels: [{ id: 'mono', carries: 'sound' }],
  });
  const lead = (id: string, from: [string, string], to: [string, string]) => ({
    id,
    from: { deviceId: from[0], portId: from[1] },
    to: { deviceId: to[0], portId: to[1] },
    medium: 'lead',
    lengthM: 1,
    known: 'confirmed',
  });
  return {
    schemaVersion: 1,
    name: 'Forty by forty',
    notes: '',
    session: { frameRate: { num: 50, den: 1 }, sampleRateHz: 48_000, toleranceId: 'ebu-r37', fullScaleDbu: 18 },
    types: [
      {
        id: 'router',
        name: 'Router',
        family: 'mixers',
        summary: '',
        ports: numbers.flatMap((n) => [port(`in-${n}`, 'in'), port(`out-${n}`, 'out')]),
        settings: [],
        figures: {},
        inside: numbers.flatMap((i) => numbers.map((o) => ({ from: `in-${i}.mono`, to: `out-${o}.mono`, stages: [] }))),
      },
    ],
    devices: [
      { id: 'router', typeId: 'router', name: 'Router', settings: {} },
      ...numbers.flatMap((n) => [
        { id: `phone-${n}`, typeId: 'phone', name: `Phone ${n}`, settings: {} },
        { id: `recorder-${n}`, typeId: 'recorder-stereo', name: `Recorder ${n}`, settings: {} },
      ]),
    ],
    cables: numbers.flatMap((n) => [
      lead(`a-${n}`, [`phone-${n}`, 'jack'], ['router', `in-${n}`]),
      lead(`b-${n}`, ['router', `out-${n}`], [`recorder-${n}`, 'line']),
    ]),
    sources: numbers.map((n) => ({
      id: `s-${n}`,
      name: `Source ${n}`,
      letter: 'S',
      hue: (n % 8) + 1,
      sound: { deviceId: `phone-${n}`, portId: 'jack' },
      level: [-20, -14, -8],
    })),
    listeners: numbers.map((n) => ({
      id: `l-${n}`,
      name: `Listener ${n}`,
      sound: { deviceId: `recorder-${n}`, portId: 'file' },
    })),
    plan: [],
    measurements: [],
    tasks: [],
  };
}
