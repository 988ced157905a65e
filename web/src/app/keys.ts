import { useEffect, useRef, useState } from 'react';

export interface KeyAction {
  readonly keys: string;
  readonly what: string;
  readonly run: (event: KeyboardEvent) => void;
}

interface Layer {
  /** When it was drawn first: what lies within another is drawn after it, also where both came at once. */
  readonly order: number;
  readonly actions: () => readonly KeyAction[];
}

let drawn = 0;

const layers: Layer[] = [];
let prefix = '';
let prefixTimer: ReturnType<typeof setTimeout> | undefined;

const SWITCH = 'true-ledger.single-keys';

/** Single-letter keys can be switched off for people whose speech or switch input types letters. */
export function singleKeysOn(): boolean {
  return localStorage.getItem(SWITCH) !== 'off';
}

export function setSingleKeys(on: boolean): void {
  localStorage.setItem(SWITCH, on ? 'on' : 'off');
}

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement && TICKED.has(target.type)) return false;
  return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) || target.getAttribute('role') === 'combobox';
}

/** Inputs nobody types into: a box that was just ticked has the focus, and the keys of the page go on working. */
export const TICKED: ReadonlySet<string> = new Set(['checkbox', 'radio', 'button', 'file', 'range', 'color', 'submit', 'reset']);

/** Keys a field for figures has no use for (`data-figures`), so that they mean there what they mean everywhere. */
const FREE_IN_FIGURES: ReadonlySet<string> = new Set(['?', 'Escape']);

/** Keys that a ticked box or a row of choices moves by itself. */
function belongsToControl(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLInputElement) || !TICKED.has(target.type)) return false;
  return key === ' ' || key === 'Enter' || (target.type === 'radio' && key.startsWith('Arrow'));
}

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || belongsToControl(event.target, event.key)) return;
  const inFigures =
    event.target instanceof HTMLElement && event.target.closest('[data-figures]') !== null && FREE_IN_FIGURES.has(event.key);
  if (isTyping(event.target) && !inFigures) {
    // Out of a field, so that the keys of the page are there again; a list that hangs open is closed by its own Esc first.
    if (event.key === 'Escape' && !document.querySelector('.ant-select-open, .ant-modal-wrap:not([style*="display: none"])'))
      (event.target as HTMLElement).blur();
    return;
  }
  // What lies over the page has the keys to itself, Esc too: it closes by it, and the page under it stays where it is.
  if (document.querySelector('.ant-modal-wrap:not([style*="display: none"]), .ant-drawer-open')) return;
  if (event.key.length === 1 && !singleKeysOn() && event.key !== '?') return;
  const onControl =
    event.target instanceof HTMLElement && event.target.closest('button, a, [role=radio], [role=slider], [role=tab], summary') !== null;
  if (onControl && (event.key === 'Enter' || event.key === ' ') && !(event.target as HTMLElement).closest('[data-station]')) return;
  const typed = prefix + event.key;
  for (let i = layers.length - 1; i >= 0; i--) {
    const action = layers[i]!.actions().find((a) => a.keys === typed || a.keys === event.key);
    if (!action) continue;
    if (prefix && action.keys === event.key && layers.some((l) => l.actions().some((a) => a.keys === typed))) continue;
    event.preventDefault();
    prefix = '';
    action.run(event);
    return;
  }
  if (inFigures && event.key === 'Escape') (event.target as HTMLElement).blur();
  prefix = layers.some((l) =>
    l.actions().some((a) => a.keys.length > 1 && a.keys.startsWith(event.key) && a.keys[1] !== undefined && a.keys.length === 2),
  )
    ? event.key
    : '';
  clearTimeout(prefixTimer);
  prefixTimer = setTimeout(() => (prefix = ''), 1200);
}

if (typeof window !== 'undefined') window.addEventListener('keydown', onKey);

/** Adds keys while the component is mounted; of two layers the inner, else the newer, is asked first. */
export function useKeys(actions: readonly KeyAction[]): void {
  const held = useRef(actions);
  const [order] = useState(() => ++drawn);
  useEffect(() => {
    held.current = actions;
  });
  useEffect(() => {
    const layer: Layer = { order, actions: () => held.current };
    layers.push(layer);
    layers.sort((a, b) => a.order - b.order);
    return () => {
      layers.splice(layers.indexOf(layer), 1);
    };
  }, [order]);
}

/** All keys that work at this moment, for the help sheet. */
export function keysNow(): KeyAction[] {
  const seen = new Set<string>();
  return [...layers]
    .reverse()
    .flatMap((l) => l.actions())
    .filter((a) => !seen.has(a.keys) && seen.add(a.keys));
}
