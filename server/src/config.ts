import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** Settings of one server process, read once from the environment. */
export interface ServerConfig {
  readonly databaseUrl: string;
  readonly port: number;
  readonly host: string;
  readonly root: string;
  readonly loginAttempts: number;
  readonly loginWindowSeconds: number;
  readonly secureCookies: boolean;
  /** The demonstration: where its passwords are written, one password for all, some of its cases only. Absent: a shop of one's own. */
  readonly demo?: {
    readonly accountsFile: string | null;
    readonly password: string | null;
    readonly only: readonly string[] | null;
  } | null;
  /** Addresses of proxies whose word on where a request came from is taken; none unless configured. */
  readonly trustedProxies: readonly string[];
  /** Folder of the shop's signing key, outside the database. */
  readonly keysFolder: string;
  /** A time-stamp authority (RFC 3161) outside, and the certificates (PEM) it is trusted by; absent, the stand-in answers. */
  readonly authorityOutside?: { readonly url: string; readonly certificates: string } | null;
  /** Addresses phones in the shop's network reach; empty on loopback. */
  readonly addresses?: readonly string[];
  /** Seconds the stand-in of a laboratory takes; 15 where nothing is said. */
  readonly laboratorySeconds?: number;
  /** Certificate and key (PEM) to serve with TLS. */
  readonly tls?: { readonly cert: string; readonly key: string } | null;
  /** Certificate of our own authority (PEM), given to phones that are to trust us. */
  readonly authority?: string | null;
}

export const CONFIG = Symbol('config');

/** Folder that holds the workspaces, found upward from the working directory. */
function projectRoot(from: string = process.cwd()): string {
  let folder = from;
  while (!existsSync(join(folder, 'core', 'package.json'))) {
    const up = dirname(folder);
    if (up === folder) throw new Error('The project folder was not found from here. Start the server in it.');
    folder = up;
  }
  return folder;
}

export function readConfig(env: NodeJS.ProcessEnv = process.env): ServerConfig {
  const databaseUrl = env['DATABASE_URL'];
  if (!databaseUrl) throw new Error('DATABASE_URL is not set. Use "npm start", or set it to a PostgreSQL address.');
  return {
    databaseUrl,
    port: Number(env['PORT'] ?? 4310),
    host: env['HOST'] ?? '127.0.0.1',
    root: projectRoot(),
    loginAttempts: Number(env['LOGIN_ATTEMPTS'] ?? 8),
    loginWindowSeconds: Number(env['LOGIN_WINDOW_SECONDS'] ?? 300),
    demo:
      env['TL_DEMO'] === 'yes'
        ? {
            accountsFile: env['TL_DEMO_ACCOUNTS_FILE'] ?? null,
            password: env['TL_DEMO_PASSWORD'] ?? null,
            only: env['TL_DEMO_ONLY']?.split(',') ?? null,
          }
        : null,
    trustedProxies: (env['TL_TRUSTED_PROXIES'] ?? '').split(',').filter(Boolean),
    keysFolder: env['TL_KEYS'] ?? join(projectRoot(), '.data', 'keys'),
    authorityOutside: env['TL_TSA_URL']
      ? { url: env['TL_TSA_URL'], certificates: env['TL_TSA_CERTIFICATES'] ? readFileSync(env['TL_TSA_CERTIFICATES'], 'utf8') : '' }
      : null,
    laboratorySeconds: Number(env['TL_LABORATORY_SECONDS'] ?? 15),
    secureCookies: env['SECURE_COOKIES'] === 'yes',
    addresses: (env['TL_ADDRESSES'] ?? '').split(',').filter(Boolean),
    authority: env['TL_TLS_AUTHORITY'] ? readFileSync(env['TL_TLS_AUTHORITY'], 'utf8') : null,
    tls:
      env['TL_TLS_CERT'] && env['TL_TLS_KEY']
        ? { cert: readFileSync(env['TL_TLS_CERT'], 'utf8'), key: readFileSync(env['TL_TLS_KEY'], 'utf8') }
        : null,
  };
}
