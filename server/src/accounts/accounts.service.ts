import { Inject, Injectable } from '@nestjs/common';
import type { Account, Role, SessionInfo } from '@true-ledger/contract';
import { randomUUID } from 'node:crypto';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { Subject } from 'rxjs';
import { DataSource, In, IsNull, MoreThan, Not, type EntityManager } from 'typeorm';
import { CONFIG, type ServerConfig } from '../config.js';
import { AccountCaseRow, AccountRow, CaseRow, ClaimRow, SessionRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { checkPassword, looksOf } from './names.js';
import { DUMMY_HASH, hashPassword, newToken, tokenHash, verifyPassword } from './passwords.js';

const SESSION_DAYS = 14;
/** People behind one address of a workshop: so many times the attempts of one name are its attempts. */
const NAMES_PER_ADDRESS = 4;
export const ACCOUNT_CHANNEL = 'true_ledger_account';

/** What an account has open is to end: all of it, one session, or all but one. */
export interface AccountEnded {
  readonly accountId: string;
  readonly session?: string;
  readonly except?: string;
}

/** Does it end a stream of that account and session? */
export function endsFor(ended: AccountEnded, accountId: string, session: string): boolean {
  return ended.accountId === accountId && (ended.session === undefined || ended.session === session) && ended.except !== session;
}

interface Limiters {
  readonly name: RateLimiterPostgres;
  readonly address: RateLimiterPostgres;
}

interface NewAccount {
  readonly id?: string;
  readonly name: string;
  readonly signIn: string;
  readonly password: string;
  readonly role: Role;
}

function accountOf(row: AccountRow): Account {
  return { id: row.id, name: row.name, signIn: row.signIn, role: row.role, active: row.active, allCases: row.allCases };
}

@Injectable()
export class AccountsService {
  private limiters: Promise<Limiters> | null = null;
  /** Accounts whose rights have changed or whose sessions ended, in this process. */
  readonly ended = new Subject<AccountEnded>();

  constructor(
    private readonly db: DataSource,
    @Inject(CONFIG) private readonly config: ServerConfig,
  ) {}

  /** Counts attempts in PostgreSQL, so that several server processes share one count: per name whatever the address, and per address whatever the names. */
  private throttle(): Promise<Limiters> {
    const limiter = (keyPrefix: string, points: number): Promise<RateLimiterPostgres> =>
      new Promise((resolve, reject) => {
        const made = new RateLimiterPostgres(
          {
            storeClient: this.db,
            storeType: 'typeorm',
            points,
            duration: this.config.loginWindowSeconds,
            tableName: 'login_attempts',
            keyPrefix,
          },
          (error?: Error) => (error ? reject(error) : resolve(made)),
        );
      });
    this.limiters ??= (async (): Promise<Limiters> => ({
      name: await limiter('name', this.config.loginAttempts),
      address: await limiter('address', this.config.loginAttempts * NAMES_PER_ADDRESS),
    }))().catch((error: unknown) => {
      // Not kept: the next who signs in tries again.
      this.limiters = null;
      throw error;
    });
    return this.limiters;
  }

  /** Spends one attempt of each; throws when one is used up. Gives back the name's once the password was right. */
  private async attempt(name: string, address: string): Promise<() => Promise<void>> {
    const limiters = await this.throttle();
    for (const [limiter, key, what] of [
      [limiters.address, address, 'from this address'],
      [limiters.name, name, 'for this name'],
    ] as const) {
      try {
        await limiter.consume(key);
      } catch (rejected) {
        if (rejected instanceof Error) throw rejected;
        const minutes = Math.max(1, Math.ceil((rejected as { msBeforeNext: number }).msBeforeNext / 60000));
        throw new ProblemError({
          code: 'too-many-attempts',
          sentence: `Too many attempts ${what}. Wait ${minutes} min, then try again, or ask the owner for a new password.`,
        });
      }
    }
    return async () => {
      await limiters.name.delete(name);
      await limiters.address.reward(address, 1);
    };
  }

  async signIn(signIn: string, password: string, address: string, agent: string): Promise<{ account: Account; token: string }> {
    const name = signIn.toLowerCase();
    const giveBack = await this.attempt(name, address);
    const row = await this.db.getRepository(AccountRow).findOneBy({ signIn: name });
    const right = await verifyPassword(row?.passwordHash ?? (await DUMMY_HASH), password);
    if (!row || !right || !row.active)
      throw new ProblemError({
        code: 'sign-in-failed',
        sentence: 'Name and password do not fit together. Check both and try again.',
        field: 'password',
      });
    await giveBack();
    return { account: accountOf(row), token: await this.openSession(row.id, agent) };
  }

  /** Changes one's own password; every other session of the account ends. */
  async changeOwn(account: Account, sessionId: string, current: string, fresh: string, address: string): Promise<void> {
    const giveBack = await this.attempt(account.signIn, address);
    const row = await this.db.getRepository(AccountRow).findOneByOrFail({ id: account.id });
    if (!(await verifyPassword(row.passwordHash, current)))
      throw new ProblemError({
        code: 'password-wrong',
        sentence: 'The password in use is another. Nothing was changed; type it again.',
        field: 'current',
      });
    checkPassword(fresh, [row.name, row.signIn]);
    await giveBack();
    await this.db.getRepository(AccountRow).update(row.id, { passwordHash: await hashPassword(fresh) });
    const others = await this.db.getRepository(SessionRow).delete({ accountId: row.id, id: Not(sessionId) });
    if (others.affected) await this.tell({ accountId: row.id, except: sessionId });
  }

  /** Lets every server of the shop end what the account has open: event streams and sockets. */
  private async tell(ended: AccountEnded): Promise<void> {
    await this.db.query('SELECT pg_notify($1, $2)', [ACCOUNT_CHANNEL, JSON.stringify(ended)]);
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
    // Asked with every request, so in one go and by hand.
    const [row] = (await this.db.query(
      `SELECT a.*, s.id AS "sessionId", s."lastSeen" FROM sessions s JOIN accounts a ON a.id = s."accountId"
       WHERE s."tokenHash" = $1 AND s.expires > now() AND a.active`,
      [tokenHash(token)],
    )) as Array<AccountRow & { sessionId: string; lastSeen: Date }>;
    if (!row) return null;
    if (Date.now() - row.lastSeen.getTime() > 60_000)
      await this.db.getRepository(SessionRow).update(row.sessionId, { lastSeen: new Date() });
    return { account: accountOf(row), sessionId: row.sessionId };
  }

  async signOut(sessionId: string): Promise<void> {
    const row = await this.db.getRepository(SessionRow).findOneBy({ id: sessionId });
    await this.db.getRepository(SessionRow).delete(sessionId);
    if (row) await this.tell({ accountId: row.accountId, session: sessionId });
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
    await this.tell({ accountId, session: sessionId });
  }

  async list(): Promise<Account[]> {
    return (await this.db.getRepository(AccountRow).find({ order: { name: 'ASC' } })).map(accountOf);
  }

  async create(input: NewAccount): Promise<Account> {
    return this.db.transaction((tx) => this.createIn(tx, input));
  }

  private async createIn(tx: EntityManager, input: NewAccount): Promise<Account> {
    const repository = tx.getRepository(AccountRow);
    const signIn = input.signIn.toLowerCase();
    checkPassword(input.password, [input.name, signIn]);
    // One after the other, so that of two that look alike one is made.
    await tx.query('SELECT pg_advisory_xact_lock(hashtext($1))', ['accounts']);
    const all = await repository.find();
    if (all.some((a) => a.signIn === signIn))
      throw new ProblemError({
        code: 'account-exists',
        sentence: 'There is an account with this sign-in name already. Choose another.',
        field: 'signIn',
      });
    const alike = all.find((a) => looksOf(a.name) === looksOf(input.name));
    if (alike)
      throw new ProblemError({
        code: 'account-exists',
        sentence: `This name looks like that of ${alike.name} (${alike.signIn}), and entries are signed with names. Add a second name or a number.`,
        field: 'name',
      });
    const row = repository.create({
      id: input.id ?? randomUUID(),
      name: input.name,
      signIn,
      role: input.role,
      active: true,
      allCases: true,
      passwordHash: await hashPassword(input.password),
    });
    await repository.insert(row);
    return accountOf(row);
  }

  async change(
    id: string,
    change: { role?: Role; active?: boolean; password?: string; cases?: readonly string[] | null },
  ): Promise<Account> {
    const changed = await this.db.transaction(async (tx) => {
      const repository = tx.getRepository(AccountRow);
      await tx.query('SELECT pg_advisory_xact_lock(hashtext($1))', ['accounts']);
      const row = await repository.findOne({ where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!row) throw new ProblemError({ code: 'not-found', sentence: 'There is no such account.' });
      if (change.role) row.role = change.role;
      if (change.active !== undefined) row.active = change.active;
      if (change.password) {
        checkPassword(change.password, [row.name, row.signIn]);
        row.passwordHash = await hashPassword(change.password);
      }
      if (change.cases !== undefined) {
        row.allCases = change.cases === null;
        await tx.getRepository(AccountCaseRow).delete({ accountId: id });
        const known =
          change.cases === null ? [] : await tx.getRepository(CaseRow).find({ where: { id: In([...change.cases]) }, select: { id: true } });
        if (change.cases !== null && known.length !== new Set(change.cases).size)
          throw new ProblemError({ code: 'not-found', sentence: 'One of these cases is not here. Nothing was changed.', field: 'cases' });
        if (known.length > 0) await tx.getRepository(AccountCaseRow).insert(known.map((c) => ({ accountId: id, caseId: c.id })));
      }
      await repository.save(row);
      if ((await repository.countBy({ role: 'owner', active: true })) === 0)
        throw new ProblemError({
          code: 'last-owner',
          sentence: 'This is the last active owner. Make another owner first; nothing was changed.',
        });
      if (change.active === false || change.password) await tx.getRepository(SessionRow).delete({ accountId: id });
      return accountOf(row);
    });
    await this.tell({ accountId: id });
    return changed;
  }

  /** Cases an account may see; null: all. */
  async casesOf(account: Account): Promise<ReadonlySet<string> | null> {
    if (account.allCases || account.role !== 'reader') return null;
    return new Set((await this.db.getRepository(AccountCaseRow).findBy({ accountId: account.id })).map((r) => r.caseId));
  }

  async chosenCases(id: string): Promise<readonly string[] | null> {
    const row = await this.db.getRepository(AccountRow).findOneBy({ id });
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'There is no such account.' });
    return row.allCases ? null : (await this.db.getRepository(AccountCaseRow).findBy({ accountId: id })).map((r) => r.caseId);
  }

  async maySee(account: Account, caseId: string): Promise<boolean> {
    if (account.allCases || account.role !== 'reader') return true;
    return this.db.getRepository(AccountCaseRow).existsBy({ accountId: account.id, caseId });
  }

  async hasAccounts(): Promise<boolean> {
    return this.db.getRepository(AccountRow).exists();
  }

  /** Makes a one-time link token: for the first owner, or for an owner who lost his password. Links made before are dead. */
  async makeClaim(accountId: string | null = null): Promise<string> {
    const token = newToken();
    const claims = this.db.getRepository(ClaimRow);
    await claims.createQueryBuilder().delete().execute();
    await claims.insert({ tokenHash: tokenHash(token), expires: new Date(Date.now() + 24 * 3_600_000), accountId });
    return token;
  }

  /** Link by which an owner sets a new password; told on the server's own console only. */
  async makeRecovery(signIn: string): Promise<string> {
    const row = await this.db.getRepository(AccountRow).findOneBy({ signIn: signIn.toLowerCase() });
    if (!row || row.role !== 'owner')
      throw new ProblemError({ code: 'not-found', sentence: `No owner signs in as "${signIn}". Nothing was changed.` });
    return this.makeClaim(row.id);
  }

  /** Uses the link of the first run: creates the owner and signs in. A name or password that is not taken leaves the link as it is. */
  async claim(
    input: { token: string; name: string; signIn: string; password: string },
    agent: string,
  ): Promise<{ account: Account; token: string }> {
    const account = await this.db.transaction(async (tx) => {
      await tx.query('SELECT pg_advisory_xact_lock(hashtext($1))', ['claim']);
      const used = await tx
        .getRepository(ClaimRow)
        .delete({ tokenHash: tokenHash(input.token), expires: MoreThan(new Date()), accountId: IsNull() });
      if (!used.affected || (await tx.getRepository(AccountRow).existsBy({ role: 'owner' }))) throw claimDead();
      return this.createIn(tx, { name: input.name, signIn: input.signIn, password: input.password, role: 'owner' });
    });
    return { account, token: await this.openSession(account.id, agent) };
  }

  /** Uses the link of a recovery: sets the password, makes the account active again, ends its sessions and signs in. */
  async recover(input: { token: string; password: string }, agent: string): Promise<{ account: Account; token: string }> {
    const account = await this.db.transaction(async (tx) => {
      const claim = await tx.getRepository(ClaimRow).findOneBy({ tokenHash: tokenHash(input.token), expires: MoreThan(new Date()) });
      const row = claim?.accountId ? await tx.getRepository(AccountRow).findOneBy({ id: claim.accountId, role: 'owner' }) : null;
      if (!claim || !row) throw claimDead();
      checkPassword(input.password, [row.name, row.signIn]);
      await tx.getRepository(ClaimRow).delete({ tokenHash: claim.tokenHash });
      await tx.getRepository(SessionRow).delete({ accountId: row.id });
      await tx.getRepository(AccountRow).update(row.id, { passwordHash: await hashPassword(input.password), active: true });
      return accountOf({ ...row, active: true });
    });
    await (await this.throttle()).name.delete(account.signIn);
    await this.tell({ accountId: account.id });
    return { account, token: await this.openSession(account.id, agent) };
  }
}

const claimDead = (): ProblemError =>
  new ProblemError({
    code: 'claim',
    sentence: 'This link was used already, has expired or is not the newest. Make a new one on the server.',
  });
