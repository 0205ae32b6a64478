import { hasAttributes, topmost } from '../scope/scope';
import { groupMembers, type PlannedMetric } from '../plan/members';
import { attributeOf, nameKey, sameValue } from './sameName';

describe('names that differ only in capitals', () => {
  it('are one attribute and one value of it', () => {
    expect(attributeOf({ Maker: 'Weld', maker: 'Acre' }, 'maker')).toBe('Acre');
    expect(attributeOf({ Maker: 'Weld' }, 'MAKER ')).toBe('Weld');
    expect(attributeOf({}, 'constructor')).toBeUndefined();
    expect([sameValue('Weld', 'weld'), sameValue(5, 5), sameValue('5', 5)]).toEqual([true, true, false]);
    expect(hasAttributes({ attributes: { Maker: 'WELD' } }, [{ name: 'maker', values: ['weld'] }])).toBe(
      true,
    );
    expect(nameKey(' Steam METER ')).toBe('steam meter');
  });

  it('are one group, called as the first of them', () => {
    const metric = (id: string, name: string): PlannedMetric => ({
      ...{ id, name, unit: 'kg', kind: 'amount', origin: 'samples', assetId: id, assetName: id },
      ...{ assetKind: 'machine', path: ['p', id], plantId: 'p', plantName: 'P', zone: 'UTC' },
    });
    const metrics = [metric('1', 'Washed'), metric('2', 'washed'), metric('3', 'Washed')];
    const attributes = new Map(['Weld', 'weld', 'Acre'].map((Maker, i) => [`${i + 1}`, { Maker }]));
    const groups = groupMembers(
      [{ numerator: metrics, denominator: [] }],
      { kind: 'attribute', name: 'maker' },
      attributes,
    );
    expect(groups.map(({ name, measures: [{ numerator }] }) => [name, numerator.length])).toEqual([
      ['Weld', 2],
      ['Acre', 1],
    ]);
  });

  it('count once where one lies below another', () => {
    const all = [
      { name: 'Washed', assetId: '1', path: ['1'] },
      { name: 'washed', assetId: '2', path: ['1', '2'] },
    ];
    expect(topmost(all).map(({ assetId }) => assetId)).toEqual(['1']);
  });
});
