import type { ApiError, Outcome } from '@true-ledger/contract';

const UNREACHABLE: ApiError = {
  code: 'unreachable',
  sentence: 'The server cannot be reached just now. What you wrote is kept in this browser and sent when it answers again.',
};

/** Any failure as the one error shape. */
export function asProblem(error: unknown): ApiError {
  const data = (error as { data?: unknown } | undefined)?.data;
  if (data && typeof data === 'object' && 'code' in data && 'sentence' in data) return data as ApiError;
  const direct = error as Partial<ApiError> | undefined;
  return direct?.code && direct.sentence ? (direct as ApiError) : UNREACHABLE;
}

export interface ServedFile {
  readonly blob: Blob;
  /** Name the server gives it; null where it gives none. */
  readonly name: string | null;
}

async function ask<T>(address: string, take: (response: Response) => Promise<T>, init: RequestInit): Promise<Outcome<T>> {
  try {
    const response = await fetch(address, { credentials: 'same-origin', ...init });
    if (response.ok) return { ok: true, value: await take(response) };
    return { ok: false, problem: asProblem({ data: (await response.json().catch(() => null)) as unknown }) };
  } catch (error) {
    return { ok: false, problem: asProblem(error) };
  }
}

/** Fetches a file of the server; bytes have no place in the store that holds what the API answers. */
export function fetchFile(address: string, init: RequestInit = {}): Promise<Outcome<ServedFile>> {
  const take = async (response: Response): Promise<ServedFile> => ({
    blob: await response.blob(),
    name: /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? null,
  });
  return ask(address, take, init);
}

/** Fetches an answer past the store: nobody keeps it, nobody is told of it. */
export function fetchJson<T>(address: string, init: RequestInit = {}): Promise<Outcome<T>> {
  return ask(address, (response) => response.json() as Promise<T>, init);
}

/** How long to wait before trying again: longer each time up to a bound, from the beginning once it worked. */
export function patience(firstMs: number, mostMs: number, times = 1.6): { next: () => number; calm: () => void } {
  let wait = firstMs;
  return {
    next: () => {
      const now = wait;
      wait = Math.min(mostMs, wait * times);
      return now;
    },
    calm: () => void (wait = firstMs),
  };
}
