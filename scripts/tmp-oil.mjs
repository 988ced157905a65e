import { withDemoPage } from './demoPage.mjs';
const [,, width='1280', height='800', ...which]=process.argv;
await withDemoPage('4400', { width:+width, height:+height }, async (page, base, signIn) => {
  await signIn();
  await page.goto(base+'/oil'); await page.waitForSelector('.ant-table-row'); await new Promise(r=>setTimeout(r,800));
  await page.screenshot({path:'/tmp/oil-list.png'});
  const links = await page.$$eval('.ant-table-row a', as=>as.map(a=>[a.textContent,a.getAttribute('href')]));
  console.log(links);
  for (const [k,[name,href]] of links.entries()) { await page.goto(base+href); await page.waitForSelector('.log-charts .js-plotly-plot .trace, .quiet'); await new Promise(r=>setTimeout(r,2500)); await page.screenshot({path:`/tmp/oil-${k}.png`}); await page.screenshot({path:`/tmp/oil-${k}-full.png`, fullPage:true}); }
});
