import { searchPlan, startingPlan, nozzleFor } from '../src/core/heat';
import { demoBoard, demoStations } from '../demo/files';
for (const [id,ref] of [['heronlog-4-c','U4'],['heronlog-4-c','U2'],['heronlog-4-c','L1'],['marshdesk-2-b','U12'],['marshdesk-2-b','U3']] as const) for (const st of [demoStations()[0]]) {
 const b=demoBoard(id); const p=b.parts.find(q=>q.ref===ref); if(!p) continue;
 const a=performance.now(); const f=searchPlan(b,st,startingPlan(ref,b.alloy,nozzleFor(st.nozzlesMm,b.packages[p.package].bodyMm)))!;
 console.log(id,ref,st.id,((performance.now()-a)/1000).toFixed(1)+'s',f.marginK.toFixed(2),f.fragile,f.underDoubtK.map(x=>x.toFixed(1)),f.changes.join('; '),'tried',f.tried,'runs',f.runs);
}
