import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { canonicalJson, hashWith, sha256Hex } from './hash.js';
import { flag, line, list, nullable, object, oneOf, optional, pair, text, whole, type Held, type Schema } from './schema.js';

describe('a hash', () => {
  const node = (data: string | Uint8Array): string => createHash('sha256').update(data).digest('hex');
  it('is the same by the platform and in script, for bytes and for any text', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => expect(sha256Hex(bytes)).toBe(node(bytes))));
    fc.assert(fc.property(fc.string({ unit: 'binary', maxLength: 300 }), (words) => expect(sha256Hex(words)).toBe(node(words))));
    const own = sha256Hex('journal');
    let asked = 0;
    hashWith((data) => (asked++, node(data)));
    expect(sha256Hex('journal')).toBe(own);
    expect(asked).toBe(1);
  });
  it('of JSON does not depend on the order of its members', () => {
    expect(canonicalJson({ b: 1, a: [1, 'ä'] })).toBe('{"a":[1,"ä"],"b":1}');
    expect(() => canonicalJson(undefined)).toThrow(TypeError);
  });
});

describe('a schema with its type', () => {
  const schema = object({
    name: line(5),
    side: oneOf(['left', 'right']),
    at: optional(pair(0, 1)),
    teeth: list(whole(1, 9), 2),
    worn: nullable(flag),
  });
  type Body = Held<typeof schema>;
  const good: Body = { name: 'gear', side: 'left', teeth: [1, 9], worn: null };
  const fault = (body: unknown): string | undefined => schema.validate(body, { convert: false }).error?.details[0]?.path.join('.');

  it('lets pass what its type says', () => {
    expect(fault(good)).toBeUndefined();
    expect(fault({ ...good, at: [0, 1], worn: true })).toBeUndefined();
  });
  it.each<[string, object]>([
    ['name', { name: 'longer' }],
    ['name', { name: 'a\nb' }],
    ['name', { name: 'a\u0000' }],
    ['side', { side: 'middle' }],
    ['at.1', { at: [0, 2] }],
    ['at', { at: [0] }],
    ['teeth', { teeth: [1, 2, 3] }],
    ['teeth.0', { teeth: [1.5] }],
    ['worn', { worn: 'no' }],
    ['more', { more: 1 }],
  ])('names the member that does not fit: %s in %j', (path, wrong) => expect(fault({ ...good, ...wrong })).toBe(path));
  it.each(['name', 'side', 'teeth', 'worn'])('asks for %s, and not for what may be absent', (member) => {
    const { [member as keyof Body]: _gone, ...rest } = good;
    expect(fault(rest)).toBe(member);
  });
  it('does not take another type for its own', () => {
    // @ts-expect-error a word that is none of them
    const wrong: Body = { ...good, side: 'middle' };
    // @ts-expect-error text is no figure
    const other: Schema<number> = text(5);
    expect([fault(wrong), other.validate('x').error]).toEqual(['side', undefined]);
  });
});
