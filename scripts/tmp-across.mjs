import { withDemoPage } from './demoPage.mjs';
const [,, width='1280', height='800']=process.argv;
await withDemoPage('4400', { width:+width, height:+height }, async (page, base, signIn) => {
  await signIn();
  for (let k=0;k<150;k++){ const d=await page.evaluate(async()=> (await fetch('/api/demo')).json()); if (d.taken===d.total) break; await new Promise(r=>setTimeout(r,1000)); if(k%10===0) console.log(d); }
  for (let k=0;k<100;k++){ const d=await page.evaluate(async()=> (await fetch('/api/cases')).json()); const b=d.filter(c=>c.behind>0).length; if (b===0) break; await new Promise(r=>setTimeout(r,1500)); if(k%10===0) console.log('behind',b);}
  const t=await page.evaluate(async()=>{const a=performance.now(); await (await fetch('/api/across')).json(); return performance.now()-a;}); console.log('across ms',t);
  await page.goto(base+'/across'); await page.waitForSelector('.across-grid'); await new Promise(r=>setTimeout(r,2500));
  await page.screenshot({path:`/tmp/across-${width}.png`}); await page.screenshot({path:`/tmp/across-${width}-full.png`, fullPage:true});
  await page.type('input[placeholder^="Find words"]','ferry injector'); await new Promise(r=>setTimeout(r,1500)); await page.screenshot({path:`/tmp/found-${width}.png`});
  await page.goto(base+'/oil'); await page.waitForSelector('.ant-table-row');
  const href=await page.$$eval('.ant-table-row a', as=>as.find(a=>a.textContent.includes('E-03')).getAttribute('href'));
  await page.goto(base+href); await page.waitForSelector('.log-charts .trace'); await new Promise(r=>setTimeout(r,2500)); await page.screenshot({path:`/tmp/e03-${width}.png`}); await page.evaluate(()=>document.querySelector('.log-charts').scrollIntoView()); await new Promise(r=>setTimeout(r,500)); await page.screenshot({path:`/tmp/e03b-${width}.png`});
});
