import { Controller, Delete, Get, Inject, Param, ParseUUIDPipe, Patch, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import {
  accountChangeSchema,
  accountSchema,
  claimSchema,
  passwordSchema,
  recoverSchema,
  signInSchema,
  type Account,
  type Me,
  type SessionInfo,
  type AccountChange,
  type AccountRequest,
  type ClaimRequest,
  type PasswordRequest,
  type RecoverRequest,
  type SignInRequest,
  answers,
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
  @Answers(answers.me)
  async signIn(
    @Checked(signInSchema) body: SignInRequest,
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
  @Answers(answers.me)
  async claim(
    @Checked(claimSchema) body: ClaimRequest,
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
  @Answers(answers.me)
  async recover(
    @Checked(recoverSchema) body: RecoverRequest,
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
  @Answers(answers.done)
  async password(
    @Checked(passwordSchema) body: PasswordRequest,
    @Req() request: SignedRequest,
    @Who() account: Account,
  ): Promise<{ ok: true }> {
    await this.accounts.changeOwn(account, request.sessionId ?? '', body.current, body.fresh, request.ip ?? '');
    return { ok: true };
  }

  /** Cases a reader with chosen cases may see; null: all. */
  @Needs('owner')
  @Get('accounts/:id/cases')
  @Answers(answers.accountCases)
  async cases(@Param('id', ParseUUIDPipe) id: string): Promise<{ cases: readonly string[] | null }> {
    return { cases: await this.accounts.chosenCases(id) };
  }

  @Needs('reader')
  @Post('sign-out')
  @Answers(answers.done)
  async signOut(@Req() request: SignedRequest, @Res({ passthrough: true }) response: Response): Promise<{ ok: true }> {
    await this.accounts.signOut(request.sessionId ?? '');
    response.clearCookie(SESSION_COOKIE, { path: '/' });
    return { ok: true };
  }

  @Get('me')
  @Answers(answers.me)
  current(@Who() account: Account): Me {
    return me(account);
  }

  @Get('sessions')
  @Answers(answers.sessions)
  sessions(@Req() request: SignedRequest, @Who() account: Account): Promise<SessionInfo[]> {
    return this.accounts.sessions(account.id, request.sessionId ?? '');
  }

  @Needs('reader')
  @Delete('sessions/:id')
  @Answers(answers.done)
  async revoke(@Param('id', ParseUUIDPipe) id: string, @Who() account: Account): Promise<{ ok: true }> {
    await this.accounts.revoke(account.id, id);
    return { ok: true };
  }

  @Needs('owner')
  @Get('accounts')
  @Answers(answers.accounts)
  list(): Promise<Account[]> {
    return this.accounts.list();
  }

  @Needs('owner')
  @Post('accounts')
  @Answers(answers.account)
  create(@Checked(accountSchema) body: AccountRequest): Promise<Account> {
    return this.accounts.create(body);
  }

  @Needs('owner')
  @Patch('accounts/:id')
  @Answers(answers.account)
  change(@Param('id', ParseUUIDPipe) id: string, @Checked(accountChangeSchema) body: AccountChange): Promise<Account> {
    return this.accounts.change(id, body);
  }
}
