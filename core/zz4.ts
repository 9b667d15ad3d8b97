import { check } from '#core/check/index.ts';
import { OCCASIONS, readDesk, wordsFor } from '#core/intake/index.ts';
import { evaluate } from '#core/signal/index.ts';

const only = process.argv[2];
for (const o of OCCASIONS) {
  if (only && o.id !== only) continue;
  const variants: Record<string, string>[] = [
    {},
    ...o.asks.flatMap((a) => a.options.slice(1).map((x) => ({ [a.id]: x.id }))),
  ];
  for (const v of variants) {
    const words = wordsFor(o, v);
    const t0 = performance.now();
    const d = readDesk(words, { name: o.name });
    const e = evaluate(d.rig!);
    const f = check(d.rig!, e);
    const bad = e.pairs.filter((p) =>
      p.want === 'must'
        ? p.ways.length === 0 || ['stop', 'fix'].includes(p.verdict.state)
        : p.want === 'must-not'
          ? p.ways.length > 0
          : false,
    );
    const un = d.typed.boxes.filter((b) => !b.type || b.left.length);
    const serious = f.filter((x) => !x.aside && !x.asks && ['stop', 'fix'].includes(x.severity));
    console.log(
      `\n${o.id} ${JSON.stringify(v)} ${Math.round(performance.now() - t0)}ms findings ${f.length} q${d.decisions.length} ${bad.length || un.length || serious.length || f.length > 7 ? '####' : ''} must ${e.pairs.filter((p) => p.want === 'must').length}`,
    );
    if (bad.length || un.length || serious.length || f.length > 7 || only) {
      console.log(words.replace(/^/gm, '    | '));
      for (const m of d.made) console.log('   *', m.says.who, m.says.does, m.says.what, m.says.how, m.says.note);
      for (const q of d.decisions)
        console.log('   ?', q.asks, q.options.map((o) => (o.id === q.taken ? `[${o.label}]` : o.label)).join(' / '));
    }
    for (const p of bad) console.log('   !! pair', p.sourceId, '>', p.listenerId, p.want, p.verdict.word);
    for (const b of un) console.log('   ?? ', b.word, b.left);
    for (const l of d.typed.leads.filter((l) => !l.offer)) console.log('   nothing fits', l.from, l.to);
    for (const x of f) console.log('   finding', x.severity, x.rule, x.asks ? `ASK ${x.asks}` : x.says.slice(0, 150));
  }
}
