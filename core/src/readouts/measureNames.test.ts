import type { Metric } from '../api/metrics';
import { measureNames } from './measureNames';

const metric = (id: string, name: string, assetName: string, plantName: string): Metric =>
  ({ id, name, assetId: `${plantName} ${assetName}`, assetName, plantName }) as Metric;
const namesOf = (...all: Metric[]): readonly string[] =>
  measureNames(
    all.map(({ id }) => ({ metricId: id, summary: 'mean', per: null })),
    new Map(all.map((each) => [each.id, each])),
  );

describe('the names of measures', () => {
  it('say no more than what tells them apart within a plant', () => {
    expect(
      namesOf(metric('1', 'Gas', 'Dryer 1', 'Quayside'), metric('2', 'Gas', 'Dryer 2', 'Quayside')),
    ).toEqual(['Dryer 1', 'Dryer 2']);
    expect(
      namesOf(metric('1', 'Gas', 'Dryer 1', 'Quayside'), metric('2', 'Speed', 'Dryer 1', 'Quayside')),
    ).toEqual(['Gas', 'Speed']);
  });

  it('name the plant of each where plants mix, unless the asset is the plant', () => {
    expect(
      namesOf(
        metric('1', 'Gas', 'Dryer 1', 'Quayside'),
        metric('2', 'Gas', 'Dryer 2', 'Upper Weir'),
        metric('3', 'Gas', 'Foundry Lane', 'Foundry Lane'),
      ),
    ).toEqual(['Dryer 1, Quayside', 'Dryer 2, Upper Weir', 'Foundry Lane']);
  });
});
