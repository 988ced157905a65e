import type { GaugeMessage, GaugeSpot } from '@true-ledger/contract';
import { formatLength, type Gauge } from '@true-ledger/core/units';
import {
  cellText,
  cellUnits,
  doubtCell,
  looksStuck,
  readCell,
  roundOf,
  STUCK_AFTER,
  type Cell,
  type SheetPlace,
} from '@true-ledger/core/measure';
import type { CaseView } from '@true-ledger/core/case';
import { elsewhereOf, takesOf, type ReadingEntry } from '@true-ledger/core/measured';
import { DEFAULT_GAUGE } from '@true-ledger/core/bundle';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useGaugesQuery, useStandInsQuery } from '../../app/api.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { sendWire, useWire, type WireState } from '../../gauges/wire.js';
import { gaugesFor, type EntryChoices } from './entryChoices.js';

/** Where the next figure goes. */
interface Spot {
  readonly cell: Cell;
  readonly take: number;
}

interface Notice {
  readonly kind: 'fault' | 'held' | 'told';
  readonly words: string;
}

const ANSWER_MS = 3000;

/** Every spot of a place in the order hands go round it. */
function spotsOf(
  place: SheetPlace,
  choices: Pick<EntryChoices, 'repeats' | 'optional'>,
  taken: ReadonlyMap<string, readonly ReadingEntry[]>,
): Spot[] {
  return place.cells
    .filter((c) => !c.optional || choices.optional || taken.has(c.key))
    .flatMap((cell) =>
      Array.from({ length: Math.max(choices.repeats, taken.get(cell.key)?.length ?? 0) }, (_, i) => ({ cell, take: i + 1 })),
    );
}

const filled = (spot: Spot, taken: ReadonlyMap<string, readonly ReadingEntry[]>): boolean =>
  taken.get(spot.cell.key)?.some((r) => r.value.take === spot.take) ?? false;

/** First place of its round after this one that still waits for a figure. */
export function nextOpenPlace(view: CaseView, place: SheetPlace, choices: Pick<EntryChoices, 'repeats' | 'optional'>): SheetPlace | null {
  const { places } = roundOf(view.layout, place);
  const at = places.indexOf(place);
  const turn = [...places.slice(at + 1), ...places.slice(0, at)];
  return (
    turn.find((p) => {
      const taken = takesOf(view, p);
      return spotsOf(p, choices, taken).some((s) => !filled(s, taken));
    }) ?? null
  );
}

/** What outlives the turn from one place to the next. */
export interface EntryMemory {
  last: { readonly text: string; readonly where: string } | null;
  run: Array<{ place: string; text: string }>;
  notice: Notice | null;
  /** The place is entered backwards, at its last spot. */
  back: boolean;
}

export const NO_MEMORY: EntryMemory = { last: null, run: [], notice: null, back: false };

export interface Entry {
  readonly spots: readonly Spot[];
  readonly at: number;
  readonly spot: Spot;
  readonly taken: ReadonlyMap<string, readonly ReadingEntry[]>;
  readonly gauge: Gauge;
  readonly gauges: readonly Gauge[];
  readonly unit: string;
  readonly text: string;
  readonly notice: Notice | null;
  readonly wire: WireState | 'none';
  readonly last: { readonly text: string; readonly where: string } | null;
  readonly type: (text: string) => void;
  readonly enter: () => void;
  readonly go: (to: number) => void;
  readonly pressKey: (at: 'here' | 'master') => void;
}

