import fc from 'fast-check';
import { hasAttributes, isUnder, topmost } from './scope';

/** A tree of assets, parents before children. */
const tree = fc.array(fc.nat(), { minLength: 1, maxLength: 30 }).map((parents) =>
  parents.map((parent, i) => ({
    id: String(i),
    parentId: i === 0 || parent % (i + 1) === i ? null : String(parent % i),
  })),
);

const above = (assets: readonly { id: string; parentId: string | null }[], id: string): string[] => {
  const parent = assets.find((each) => each.id === id)!.parentId;
  return parent === null ? [] : [parent, ...above(assets, parent)];
};

describe('isUnder', () => {
  it('takes the given assets with everything below them, and nothing else', () => {
    fc.assert(
      fc.property(tree, fc.array(fc.nat({ max: 29 }).map(String), { maxLength: 3 }), (assets, assetIds) => {
        for (const { id } of assets) {
          const path = [...above(assets, id).reverse(), id];
          expect(isUnder(path, assetIds)).toBe(path.some((each) => assetIds.includes(each)));
          expect(isUnder(path, null)).toBe(true);
        }
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
        const metrics = assets
          .filter((_, i) => measured[i])
          .map(({ id }) => ({ name: 'Gas', assetId: id, path: [...above(assets, id).reverse(), id] }));
        const top = new Set(topmost(metrics).map(({ assetId }) => assetId));
        for (const { assetId } of metrics) {
          const covered = above(assets, assetId).some((id) => metrics.some((each) => each.assetId === id));
          expect(top.has(assetId)).toBe(!covered);
        }
      }),
    );
  });
});
