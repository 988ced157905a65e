import { AccountsService } from './accounts/accounts.service.js';
import { makeApp } from './app.js';
import { readConfig } from './config.js';
import { DemoService } from './demo/demo.service.js';
import { sweepLeftovers } from './intake/leftovers.js';

// The last net under what a library rejects beside any request: the shop stays open and the log tells.
process.on('unhandledRejection', (reason) => console.error('Not handled:', reason instanceof Error ? reason.stack : reason));

const config = readConfig();
await sweepLeftovers();
const app = await makeApp(config);
await app.listen(config.port, config.host);
const demo = app.get(DemoService);
const left = await demo.prepare();
const accounts = app.get(AccountsService);
if (!(await accounts.hasAccounts())) {
  console.log(`CLAIM ${config.addresses?.[0] ?? `http://${config.host}:${config.port}`}/claim#${await accounts.makeClaim()}`);
}
console.log('READY');
await demo.takeIn(left, ({ taken, total, number }) => console.log(`DEMO ${taken} of ${total} ${number}`));
