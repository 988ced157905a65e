import type { ReactNode } from 'react';

/** A chart as its label: what is drawn by the library of charts is looked at in the browser tests. */
export function Plot({ label }: { readonly label: string }): ReactNode {
  return <figure aria-label={label} />;
}
