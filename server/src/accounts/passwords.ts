import { hash, verify } from '@node-rs/argon2';
import { createHash, randomBytes } from 'node:crypto';

/** Argon2id, 19 MiB, 2 passes, 1 lane (OWASP password storage, 2023). */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export function hashPassword(password: string): Promise<string> {
  return hash(password, COST);
}

export function verifyPassword(passwordHash: string, password: string): Promise<boolean> {
  return verify(passwordHash, password);
}

/** A hash nobody's password has; verified against for unknown names so that they take as long as known ones. */
export const DUMMY_HASH = hashPassword(randomBytes(24).toString('hex'));

export function newToken(): string {
  return randomBytes(32).toString('hex');
}

export function tokenHash(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
