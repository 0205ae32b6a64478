import { useState, type ReactElement } from 'react';
import { fireEvent, screen } from '@testing-library/react';
import { renderScreen } from '../testing/renderScreen';
import { Button } from './Button';
import { LengthField } from './LengthField';
import { MomentField } from './MomentField';
import { NumberField } from './NumberField';
import { OptionalNumberField } from './OptionalNumberField';
import { PickList } from './PickList';
import { readTyped } from './readTyped';
import { WordRow } from './WordRow';

/** A field with the state its parent would keep; `heard` lists the values it reported. */
function Kept<T>({
  first,
  heard,
  children,
}: {
  readonly first: T;
  readonly heard: T[];
  readonly children: (value: T, set: (value: T) => void) => ReactElement;
}) {
  const [value, set] = useState(first);
  return children(value, (next) => {
    heard.push(next);
    set(next);
  });
}

describe('readTyped', () => {
  it.each([
    ['12.5', 12.5],
    ['12,5', 12.5],
    [' −3 ', -3],
    ['1e3', 1000],
    ['', null],
    ['  ', null],
    ['twelve', null],
    ['1.2.3', null],
    ['Infinity', null],
  ])('reads %p as %p', (text, number) => {
    expect(readTyped(text)).toBe(number);
  });
});

