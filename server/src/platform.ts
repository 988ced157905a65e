import { hashWith } from '@true-ledger/core/kit';
import { createHash } from 'node:crypto';

// Said once in every process and thread of the server, by importing this.
hashWith((data) => createHash('sha256').update(data).digest('hex'));
