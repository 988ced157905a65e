import { Inject, Injectable } from '@nestjs/common';
import type { Account, Role, SessionInfo } from '@true-ledger/contract';
import { randomUUID } from 'node:crypto';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { DataSource, MoreThan } from 'typeorm';
import { CONFIG, type ServerConfig } from '../config.js';
import { AccountRow, ClaimRow, SessionRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { DUMMY_HASH, hashPassword, newToken, tokenHash, verifyPassword } from './passwords.js';

const SESSION_DAYS = 14;

export function accountOf(row: AccountRow): Account {
  return { id: row.id, name: row.name, signIn: row.signIn, role: row.role, active: row.active };
}

@Injectable()
export class AccountsService {
  private limiter: Promise<RateLimiterPostgres> | null = null;

  constructor(
    private readonly db: DataSource,
    @Inject(CONFIG) private readonly config: ServerConfig,
  ) {}

  /** Counts attempts per name and address in PostgreSQL, so that several server processes share one count. */
  private throttle(): Promise<RateLimiterPostgres> {
    this.limiter ??= new Promise((resolve, reject) => {
      const limiter = new RateLimiterPostgres(
        {
          storeClient: this.db,
          storeType: 'typeorm',
          points: this.config.loginAttempts,
          duration: this.config.loginWindowSeconds,
          tableName: 'login_attempts',
          keyPrefix: 'login',
        },
        (error?: Error) => (error ? reject(error) : resolve(limiter)),
      );
    });
    return this.limiter;
  }

  async signIn(signIn: string, password: string, address: string, agent: string): Promise<{ account: Account; token: string }> {
    const limiter = await this.throttle();
    const key = `${address}|${signIn.toLowerCase()}`;
    try {
      await limiter.consume(key);
    } catch (rejected) {
      if (rejected instanceof Error) throw rejected;
      const minutes = Math.max(1, Math.ceil((rejected as { msBeforeNext: number }).msBeforeNext / 60000));
      throw new ProblemError({
        code: 'too-many-attempts',
        sentence: `Too many attempts for this name. Wait ${minutes} min, then try again, or ask the owner for a new password.`,
      });
    }
    const row = await this.db.getRepository(AccountRow).findOneBy({ signIn: signIn.toLowerCase() });
    const right = await verifyPassword(row?.passwordHash ?? (await DUMMY_HASH), password);
    if (!row || !right || !row.active)
      throw new ProblemError({
        code: 'sign-in-failed',
        sentence: 'Name and password do not fit together. Check both and try again.',
        field: 'password',
      });
    await limiter.delete(key);
    return { account: accountOf(row), token: await this.openSession(row.id, agent) };
  }

  private async openSession(accountId: string, agent: string): Promise<string> {
    const token = newToken();
    const now = new Date();
    await this.db.getRepository(SessionRow).insert({
      id: randomUUID(),
      tokenHash: tokenHash(token),
      accountId,
      agent: agent.slice(0, 200),
      lastSeen: now,
      expires: new Date(now.getTime() + SESSION_DAYS * 86_400_000),
    });
    return token;
  }

  /** Account behind a session token, or null. */
  async accountOfToken(token: string): Promise<{ account: Account; sessionId: string } | null> {
    const sessions = this.db.getRepository(SessionRow);
    const session = await sessions.findOneBy({ tokenHash: tokenHash(token), expires: MoreThan(new Date()) });
    if (!session) return null;
    const row = await this.db.getRepository(AccountRow).findOneBy({ id: session.accountId, active: true });
    if (!row) return null;
    if (Date.now() - session.lastSeen.getTime() > 60_000) await sessions.update(session.id, { lastSeen: new Date() });
    return { account: accountOf(row), sessionId: session.id };
  }

  async signOut(sessionId: string): Promise<void> {
    await this.db.getRepository(SessionRow).delete(sessionId);
  }

  async sessions(accountId: string, current: string): Promise<SessionInfo[]> {
    const rows = await this.db
      .getRepository(SessionRow)
      .find({ where: { accountId, expires: MoreThan(new Date()) }, order: { lastSeen: 'DESC' } });
    return rows.map((s) => ({
      id: s.id,
      created: s.created.toISOString(),
      lastSeen: s.lastSeen.toISOString(),
      agent: s.agent,
      current: s.id === current,
    }));
  }

  async revoke(accountId: string, sessionId: string): Promise<void> {
    await this.db.getRepository(SessionRow).delete({ id: sessionId, accountId });
  }

  async list(): Promise<Account[]> {
    return (await this.db.getRepository(AccountRow).find({ order: { name: 'ASC' } })).map(accountOf);
  }

  async create(input: { name: string; signIn: string; password: string; role: Role }): Promise<Account> {
    const repository = this.db.getRepository(AccountRow);
    const signIn = input.signIn.toLowerCase();
    if (await repository.existsBy({ signIn }))
      throw new ProblemError({
        code: 'account-exists',
        sentence: 'There is an account with this sign-in name already. Choose another.',
        field: 'signIn',
      });
    const row = repository.create({
      id: randomUUID(),
      name: input.name,
      signIn,
      role: input.role,
      active: true,
      passwordHash: await hashPassword(input.password),
    });
    await repository.insert(row);
    return accountOf(row);
  }

  async change(id: string, change: { role?: Role; active?: boolean; password?: string }): Promise<Account> {
    return this.db.transaction(async (tx) => {
      const repository = tx.getRepository(AccountRow);
      const row = await repository.findOne({ where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!row) throw new ProblemError({ code: 'not-found', sentence: 'There is no such account.' });
      if (change.role) row.role = change.role;
      if (change.active !== undefined) row.active = change.active;
      if (change.password) row.passwordHash = await hashPassword(change.password);
      await repository.save(row);
      if ((await repository.countBy({ role: 'owner', active: true })) === 0)
        throw new ProblemError({
          code: 'last-owner',
          sentence: 'This is the last active owner. Make another owner first; nothing was changed.',
        });
      if (change.active === false || change.password) await tx.getRepository(SessionRow).delete({ accountId: id });
      return accountOf(row);
    });
  }

  async hasAccounts(): Promise<boolean> {
    return this.db.getRepository(AccountRow).exists();
  }

  /** Makes a one-time link token for the first owner. */
  async makeClaim(): Promise<string> {
    const token = newToken();
    await this.db.getRepository(ClaimRow).insert({ tokenHash: tokenHash(token), expires: new Date(Date.now() + 24 * 3_600_000) });
    return token;
  }

  /** Uses a one-time link: creates the owner and signs in. */
  async claim(
    input: { token: string; name: string; signIn: string; password: string },
    agent: string,
  ): Promise<{ account: Account; token: string }> {
    const used = await this.db.getRepository(ClaimRow).delete({ tokenHash: tokenHash(input.token), expires: MoreThan(new Date()) });
    if (!used.affected)
      throw new ProblemError({
        code: 'claim',
        sentence: 'This link was used already or has expired. Start the application again for a new one.',
      });
    const account = await this.create({ ...input, role: 'owner' });
    return { account, token: await this.openSession(account.id, agent) };
  }
}
