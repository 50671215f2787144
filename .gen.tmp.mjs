import { build } from 'esbuild'; import { writeFileSync } from 'node:fs';
const src=`export * from './core/language'; export * from './core/testing/generated-lines'; import fc from 'fast-check'; export {fc};`;
const b=await build({stdin:{contents:src,resolveDir:'/work/main'},bundle:true,write:false,format:'esm',platform:'node',logLevel:'error',tsconfig:'/work/main/tsconfig.server.json'});
writeFileSync('/tmp/w/bundle4.mjs',b.outputFiles[0].contents);
const m=await import('/tmp/w/bundle4.mjs');
const N=Number(process.argv[2]), seed=Number(process.argv[3]??1); let n=0,bad=0,ask=0,wrong=0,ref=0; const out=[];
const t=performance.now();
for(const {clauses,text,phrase} of m.fc.sample(m.anyLine,{numRuns:N,seed})){
  const built=m.BUILDS.get(phrase); const want=m.meant(clauses,built); if(want===null) continue; n++;
  const r=m.readLine(text,built); const got=r.kind==='meant'?r.all.map(x=>m.looks(x.pattern.strokes)):[];
  if(got.length===1&&got[0]===want) continue; bad++;
  if(r.kind!=='meant'){ref++; out.push('REF '+text+' || '+(r.diagnostics??[]).map(d=>d.words+':'+d.why).join());} else if(got.includes(want)){ask++; out.push('ASK '+text+' || '+r.all.map(x=>x.words).join(' OR '));} else {wrong++; out.push('WRONG '+text+' || '+r.all.map(x=>x.words).join(' OR ')+' || '+phrase);}
}
console.log({n,bad,ref,ask,wrong,ms:((performance.now()-t)/n).toFixed(1)}); console.log(out.sort((a,b)=>a.length-b.length).slice(0,Number(process.argv[4]??25)).join('\n'));
