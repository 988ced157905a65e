// node scripts/cluster.mjs FOLDER start|stop|kill – a PostgreSQL cluster of our own; prints its address after start.
import { resolve } from 'node:path';
import { Cluster } from './database.mjs';

const [folder, action] = process.argv.slice(2);
const cluster = new Cluster(resolve(folder));
if (action === 'start') {
  await cluster.start();
  console.log(cluster.url('postgres'));
} else if (action === 'stop') cluster.stop();
else if (action === 'kill') cluster.stop('immediate');
else {
  console.error('Say start, stop or kill.');
  process.exitCode = 2;
}
