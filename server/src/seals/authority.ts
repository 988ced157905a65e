import { createServer } from 'node:http';
import { STAMP_LIMIT } from '@true-ledger/core/bundle';
import { StandInAuthority } from './standInAuthority.js';

/** The simulated authority as a program of its own, over HTTP as RFC 3161 (3.4) has it; for trying the way to one outside. On loopback only. */
const [file = 'stand-in-authority.json', port = '4380'] = process.argv.slice(2);
const authority = new StandInAuthority(file);
const server = createServer((request, response) => {
  if (request.method === 'GET') {
    void authority.rootPem().then((pem) => response.setHeader('Content-Type', 'application/x-pem-file').end(pem));
    return;
  }
  const parts: Buffer[] = [];
  let length = 0;
  request.on('data', (part: Buffer) => {
    length += part.length;
    if (length > STAMP_LIMIT) request.destroy();
    else parts.push(part);
  });
  request.on('end', () => {
    authority.answer(Buffer.concat(parts)).then(
      (reply) => response.setHeader('Content-Type', 'application/timestamp-reply').end(reply),
      () => response.writeHead(400).end(),
    );
  });
});
server.listen(Number(port), '127.0.0.1', () =>
  process.stdout.write(
    `READY Simulated time-stamp authority at http://127.0.0.1:${(server.address() as { port: number }).port}/ (GET gives its certificate)\n`,
  ),
);
