import type { Author } from '@true-ledger/core/ledger';
import type { AccountsService } from '../accounts/accounts.service.js';

/** People of the demo; their ids are those the shipped bundles name. */
export const PEOPLE = [
  { id: '6d617261-0000-4000-8000-000000000001', name: 'Mara Quill', signIn: 'mara', role: 'owner' },
  { id: '74656f00-0000-4000-8000-000000000002', name: 'Teo Lindqvist', signIn: 'teo', role: 'builder' },
  { id: '6465736b-0000-4000-8000-000000000003', name: 'Desk of the insurer', signIn: 'desk', role: 'reader' },
] as const;

/** Makes the accounts of the demo, each with a password of its own. */
export async function demoPeople(accounts: AccountsService, password: (signIn: string) => string): Promise<Author[]> {
  const authors: Author[] = [];
  for (const person of PEOPLE) {
    const account = await accounts.create({ ...person, password: password(person.signIn) });
    authors.push({ id: account.id, name: account.name });
  }
  return authors;
}
