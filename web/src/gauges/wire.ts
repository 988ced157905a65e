import type { GaugeCommand, GaugeMessage } from '@true-ledger/contract';
import { useEffect, useRef, useState } from 'react';
import { patience } from '../app/server.js';

export type WireState = 'up' | 'connecting' | 'lost';

export const WIRE_WORDS: Readonly<Record<WireState, string>> = { up: 'on the wire', connecting: 'wire opening', lost: 'wire down' };

type Listener = (message: GaugeMessage) => void;
const listeners = new Set<Listener>();
const watchers = new Set<(state: WireState) => void>();
const LINGER_MS = 2000;
let socket: WebSocket | null = null;
let state: WireState = 'connecting';
const wait = patience(500, 10_000, 2);
let timer: ReturnType<typeof setTimeout> | undefined;

function become(next: WireState): void {
  state = next;
  for (const watcher of watchers) watcher(next);
}

/** One socket for the page while anything listens; a lost one is opened again, less and less often. */
function connect(): void {
  const own = new WebSocket(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/gauges/live`);
  socket = own;
  own.onopen = () => {
    wait.calm();
    become('up');
  };
  own.onmessage = (event) => {
    const message = JSON.parse(String(event.data)) as GaugeMessage;
    for (const listener of listeners) listener(message);
  };
  own.onclose = () => {
    if (socket !== own) return;
    socket = null;
    if (listeners.size === 0) return;
    become('lost');
    timer = setTimeout(connect, wait.next());
  };
}

function listen(listener: Listener): () => void {
  listeners.add(listener);
  if (!socket) {
    clearTimeout(timer);
    become('connecting');
    connect();
  }
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    // A page that turns to the next place listens again at once.
    setTimeout(() => {
      if (listeners.size > 0) return;
      clearTimeout(timer);
      const open = socket;
      socket = null;
      open?.close();
    }, LINGER_MS);
  };
}

/** False when the wire is down: nothing was sent. */
export function sendWire(command: GaugeCommand): boolean {
  if (socket?.readyState !== WebSocket.OPEN) return false;
  socket.send(JSON.stringify(command));
  return true;
}

/** Hears what the shop's gauges send while the component is mounted and `on`. */
export function useWire(on: boolean, listener: Listener): WireState {
  const held = useRef(listener);
  useEffect(() => {
    held.current = listener;
  });
  const [shown, setShown] = useState<WireState>(state);
  useEffect(() => {
    if (!on) return;
    watchers.add(setShown);
    const leave = listen((message) => held.current(message));
    setShown(state);
    return () => {
      watchers.delete(setShown);
      leave();
    };
  }, [on]);
  return shown;
}
