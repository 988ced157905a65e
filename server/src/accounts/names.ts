import { dictionary } from '@zxcvbn-ts/language-common';
import unhomoglyph from 'unhomoglyph';
import { ProblemError } from '../http/problem.js';

/** Every common password, and what is left of one when the digits and signs people add at its ends are taken off. */
const COMMON: ReadonlySet<string> = new Set(dictionary['passwords'] as readonly string[]);

const trimmed = (password: string): string => password.toLowerCase().replace(/^[^a-z]+|[^a-z]+$/g, '');

/** Refuses a password that is among the most common ones, is the person's own name, or is one short thing over and over. */
export function checkPassword(password: string, names: readonly string[]): void {
  const lower = password.toLowerCase();
  const core = trimmed(password);
  const own = names.flatMap((n) => [n.toLowerCase(), ...n.toLowerCase().split(/\s+/)]).filter((n) => n.length >= 3);
  const why =
    COMMON.has(lower) || (core !== '' && COMMON.has(core))
      ? 'it is among the passwords everybody tries first'
      : own.some((n) => lower.includes(n) && lower.length - n.length < 8)
        ? 'it is mostly the name of the person'
        : /^(.{1,4})\1+.{0,3}$/.test(lower)
          ? 'it is one short thing over and over'
          : null;
  if (why)
    throw new ProblemError({
      code: 'password-weak',
      sentence: `This password is not taken: ${why}. Choose four or five words nobody would guess together; nothing was changed.`,
      field: 'password',
    });
}

/** What a name looks like: letters of any alphabet that are drawn alike are one (Unicode TR39's confusables), case and spaces apart. */
export function looksOf(name: string): string {
  return unhomoglyph(name.normalize('NFKC').toLowerCase()).replace(/[\s.'’-]+/g, '');
}
