import { useState } from 'react';
import { screen } from '@testing-library/react';
import type { Measure } from '@vivid-beacon/core';
import { renderScreen } from '../../testing/renderScreen';
import { PerPanel } from './PerPanel';

const METRICS = [
  { id: '5', name: 'Gas', unit: 'm³', kind: 'amount', assetId: '2', assetName: 'Dryer 1' },
  { id: '6', name: 'Washed weight', unit: 'kg', kind: 'amount', assetId: '3', assetName: 'Washer 1' },
];

function show(first: Measure) {
  const last = { measure: first };
  function Holder() {
    const [measure, setMeasure] = useState(first);
    last.measure = measure;
    return <PerPanel measure={measure} onChange={setMeasure} />;
  }
  return {
    last,
    ...renderScreen(<Holder />, {
      'GET /api/metrics': METRICS,
      'GET /api/assets/attributes': [
        { name: 'Floor area (m²)', values: [4200, 'unknown'], many: false },
        { name: 'Maker', values: ['Weld'], many: false },
      ],
    }),
  };
}

describe('by what a measure is divided', () => {
  it('is an attribute that is a number somewhere, or another metric, one in place of the other', async () => {
    const { person, last } = show({ metricId: '5', summary: 'sum', per: null });
    await person.click(await screen.findByRole('radio', { name: 'Floor area (m²)' }));
    expect(last.measure).toMatchObject({ per: null, perAttribute: 'Floor area (m²)' });
    expect(screen.queryByRole('radio', { name: 'Maker' })).toBeNull();
    await person.click(await screen.findByRole('radio', { name: /^Washed weight/ }));
    expect(last.measure).toMatchObject({ per: { metricId: '6', summary: 'sum' }, perAttribute: null });
    await person.click(screen.getByRole('radio', { name: 'Percent' }));
    expect(last.measure.per).toMatchObject({ factor: 100, unit: '%' });
    await person.click(screen.getByRole('button', { name: 'Show it on its own' }));
    expect([last.measure.per, last.measure.perAttribute]).toEqual([null, null]);
  });
});
