import fc from 'fast-check';
import * as yup from 'yup';
import { amounts, amountsOrNulls, dictionary, orElse, orNull, shape, taggedUnion, text } from './shape';

const shelf = taggedUnion(
  'Shelf',
  'kind',
  {
    open: {},
    until: { at: yup.number().required('Say until when') },
    between: { from: yup.number().required(), to: yup.number().required() },
  },
  {
    between: ({ from, to }: { from: number; to: number }) =>
      from < to ? null : 'It must end after it begins',
  },
);
const problem = (schema: { validateSync: (value: unknown) => unknown }, value: unknown): string => {
  try {
    schema.validateSync(value);
  } catch (error) {
    return (error as Error).message;
  }
  return '';
};

describe('taggedUnion', () => {
  it('takes the members of its kind, and leaves out those that only other kinds have', () => {
    expect(shelf.validateSync({ kind: 'until', at: 7, from: 1 })).toEqual({ kind: 'until', at: 7 });
    expect(shelf.validateSync({ kind: 'open' })).toEqual({ kind: 'open' });
  });

  it('says what is missing, and which kinds there are', () => {
    expect(problem(shelf, { kind: 'until' })).toBe('Say until when');
    expect(problem(shelf, { kind: 'closed' })).toBe('kind must be one of open, until, between, got closed');
    expect(problem(yup.object({ shelf }), { shelf: { kind: 'constructor' } })).toBe(
      'shelf.kind must be one of open, until, between, got constructor',
    );
    expect(problem(shelf, { kind: 'between', from: 5, to: 5 })).toBe('It must end after it begins');
  });

  it('refuses members that no kind has, and whatever is no such object', () => {
    const strict = { stripUnknown: false } as const;
    expect(() => shelf.validateSync({ kind: 'open', color: 'red' }, strict)).toThrow(/color/);
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const kind = (value as { kind?: unknown } | null)?.kind;
        fc.pre(!['open', 'until', 'between'].includes(String(kind)));
        expect(problem(shelf, value)).not.toBe('');
      }),
    );
  });

  it('may be null, or have a usual value, where that is said', () => {
    const both = yup.object({ a: orNull(shelf), b: orElse(shelf, { kind: 'open' }) });
    expect(both.validateSync({})).toEqual({ a: null, b: { kind: 'open' } });
    expect(both.validateSync({ a: null, b: { kind: 'until', at: 1 } })).toEqual({
      a: null,
      b: { kind: 'until', at: 1 },
    });
    expect(problem(both, { b: null })).toContain('b');
  });
});

describe('shapes of answers', () => {
  const strict = { strict: true } as const;
  const answer = shape({
    name: text(),
    t: amounts(),
    v: amountsOrNulls(),
    count: dictionary(yup.number().defined()),
  });
  const good = { name: '', t: [1, 2], v: [null, 3], count: { a: 1 } };

  it('hold what they say', () => {
    expect(answer.validateSync(good, strict)).toEqual(good);
  });

  it.each([
    ['a member that is missing', { ...good, name: undefined }],
    ['a member too many', { ...good, more: 1 }],
    ['a list with something else in it', { ...good, t: [1, null] }],
    ['text for a number', { ...good, v: ['3'] }],
    ['a value of another kind under a name', { ...good, count: { a: 'one' } }],
    ['nothing at all', undefined],
  ])('refuse %s', (_name, value) => {
    expect(answer.isValidSync(value, strict)).toBe(false);
  });
});
