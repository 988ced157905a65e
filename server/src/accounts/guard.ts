import { createParamDecorator, Inject, Injectable, SetMetadata, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Account, Role } from '@true-ledger/contract';
import type { Request } from 'express';
import { ProblemError } from '../http/problem.js';
import { AccountsService } from './accounts.service.js';

export const SESSION_COOKIE = 'true_ledger_session';

export interface SignedRequest extends Request {
  account?: Account;
  sessionId?: string;
  cookies: Record<string, string | undefined>;
}

/** Open to everyone: sign-in and health only. */
export const Public = (): MethodDecorator => SetMetadata('public', true);
/** Least role a handler needs. */
export const Needs = (role: Role): MethodDecorator => SetMetadata('role', role);
/** Token of the session, when the request brings one that can be one. */
export function sessionToken(request: { readonly cookies?: Readonly<Record<string, unknown>> }): string | null {
  const token = request.cookies?.[SESSION_COOKIE];
  return typeof token === 'string' && /^[0-9a-f]{64}$/.test(token) ? token : null;
}

export const Who = createParamDecorator(
  (_: unknown, context: ExecutionContext): Account => context.switchToHttp().getRequest<SignedRequest>().account as Account,
);

const RANK: Readonly<Record<Role, number>> = { reader: 0, builder: 1, owner: 2 };

/** Every request needs a session; what changes anything needs at least a builder and our own origin. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    @Inject(Reflector) private readonly reflector: Reflector,
    private readonly accounts: AccountsService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<SignedRequest>();
    const changes = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
    if (changes) checkOrigin(request);
    if (this.reflector.get<boolean>('public', context.getHandler())) return true;
    const token = sessionToken(request);
    const found = token ? await this.accounts.accountOfToken(token) : null;
    if (!found)
      throw new ProblemError({
        code: 'signed-out',
        sentence: 'You are not signed in, or the session has ended. Sign in again; what was not yet saved is kept in this browser.',
      });
    request.account = found.account;
    request.sessionId = found.sessionId;
    const need = this.reflector.get<Role>('role', context.getHandler()) ?? (changes ? 'builder' : 'reader');
    if (RANK[found.account.role] < RANK[need])
      throw new ProblemError({
        code: 'forbidden',
        sentence: `This needs the role ${need}; you are signed in as ${found.account.role}. Nothing was changed.`,
      });
    const { caseId } = request.params as { caseId?: string };
    // Not "forbidden": who may not see a case is not told that there is one.
    if (caseId !== undefined && !(isUuid(caseId) && (await this.accounts.maySee(found.account, caseId))))
      throw new ProblemError({ code: 'not-found', sentence: 'There is no such case.' });
    return true;
  }
}

const isUuid = (text: string): boolean => /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text);

/** A request that changes something must come from a page of this very server. */
function checkOrigin(request: Request): void {
  const origin = request.headers.origin;
  const site = request.headers['sec-fetch-site'];
  const own = origin !== undefined && safeHost(origin) === request.headers.host;
  if (own || (origin === undefined && (site === undefined || site === 'same-origin'))) return;
  throw new ProblemError({ code: 'origin', sentence: 'This request came from another site and was refused. Nothing was changed.' });
}

function safeHost(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