/** Entry at one place: typed by hand, by a gauge that types, or sent over the wire; all go the same way. */
export function useEntry(place: SheetPlace, choices: EntryChoices, memory: EntryMemory, turn: (way: 'on' | 'back') => boolean): Entry {
  const { view, caseId, readOnly } = useCase();
  const record = useRecord();
  const { data: known = [] } = useGaugesQuery();
  const { data: standIns = [] } = useStandInsQuery();
  const taken = useMemo(() => takesOf(view, place), [view, place]);
  const spots = useMemo(() => spotsOf(place, choices, taken), [place, choices, taken]);
  const [at, setAt] = useState(() =>
    memory.back
      ? spots.length - 1
      : Math.max(
          0,
          spots.findIndex((s) => !filled(s, taken)),
        ),
  );
  const [text, setText] = useState('');
  const [notice, setNotice] = useState<Notice | null>(memory.notice);
  const [held, setHeld] = useState<string | null>(null);
  const [last, setLast] = useState(memory.last);
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);

  const spot = spots[Math.min(at, spots.length - 1)] ?? { cell: place.cells[0]!, take: 1 };
  const { cell } = spot;
  const gauges = useMemo(() => gaugesFor(cell, known), [cell, known]);
  const usedHere = [...taken.values()].flat().findLast((r) => place.cells.find((c) => c.key === r.value.cell)?.role === cell.role)
    ?.value.gauge;
  const gauge = gauges.find((g) => g.id === choices.gauges[cell.role]) ?? usedHere ?? gauges[0] ?? DEFAULT_GAUGE;
  const chosen = choices.units[cell.quantity];
  const unit = chosen && cellUnits(cell).includes(chosen) ? chosen : cellUnits(cell)[0]!;
  const onWire = !readOnly && standIns.some((s) => s.gaugeId === gauge.id);
  const here: GaugeSpot = { caseId, station: place.station, sheet: place.sheet, cell: cell.key };
  const kept = (): string => {
    const n = [...taken.values()].reduce((s, list) => s + list.length, 0);
    return n === 0
      ? 'Nothing of this place is taken yet.'
      : `The ${n} reading${n === 1 ? '' : 's'} of this place ${n === 1 ? 'is' : 'are'} kept.`;
  };

  const go = (to: number): void => {
    setText('');
    setHeld(null);
    setNotice(null);
    memory.notice = null;
    memory.back = to < 0;
    if (to < 0) turn('back');
    else if (to < spots.length) setAt(to);
    else if (!turn('on')) setNotice({ kind: 'told', words: `${roundOf(view.layout, place).name}: every place is read.` });
  };

  /** What a stand-in sent is told apart from what a gauge read on the part. */
  const sent = useRef<string | null>(null);
  const take = (typed: string, typedUnit: string, simulated = sent.current === typed): void => {
    const read = readCell(cell, typed, typedUnit, gauge);
    if (!read.ok) {
      setHeld(null);
      return setNotice({ kind: 'fault', words: read.problem.sentence });
    }
    const { value } = read.value;
    const insisted = held === typed;
    if (value !== null && !insisted) {
      const near = [...taken].flatMap(([key, list]) =>
        key !== cell.key && place.cells.find((c) => c.key === key)?.role === cell.role ? list.flatMap((r) => r.value.value ?? []) : [],
      );
      const doubt = doubtCell(cell, value, near, elsewhereOf(view, place, cell.key));
      if (doubt) {
        setText(typed);
        setHeld(typed);
        sent.current = simulated ? typed : null;
        return setNotice({ kind: 'held', words: `${doubt} Not taken yet. Press Enter once more to take it as it is, or type it again.` });
      }
    }
    record({
      kind: 'reading-taken',
      station: place.station,
      body: {
        sheet: place.sheet,
        cell: cell.key,
        take: spot.take,
        text: typed.trim(),
        unit: read.value.unit,
        value,
        gauge,
        insisted,
        ...(simulated ? { simulated } : {}),
      },
    });
    const shown = value === null ? 'not read' : cellText(cell, value, read.value.unit);
    sent.current = null;
    memory.last = { text: shown, where: `${place.short}, ${cell.name}${simulated ? ', simulated' : ''}` };
    setLast(memory.last);
    if (choices.speak && 'speechSynthesis' in window) window.speechSynthesis.speak(new SpeechSynthesisUtterance(shown));
    memory.run = [...memory.run.slice(1 - STUCK_AFTER), { place: `${place.id}/${cell.key}`, text: typed.trim() }];
    const stuck = value !== null && looksStuck(memory.run);
    go(at + 1);
    if (!stuck) return;
    memory.notice = {
      kind: 'told',
      words: `The last ${STUCK_AFTER} places all read ${typed.trim()}. Different places hardly ever agree to the last digit: is ${gauge.name} stuck? They are kept; read one of them again, or put it on its master.`,
    };
    setNotice(memory.notice);
  };

  const pressKey = (where: 'here' | 'master'): void => {
    clearTimeout(waiting.current);
    if (!sendWire({ type: 'press', gauge: gauge.id, at: where === 'here' ? here : 'master' }))
      return setNotice({
        kind: 'fault',
        words: `The wire to the gauges is down, nothing was read. ${kept()} It is tried again by itself; until then type the figure.`,
      });
    waiting.current = setTimeout(
      () =>
        setNotice({
          kind: 'fault',
          words: `${gauge.name} gave no answer in ${ANSWER_MS / 1000} seconds, nothing was read. ${kept()} Press again, or type the figure.`,
        }),
      ANSWER_MS,
    );
  };

  const heard = (message: GaugeMessage): void => {
    if (message.type === 'refused') {
      clearTimeout(waiting.current);
      return setNotice({ kind: 'fault', words: message.sentence });
    }
    if (message.type === 'changed' || message.gauge !== gauge.id) return;
    clearTimeout(waiting.current);
    const there = message.at === 'master' ? 'master' : message.at;
    if (message.type === 'silent' && there !== 'master' && !sameSpot(there, here)) return;
    if (message.type === 'silent')
      return setNotice({
        kind: 'fault',
        words: `${gauge.name} sent nothing at ${there === 'master' ? 'its master' : cell.name}. ${kept()} Look at its battery and lead and press again, or type the figure.`,
      });
    if (there === 'master') return setNotice(masterNotice(gauge, message.text));
    if (there.caseId !== caseId) return;
    if (!sameSpot(there, here))
      return setNotice({
        kind: 'told',
        words: `${gauge.name} sent ${message.text} for another place (${there.cell}) than the one asked for here. It was not taken.`,
      });
    take(message.text, message.unit, true);
  };
  const wire = useWire(onWire, heard);
  useEffect(() => {
    memory.back = false;
    return () => clearTimeout(waiting.current);
  }, [memory]);
  useEffect(() => {
    if (onWire && wire === 'up')
      sendWire({ type: 'at', gauge: gauge.id, at: { caseId, station: place.station, sheet: place.sheet, cell: cell.key } });
  }, [onWire, wire, gauge.id, caseId, place, cell.key]);

  return {
    spots,
    at: Math.min(at, Math.max(0, spots.length - 1)),
    spot,
    taken,
    gauge,
    gauges: gauges.length > 0 ? gauges : [gauge],
    unit,
    text,
    notice,
    wire: onWire ? wire : 'none',
    last,
    type: (typed) => {
      sent.current = null;
      setText(typed);
      setHeld(null);
      setNotice(null);
    },
    enter: () => {
      if (text.trim() !== '') take(text, unit);
      else if (onWire) pressKey('here');
      else setNotice({ kind: 'fault', words: 'Nothing was typed. Type the figure, or - when the place cannot be read.' });
    },
    go,
    pressKey,
  };
}

const sameSpot = (a: GaugeSpot, b: GaugeSpot): boolean =>
  a.caseId === b.caseId && a.station === b.station && a.sheet === b.sheet && a.cell === b.cell;

function masterNotice(gauge: Gauge, text: string): Notice {
  const master = gauge.masterMm ?? 0;
  const off = Math.abs(Number(text) - master);
  const good = off <= gauge.expandedUncertaintyMm + gauge.resolutionMm;
  const words = `${gauge.name} reads ${text} on its master of ${formatLength(master, 'mm')}`;
  return good
    ? {
        kind: 'told',
        words: `${words}: ${off.toFixed(3)} mm off, inside its U of ${gauge.expandedUncertaintyMm} mm. No reading was taken.`,
      }
    : {
        kind: 'held',
        words: `${words}: ${off.toFixed(3)} mm off, more than its U of ${gauge.expandedUncertaintyMm} mm. Readings since its last good check are in doubt; set it before going on. No reading was taken.`,
      };
}
