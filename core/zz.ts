import { parseRig, findTypes } from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { makeItSo } from '#core/solve/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { bigRig } from '../bench/rigs.ts';
const med = (t: number[]) => t.slice(t.length>>1).sort((a,b)=>a-b)[t.length>>2];
for (const rig of [parseRig(JSON.parse(JSON.stringify(boathouse))), bigRig(60), bigRig(996)]) {
const cold: number[]=[], whole:number[]=[], near:number[]=[];
const first = evaluate(rig);
const types = findTypes(rig);
const flips = rig.devices.flatMap(d=>types.get(d.typeId)!.settings.filter(s=>s.kind==='mute').map(s=>({d, s})));
for (let i=0;i<120;i++){
  {const r={...rig,devices:rig.devices.map(d=>({...d})),cables:rig.cables.map(c=>({...c}))};const a=performance.now();evaluate(r);cold.push(performance.now()-a)}
  {const r={...rig,devices:[...rig.devices],cables:[...rig.cables]};const a=performance.now();evaluate(r);whole.push(performance.now()-a)}
  {const {d,s}=flips[(i*7)%flips.length]!; const dd={...d,settings:{...d.settings,[s.id]:{value:!(d.settings[s.id]?.value??s.default),known:'seen' as const}}}; const r={...rig,devices:rig.devices.map(x=>x===d?dd:x)};const a=performance.now();evaluate(r, first);near.push(performance.now()-a)}
}
console.log('cold',med(cold)!.toFixed(2),'whole',med(whole)!.toFixed(2),'near',med(near)!.toFixed(3), 'mean near', (near.slice(60).reduce((a,b)=>a+b)/60).toFixed(3));
}
const rig=parseRig(JSON.parse(JSON.stringify(boathouse)));
for (let i=0;i<3;i++){const t0=performance.now();
const m = makeItSo({...rig}, undefined);
console.log(performance.now()-t0, m.evaluations, m.proved);}
