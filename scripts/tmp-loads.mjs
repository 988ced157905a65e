import { withDemoPage } from './demoPage.mjs';
const [,, out, w='1280', h='800', what=''] = process.argv;
await withDemoPage('4400', { width: +w, height: +h }, async (page, base, signIn) => {
  const cases = await signIn();
  const c = cases.find((x) => x.number === (process.env.CASE ?? '2026-D01'));
  await page.goto(`${base}/case/${c.id}/${process.env.AT ?? 'loads'}`);
  await page.waitForSelector(process.env.READY ?? '.loads .js-plotly-plot .trace', { timeout: 20000 });
  if (what === 'shut') {
    await page.locator('::-p-text(Pin this setting)').click();
    const pick = async (label, option) => {
      const sel = (await page.evaluateHandle((t) => [...document.querySelectorAll('label.wide')].find((l) => l.querySelector('span')?.textContent === t).querySelector('input'), label)).asElement();
      await sel.focus(); await page.keyboard.press('Enter'); await new Promise(r=>setTimeout(r,500));
      await page.evaluate((o) => [...document.querySelectorAll('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option')].find((e) => e.textContent === o).click(), option); await new Promise(r=>setTimeout(r,600));
    };
    await pick('Fault of the oil circuit', 'Feed shut');
    await pick('Bearing', process.env.BEARING ?? 'Rod 2');
  }
  if (what === 'why') { await page.locator('::-p-text(Which setting would explain it)').click(); await page.waitForSelector('.explanations li', {timeout: 20000}).catch(()=>0); }
  await new Promise(r=>setTimeout(r,1200));
  await page.screenshot({ path: out, fullPage: process.env.FULL === '1' });
});
