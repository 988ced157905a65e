import { Controller, Delete, Get, Inject, Param, ParseUUIDPipe, Patch, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  accountChangeSchema,
  accountSchema,
  claimSchema,
  passwordSchema,
  recoverSchema,
  signInSchema,
  type Account,
  type Me,
  type Role,
  type SessionInfo,
} from '@true-ledger/contract';
import type { Response } from 'express';
import { CONFIG, type ServerConfig } from '../config.js';
import { AccountsService } from './accounts.service.js';
import { Needs, Public, SESSION_COOKIE, Who, type SignedRequest } from './guard.js';
import { Checked } from '../http/checked.js';

const me = (account: Account): Me => ({ account, author: { id: account.id, name: account.name } });

@ApiTags('accounts')
@Controller('api')
export class AccountsController {
  constructor(
    private readonly accounts: AccountsService,
    @Inject(CONFIG) private readonly config: ServerConfig,
  ) {}

  private give(response: Response, token: string): void {
    response.cookie(SESSION_COOKIE, token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: this.config.secureCookies,
      path: '/',
      maxAge: 14 * 86_400_000,
    });
  }

  @Public()
  @Post('sign-in')
  async signIn(
    @Checked(signInSchema) body: { signIn: string; password: string },
    @Req() request: SignedRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Me> {
    const { account, token } = await this.accounts.signIn(
      body.signIn,
      body.password,
      request.ip ?? '',
      request.headers['user-agent'] ?? '',
    );
    this.give(response, token);
    return me(account);
  }

  @Public()
  @Post('claim')
  async claim(
    @Checked(claimSchema) body: { token: string; name: string; signIn: string; password: string },
    @Req() request: SignedRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Me> {
    const { account, token } = await this.accounts.claim(body, request.headers['user-agent'] ?? '');
    this.give(response, token);
    return me(account);
  }

  /** Sets the password of an owner who lost it, by the link the server's console told. */
  @Public()
  @Post('recover')
  async recover(
    @Checked(recoverSchema) body: { token: string; password: string },
    @Req() request: SignedRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Me> {
    const { account, token } = await this.accounts.recover(body, request.headers['user-agent'] ?? '');
    this.give(response, token);
    return me(account);
  }

  /** Changes one's own password. */
  @Needs('reader')
  @Post('password')
  async password(
    @Checked(passwordSchema) body: { current: string; fresh: string },
    @Req() request: SignedRequest,
    @Who() account: Account,
  ): Promise<{ ok: true }> {
    await this.accounts.changeOwn(account, request.sessionId ?? '', body.current, body.fresh, request.ip ?? '');
    return { ok: true };
  }

  /** Cases a reader with chosen cases may see; null: all. */
  @Needs('owner')
  @Get('accounts/:id/cases')
  async cases(@Param('id', ParseUUIDPipe) id: string): Promise<{ cases: readonly string[] | null }> {
    return { cases: await this.accounts.chosenCases(id) };
  }

  @Needs('reader')
  @Post('sign-out')
  async signOut(@Req() request: SignedRequest, @Res({ passthrough: true }) response: Response): Promise<{ ok: true }> {
    await this.accounts.signOut(request.sessionId ?? '');
    response.clearCookie(SESSION_COOKIE, { path: '/' });
    return { ok: true };
  }

  @Get('me')
  current(@Who() account: Account): Me {
    return me(account);
  }

  @Get('sessions')
  sessions(@Req() request: SignedRequest, @Who() account: Account): Promise<SessionInfo[]> {
    return this.accounts.sessions(account.id, request.sessionId ?? '');
  }

  @Needs('reader')
  @Delete('sessions/:id')
  async revoke(@Param('id', ParseUUIDPipe) id: string, @Who() account: Account): Promise<{ ok: true }> {
    await this.accounts.revoke(account.id, id);
    return { ok: true };
  }

  @Needs('owner')
  @Get('accounts')
  list(): Promise<Account[]> {
    return this.accounts.list();
  }

  @Needs('owner')
  @Post('accounts')
  create(@Checked(accountSchema) body: { name: string; signIn: string; password: string; role: Role }): Promise<Account> {
    return this.accounts.create(body);
  }

  @Needs('owner')
  @Patch('accounts/:id')
  change(
    @Param('id', ParseUUIDPipe) id: string,
    @Checked(accountChangeSchema) body: { role?: Role; active?: boolean; password?: string; cases?: readonly string[] | null },
  ): Promise<Account> {
    return this.accounts.change(id, body);
  }
}
