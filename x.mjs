import * as core from '@true-ledger/core';
import {readFileSync} from 'fs';
for(const f of ['bench/cases/tuning/main-two-blind.json','bench/cases/tuning/lobe-then-bearings.json','bench/cases/tuning/boiled-and-dry.json']){
const v=core.readCaseFile(JSON.parse(readFileSync(f))).value.view;const d=core.diagnose(v);const s=core.proposeSequence(v,d);
console.log(f,s.explained,'/',s.of);for(const l of s.links)console.log('  ',l.from,'→',l.to,l.strength.toFixed(2),l.doubtful?'?':'');console.log(s.contradictions.map(c=>c.words).join('\n'));
const p=core.placeSequence(s);console.log(p.width,p.height,p.nodes.length);
console.log(core.answerability(d).slice(0,2).map(a=>a.who+a.probability.toFixed(2)));
}
