import fc from 'fast-check';
import { assetsInScope, hasAttributes, topmost } from './assetsInScope';

/** A tree of assets, parents before children. */
const tree = fc
  .array(fc.tuple(fc.nat(), fc.constantFrom('A', 'B', null)), { minLength: 1, maxLength: 30 })
  .map((rows) =>
    rows.map(([parent, maker], i) => ({
      id: String(i),
      parentId: i === 0 || parent % (i + 1) === i ? null : String(parent % i),
      attributes: (maker === null ? {} : { Maker: maker }) as Record<string, string>,
    })),
  );

const above = (assets: readonly { id: string; parentId: string | null }[], id: string): string[] => {
  const parent = assets.find((each) => each.id === id)!.parentId;
  return parent === null ? [] : [parent, ...above(assets, parent)];
};

describe('assetsInScope', () => {
  it('takes the given assets with everything below them, and nothing else', () => {
    fc.assert(
      fc.property(tree, fc.array(fc.nat({ max: 29 }).map(String), { maxLength: 3 }), (assets, assetIds) => {
        const got = assetsInScope(assets, { assetIds, attributes: [] });
        const wanted = assets.filter(({ id }) =>
          [id, ...above(assets, id)].some((each) => assetIds.includes(each)),
        );
        expect(got).toEqual(wanted.map(({ id }) => id));
      }),
    );
  });

  it('takes all where none are given, and only those with the attributes', () => {
    fc.assert(
      fc.property(tree, (assets) => {
        expect(assetsInScope(assets, { assetIds: null, attributes: [] })).toHaveLength(assets.length);
        const attributes = [{ name: 'Maker', values: ['A'] }];
        expect(assetsInScope(assets, { assetIds: null, attributes })).toEqual(
          assets.filter(({ attributes: own }) => own.Maker === 'A').map(({ id }) => id),
        );
      }),
    );
  });
});

describe('hasAttributes', () => {
  it.each([
    [{ Maker: 'A', line: 2 }, [{ name: 'Maker', values: ['A', 'B'] }], true],
    [
      { Maker: 'A', line: 2 },
      [
        { name: 'line', values: [2] },
        { name: 'Maker', values: ['B'] },
      ],
      false,
    ],
    // Text is not the number it looks like.
    [{ line: '2' }, [{ name: 'line', values: [2] }], false],
    [{}, [{ name: 'toString', values: ['A'] }], false],
    [{}, [], true],
  ])('%j meets %j: %s', (attributes, conditions, meets) => {
    expect(hasAttributes({ attributes: attributes as Record<string, string | number> }, conditions)).toBe(
      meets,
    );
  });
});

describe('topmost', () => {
  it('leaves no metric of the same name above or below another, and drops only what lies below one', () => {
    fc.assert(
      fc.property(tree, fc.array(fc.boolean(), { minLength: 30, maxLength: 30 }), (assets, measured) => {
        const metrics = assets.filter((_, i) => measured[i]).map(({ id }) => ({ name: 'Gas', assetId: id }));
        const parents = new Map(assets.map(({ id, parentId }) => [id, parentId]));
        const top = new Set(topmost(metrics, parents).map(({ assetId }) => assetId));
        for (const { assetId } of metrics) {
          const covered = above(assets, assetId).some((id) => metrics.some((each) => each.assetId === id));
          expect(top.has(assetId)).toBe(!covered);
        }
      }),
    );
  });
});
