import { fenMuster } from '#demo/fen';
import { checkMuster, compile, oneAfterAnother, worstLateness, present, duration } from '#core/plan';
import { startSearch } from '#core/kernel';
const m = fenMuster('2027-03-01');
const c = compile(m);
console.log('pieces', m.units.flatMap(u=>u.pieces).length, 'ops', c.steps.size, 'hands', c.problem.operations.reduce((s,o)=>s+o.minutes,0));
for (const [n,p] of [['plan',c.problem],['naive',oneAfterAnother(m)]] as const) {
  const t0=performance.now();
  const s = startSearch(p,{progress:()=> (performance.now()-t0)/8000});
  s.step(1); console.log(n,'first',performance.now()-t0, s.best().status, s.best().cost?.total, duration(worstLateness(p,s.best())));
  while(performance.now()-t0<8000 && !s.isDone) s.step(10);
  const b=s.best(); console.log(b.status,b.cost,b.bound,s.tried,b.conflict);
  if (n==='plan'){const pl=present(m,c,b); console.log(pl.units.map(u=>[u.name,u.lateMinutes,u.spareSessions]), pl.sessions.map(x=>Math.round(x.busy*100)).join(' '));}
}
