import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { useLocation } from 'react-router';
import { useMeQuery } from './api.js';

/** Something typed that is not recorded yet, kept in this browser. */
export interface Draft {
  /** Page it was typed on. */
  readonly path: string;
  /** Field, as the page calls it. */
  readonly field: string;
  readonly text: string;
}

const PREFIX = 'true-ledger.draft|';
const keyOf = (account: string, path: string, field: string): string => `${PREFIX}${account}|${path}|${field}`;

const listeners = new Set<() => void>();
let version = 0;

function changed(): void {
  version++;
  for (const listener of listeners) listener();
}

/** Writes or, for an empty text, clears a draft. A browser that refuses storage only loses this safety. */
function keep(key: string, text: string): void {
  try {
    if (text === '') localStorage.removeItem(key);
    else localStorage.setItem(key, text);
  } catch {
    return;
  }
  changed();
}

function held(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** All drafts of an account whose page lies under a path. */
function draftsUnder(account: string, path: string): Draft[] {
  const found: Draft[] = [];
  try {
    for (let i = 0; i < localStorage.length; i++) {
      const key = localStorage.key(i) ?? '';
      if (!key.startsWith(`${PREFIX}${account}|${path}`)) continue;
      const [, , at = '', field = ''] = key.split('|');
      found.push({ path: at, field, text: localStorage.getItem(key) ?? '' });
    }
  } catch {
    return [];
  }
  return found;
}

if (typeof window !== 'undefined') window.addEventListener('storage', (e) => e.key?.startsWith(PREFIX) && changed());

/** Drafts of who is signed in under a path, as they come and go. */
export function useDrafts(path: string): readonly Draft[] {
  const account = useMeQuery().data?.account.id ?? '';
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    () => version,
  );
  return draftsUnder(account, path);
}

/**
 * Text of a field, like `useState`, that survives reload, Back and leaving the page until it is what is recorded (`kept`, which for a form is nothing). `field`
 * tells it from the other fields of the page and is shown to the person.
 */
export function useDraft(field: string, kept = ''): [text: string, setText: (text: string) => void] {
  const account = useMeQuery().data?.account.id ?? '';
  const { pathname } = useLocation();
  const key = keyOf(account, pathname, field);
  const [text, setState] = useState(() => held(key) ?? kept);
  useEffect(() => {
    // Recorded by now: it is no draft any more.
    if (held(key) === kept) keep(key, '');
    setState(held(key) ?? kept);
  }, [key, kept]);
  const setText = useCallback(
    (next: string) => {
      setState(next);
      keep(key, next === kept ? '' : next);
    },
    [key, kept],
  );
  return [text, setText];
}
