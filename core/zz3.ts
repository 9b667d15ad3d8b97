import { check } from '#core/check/index.ts';
import { readDesk, sayMade } from '#core/intake/index.ts';
import { evaluate } from '#core/signal/index.ts';

const lines = process.argv.slice(2);
for (const line of lines.length
  ? lines
  : [
      '2 consoles > hdmi switch > capture card > pc > streaming app\nme > xlr mic > small usb mixer > pc; phone > mixer\nfriend > voice chat > pc; usb headset > pc; blue box > tv',
      'person > usb microphone > computer > capture program; console > capture > computer',
      'console > pc',
    ]) {
  console.log('\n##', line);
  const t0 = performance.now();
  const d = readDesk(line);
  const t1 = performance.now();
  console.log(
    '  ',
    d.typed.boxes
      .map(
        (b) =>
          `${b.word}=${b.count}x${b.type?.id}${b.left.length ? ' LEFT ' + b.left : ''}${b.others.length ? ` (or ${b.others.map((o) => o.id)})` : ''}`,
      )
      .join(' | '),
  );
  for (const l of d.typed.leads) if (!l.offer) console.log('   - NOTHING FITS', l.from, '>', l.to);
  if (d.typed.noSocket.length) console.log('   nosocket', d.typed.noSocket);
  for (const m of d.made) console.log('   *', m.removed ? '(removed)' : '', sayMade(m.says));
  for (const q of d.decisions)
    console.log('   ?', q.asks, q.options.map((o) => (o.id === q.taken ? `[${o.label}]` : o.label)).join(' / '));
  if (!d.rig) continue;
  const e = evaluate(d.rig);
  const f = check(d.rig, e);
  const bad = e.pairs.filter((p) =>
    p.want === 'must'
      ? p.ways.length === 0 || ['stop', 'fix'].includes(p.verdict.state)
      : p.want === 'must-not'
        ? p.ways.length > 0
        : false,
  );
  for (const p of bad)
    console.log('   !! pair', p.sourceId, '>', p.listenerId, p.want, p.verdict.word, p.verdict.offsetMs);
  for (const x of f.filter((x) => !x.aside))
    console.log('   finding', x.severity, x.rule, x.asks ? `ASK ${x.asks}` : x.says.slice(0, 170));
  console.log(
    '   ',
    Math.round(t1 - t0),
    'ms',
    d.rig.devices.length,
    'devices',
    'wants',
    d.rig.plan.length,
    'pairs',
    e.pairs.filter((p) => p.ways.length).length,
  );
}