describe('NumberField', () => {
  it('tells numbers while they are typed, keeps what is not one and names it', async () => {
    const heard: number[] = [];
    const { person } = renderScreen(
      <Kept first={20} heard={heard}>
        {(value, set) => <NumberField label="Limit" unit="°C" value={value} onChange={set} />}
      </Kept>,
    );
    const field = screen.getByLabelText('Limit');
    expect(screen.getByText('°C')).toBeTruthy();
    await person.clear(field);
    expect(screen.getByRole('alert').textContent).toBe('"" is not a number');
    expect(heard).toEqual([]);
    await person.type(field, '21,5');
    expect(heard).toEqual([2, 21, 21, 21.5]);
    expect((field as HTMLInputElement).value).toBe('21,5');
    await person.type(field, 'x');
    expect(screen.getByRole('alert').textContent).toBe('"21,5x" is not a number');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(heard.at(-1)).toBe(21.5);
  });

  it('shows what was understood, and asks where the sign could be either', async () => {
    const heard: number[] = [];
    const { person } = renderScreen(
      <Kept first={20} heard={heard}>
        {(value, set) => <NumberField label="Limit" unit="kWh" value={value} onChange={set} />}
      </Kept>,
    );
    const field = screen.getByLabelText('Limit');
    await person.clear(field);
    await person.type(field, '300k');
    expect(screen.getByRole('status').textContent).toBe('= 300,000 kWh');
    expect(heard.at(-1)).toBe(300_000);
    await person.clear(field);
    await person.type(field, '300,000');
    expect(heard.at(-1)).toBe(300_000);
    expect(screen.getByText('Read as 300,000, not 300 kWh')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Take 300' }));
    expect([heard.at(-1), (field as HTMLInputElement).value]).toEqual([300, '300']);
    expect(screen.queryByRole('status')).toBeNull();
  });

  it('takes over a number that is set from outside, and shows an error of its form', () => {
    const { rerender } = renderScreen(<NumberField label="Limit" value={1} onChange={() => undefined} />);
    rerender(<NumberField label="Limit" value={2} onChange={() => undefined} error="too small" />);
    expect((screen.getByLabelText('Limit') as HTMLInputElement).value).toBe('2');
    expect(screen.getByRole('alert').textContent).toBe('too small');
  });
});

describe('OptionalNumberField', () => {
  it('is nothing when empty, and tells neither half-typed numbers nor words', async () => {
    const heard: (number | null)[] = [];
    const { person } = renderScreen(
      <Kept<number | null> first={null} heard={heard}>
        {(value, set) => <OptionalNumberField label="Highest plausible value" value={value} onChange={set} />}
      </Kept>,
    );
    const field = screen.getByLabelText('Highest plausible value');
    await person.type(field, '-5');
    await person.clear(field);
    await person.type(field, 'none');
    expect(heard).toEqual([-5, null]);
    expect(screen.getByRole('alert').textContent).toBe('"none" is not a number');
  });
});

describe('LengthField', () => {
  it('shows the largest unit that fits, and keeps the length when the unit changes and back', async () => {
    const heard: number[] = [];
    const { person } = renderScreen(
      <Kept first={5_400_000} heard={heard}>
        {(value, set) => <LengthField label="Longest allowed gap" value={value} onChange={set} />}
      </Kept>,
    );
    const field = screen.getByLabelText('Longest allowed gap') as HTMLInputElement;
    expect(field.value).toBe('90');
    expect(screen.getByRole('radio', { name: 'min' }).getAttribute('aria-checked')).toBe('true');
    await person.clear(field);
    await person.type(field, '2');
    expect(heard.at(-1)).toBe(120_000);
    await person.click(screen.getByRole('radio', { name: 'h' }));
    expect(heard.at(-1)).toBe(7_200_000);
    expect(field.value).toBe('2');
  });
});

describe('MomentField', () => {
  it('shows and reads the wall clock of the site, over the change of clocks too', () => {
    const heard: (number | null)[] = [];
    renderScreen(
      <Kept<number | null> first={Date.UTC(2026, 6, 1, 5, 30)} heard={heard}>
        {(value, set) => <MomentField label="Since" value={value} zone="Europe/London" onChange={set} />}
      </Kept>,
    );
    const field = screen.getByLabelText('Since') as HTMLInputElement;
    expect(field.value).toBe('2026-07-01T06:30');
    fireEvent.change(field, { target: { value: '2026-12-01T06:30' } });
    expect(heard).toEqual([Date.UTC(2026, 11, 1, 6, 30)]);
    fireEvent.change(field, { target: { value: '' } });
    expect(heard.at(-1)).toBeNull();
  });
});

describe('PickList', () => {
  const options = Array.from({ length: 120 }, (_, i) => ({
    value: String(i),
    label: `Dryer ${i}`,
    detail: i % 2 ? 'Foundry Lane' : 'Quayside',
  }));

  const option = (label: string): Element => screen.getByText(label).closest('[role=radio]')!;

  it('shows eighty at most, narrows by all words in any order, and tells what is chosen', async () => {
    const heard: (string | null)[] = [];
    const { person } = renderScreen(
      <Kept<string | null> first="3" heard={heard}>
        {(value, set) => <PickList name="Asset" options={options} chosen={value} onChoose={set} />}
      </Kept>,
    );
    expect(screen.getAllByRole('radio')).toHaveLength(80);
    expect(screen.getByText('40 more. Type to narrow them down.')).toBeTruthy();
    expect(option('Dryer 3').getAttribute('aria-checked')).toBe('true');
    fireEvent.change(screen.getByLabelText('Search asset'), { target: { value: 'lane dryer 11' } });
    expect(screen.getAllByRole('radio').map((each) => each.textContent)).toEqual(
      [11, 111, 113, 115, 117, 119].map((i) => `Dryer ${i}Foundry Lane`),
    );
    await person.click(option('Dryer 113'));
    expect(heard).toEqual(['113']);
    fireEvent.change(screen.getByLabelText('Search asset'), { target: { value: 'lane dryer 11 zz' } });
    expect(screen.getByText('Nothing found for "lane dryer 11 zz".')).toBeTruthy();
  });

  it('has no search where the list is short, and says when it is empty', () => {
    const { rerender } = renderScreen(
      <PickList name="Asset" options={options.slice(0, 3)} chosen={null} onChoose={() => undefined} />,
    );
    expect(screen.queryByLabelText('Search asset')).toBeNull();
    rerender(<PickList name="Asset" options={[]} chosen={null} onChoose={() => undefined} />);
    expect(screen.getByText('Nothing to choose from.')).toBeTruthy();
  });
});

describe('WordRow and Button', () => {
  it('are a group of radio buttons with the chosen one marked', async () => {
    const heard: ('a' | 'b' | null)[] = [];
    const { person } = renderScreen(
      <Kept<'a' | 'b' | null> first="a" heard={heard}>
        {(value, set) => (
          <WordRow
            name="Window"
            options={[
              { value: 'a', label: 'Today' },
              { value: 'b', label: '7 days' },
            ]}
            chosen={value}
            onChoose={set}
          />
        )}
      </Kept>,
    );
    expect(screen.getByRole('radiogroup', { name: 'Window' })).toBeTruthy();
    await person.click(screen.getByRole('radio', { name: '7 days' }));
    expect(heard).toEqual(['b']);
    expect(screen.getByRole('radio', { name: '7 days' }).getAttribute('aria-checked')).toBe('true');
    expect(screen.getByRole('radio', { name: 'Today' }).getAttribute('aria-checked')).toBe('false');
  });

  it('does nothing while it is disabled, and may be named more fully than its label', async () => {
    const press = jest.fn();
    const { person, rerender } = renderScreen(
      <Button label="Save" name="Save the rule" onPress={press} disabled />,
    );
    const button = screen.getByRole('button', { name: 'Save the rule' });
    expect(button.getAttribute('aria-disabled')).toBe('true');
    fireEvent.click(button);
    rerender(<Button label="Save" name="Save the rule" onPress={press} />);
    expect(press).not.toHaveBeenCalled();
    await person.click(screen.getByRole('button', { name: 'Save the rule' }));
    expect(press).toHaveBeenCalledTimes(1);
  });
});
