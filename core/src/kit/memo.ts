interface Count {
  hits: number;
  misses: number;
}
const counts = new Map<string, Count>();

/**
 * Keeps what was made of an object for as long as the object lives: everything that follows from a folded case hangs on its groups, its view or its layout, which
 * are never changed, so the object itself is the key. `name` says what is kept, for `memoCounts`.
 *
 * @param make what follows from the object; further arguments must follow from it too, since they are no part of the key
 * @example const stationsOf = memo('stations of a layout', makeStations);
 */
export function memo<K extends object, V, Rest extends readonly unknown[]>(
  name: string,
  make: (key: K, ...rest: Rest) => V,
): (key: K, ...rest: Rest) => V {
  const kept = new WeakMap<K, { readonly value: V }>();
  const count = counted(name);
  return (key, ...rest) => {
    const held = kept.get(key);
    if (held) {
      count.hits++;
      return held.value;
    }
    count.misses++;
    const value = make(key, ...rest);
    kept.set(key, { value });
    return value;
  };
}

/** The same where one object has several: `of` names which. */
export function memoOf<K extends object, V, Rest extends readonly unknown[]>(
  name: string,
  of: (...rest: Rest) => string,
  make: (key: K, ...rest: Rest) => V,
): (key: K, ...rest: Rest) => V {
  const kept = new WeakMap<K, Map<string, V>>();
  const count = counted(name);
  return (key, ...rest) => {
    let own = kept.get(key);
    if (!own) kept.set(key, (own = new Map()));
    const which = of(...rest);
    if (own.has(which)) {
      count.hits++;
      return own.get(which)!;
    }
    count.misses++;
    const value = make(key, ...rest);
    own.set(which, value);
    return value;
  };
}

function counted(name: string): Count {
  if (counts.has(name)) throw new Error(`Two memories are called "${name}".`);
  const count = { hits: 0, misses: 0 };
  counts.set(name, count);
  return count;
}

/** How often each memory was asked and had to make what it was asked for, since this began. */
export function memoCounts(): ReadonlyMap<string, Readonly<Count>> {
  return new Map([...counts].map(([name, count]) => [name, { ...count }]));
}
