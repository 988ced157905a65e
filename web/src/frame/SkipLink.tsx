import type { ReactNode } from 'react';
import './frame.css';

/** First stop of the keyboard: over header and list to the work. */
export function SkipLink(): ReactNode {
  return (
    <a
      className="skip-link"
      href="#work"
      onClick={(e) => {
        e.preventDefault();
        document.getElementById('work')?.focus();
      }}
    >
      To the work
    </a>
  );
}
