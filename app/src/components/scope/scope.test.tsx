import { useState } from 'react';
import { screen, within } from '@testing-library/react';
import type { Asset, HoursFilter, Scope } from '@vivid-beacon/core';
import { renderScreen } from '../../testing/renderScreen';
import { HoursPanel } from './HoursPanel';
import { ScopePanel } from './ScopePanel';

jest.setTimeout(30_000);

const asset = (
  id: string,
  name: string,
  parentId: string | null,
  attributes: Asset['attributes'] = {},
): Asset =>
  ({
    id,
    name,
    kind: 'machine',
    parentId,
    plantId: '1',
    attributes,
  }) as unknown as Asset;
const ASSETS = [
  asset('1', 'Quayside', null),
  asset('2', 'Wash house', '1'),
  asset('3', 'Washer 1', '2', { steam: 'yes', line: 1 }),
  asset('4', 'Washer 2', '2', { steam: 'no', line: 2 }),
];

/** A panel that keeps its value and reports it to the test. */
function showScope(scope: Scope) {
  const onChange = jest.fn();
  function Host() {
    const [now, setNow] = useState(scope);
    return (
      <ScopePanel
        scope={now}
        onChange={(next) => {
          onChange(next);
          setNow(next);
        }}
      />
    );
  }
  return { ...renderScreen(<Host />, { 'GET /api/assets': ASSETS }), onChange };
}

function showHours(hours: HoursFilter | null) {
  const onChange = jest.fn();
  function Host() {
    const [now, setNow] = useState(hours);
    return (
      <HoursPanel
        hours={now}
        onChange={(next) => {
          onChange(next);
          setNow(next);
        }}
      />
    );
  }
  return { ...renderScreen(<Host />), onChange };
}

const WHOLE: Scope = { assetIds: null, attributes: [] };

describe('the scope', () => {
  it('is all assets until some are chosen, and can be all again', async () => {
    const { person, onChange } = showScope(WHOLE);
    expect(screen.getByText(/^All assets\. Choose some/)).toBeTruthy();
    const all = screen.getByRole('button', { name: 'All assets' });
    expect(all.getAttribute('aria-disabled')).toBe('true');
    await person.click(await screen.findByRole('checkbox', { name: 'Wash house' }));
    expect(onChange).toHaveBeenLastCalledWith({ assetIds: ['2'], attributes: [] });
    expect(screen.getByText('1 chosen, with everything below')).toBeTruthy();
    await person.click(all);
    expect(onChange).toHaveBeenLastCalledWith(WHOLE);
  });

  it('opens and closes branches of the tree, and finds what lies in closed ones', async () => {
    const { person } = showScope(WHOLE);
    expect(screen.queryByText('Washer 1')).toBeNull();
    await person.click(await screen.findByRole('button', { name: 'Open Wash house' }));
    expect(await screen.findByText('Washer 1')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Close Wash house' }));
    expect(screen.queryByText('Washer 1')).toBeNull();
    await person.type(screen.getByLabelText('Search assets'), 'washer 2');
    expect(await screen.findByText('Washer 2')).toBeTruthy();
    expect(screen.queryByText('Washer 1')).toBeNull();
  });

  it('tells a screen reader the depth of each asset and whether it is chosen', async () => {
    showScope({ assetIds: ['2'], attributes: [] });
    await screen.findByText('Wash house');
    const items = within(screen.getByRole('tree', { name: 'Assets of the scope' })).getAllByRole('treeitem');
    expect(
      items.map((each) => [each.getAttribute('aria-level'), each.getAttribute('aria-selected')]),
    ).toEqual([
      ['1', 'false'],
      ['2', 'true'],
    ]);
  });

  it('takes only assets with an attribute: its first value to begin with, then those that are chosen', async () => {
    const { person, onChange } = showScope(WHOLE);
    await person.click(await screen.findByRole('button', { name: 'Only with an attribute' }));
    await person.click(await screen.findByText('steam'));
    expect(onChange).toHaveBeenLastCalledWith({
      assetIds: null,
      attributes: [{ name: 'steam', values: ['no'] }],
    });
    await person.click(screen.getByRole('checkbox', { name: 'yes' }));
    expect(onChange.mock.lastCall[0].attributes[0].values.sort()).toEqual(['no', 'yes']);
    await person.click(screen.getByRole('checkbox', { name: 'no' }));
    await person.click(screen.getByRole('checkbox', { name: 'yes' }));
    // Without a value there is no condition.
    expect(onChange).toHaveBeenLastCalledWith(WHOLE);
  });
});

describe('recurring hours', () => {
  it('are built from conditions, joined by all or by any', async () => {
    const { person, onChange } = showHours(null);
    expect(screen.getByText('All hours')).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: 'on weekdays' }));
    expect(screen.queryByRole('radiogroup', { name: 'How conditions are joined' })).toBeNull();
    await person.click(screen.getByRole('radio', { name: 'working hours' }));
    expect(onChange.mock.lastCall[0]).toMatchObject({
      kind: 'all',
      of: [{ kind: 'weekdays' }, { kind: 'working' }],
    });
    await person.click(screen.getByRole('radio', { name: 'any may hold' }));
    expect(onChange.mock.lastCall[0]).toMatchObject({ kind: 'any' });
    await person.click(screen.getAllByRole('button', { name: 'Remove this condition' })[1]);
    expect(onChange.mock.lastCall[0]).toMatchObject({ kind: 'weekdays' });
  });

  it('keep at least one weekday and one month', async () => {
    const { person, onChange } = showHours({ kind: 'weekdays', days: [6] });
    await person.click(screen.getByRole('checkbox', { name: 'Sat' }));
    expect(onChange).not.toHaveBeenCalled();
    await person.click(screen.getByRole('checkbox', { name: 'Mon' }));
    expect(onChange).toHaveBeenLastCalledWith({ kind: 'weekdays', days: [1, 6] });
    await person.click(screen.getByRole('radio', { name: 'in months' }));
    const months = screen.getByRole('group', { name: 'Months' });
    const chosen = within(months)
      .getAllByRole('checkbox')
      .filter((each) => each.getAttribute('aria-checked') === 'true');
    expect(chosen.length).toBeGreaterThan(0);
  });

  it('lie inside or outside of working hours', async () => {
    const { person, onChange } = showHours({ kind: 'working', inside: true });
    await person.click(screen.getByRole('radio', { name: 'outside working hours' }));
    expect(onChange).toHaveBeenLastCalledWith({ kind: 'working', inside: false });
  });

  it('that were built in another way can only be replaced', async () => {
    const built: HoursFilter = {
      kind: 'not',
      of: {
        kind: 'all',
        of: [
          { kind: 'weekdays', days: [1] },
          { kind: 'clock', from: '06:00', to: '08:00' },
        ],
      },
    };
    const { person, onChange } = showHours(built);
    expect(screen.getByText(/cannot be changed here, only replaced/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'All hours' }));
    expect(onChange).toHaveBeenLastCalledWith(null);
  });
});
