import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { Asset, WorkingCalendar, Role } from '@vivid-beacon/core';
import { Refused, renderScreen, type Answers } from '../../testing/renderScreen';
import { CalendarEditor } from './CalendarEditor';
import { CalendarsScreen } from './CalendarsScreen';
import { personOf, signedIn } from '../../testing/signedIn';

jest.setTimeout(30_000);
jest.mock('expo-router', () => ({ useRouter: () => ({ push: jest.fn(), navigate: jest.fn() }) }));

const PLANT = {
  id: '1',
  name: 'Quayside',
  parentId: null,
  plantId: '1',
  zone: 'Europe/London',
} as unknown as Asset;
const YEAR = new Date().getFullYear();
const NEXT = YEAR + 1;
const calendar = (part: Partial<WorkingCalendar> = {}): WorkingCalendar => ({
  shifts: [{ name: 'Early', days: [1, 2, 3, 4, 5], from: '06:00', to: '14:00' }],
  holidays: [{ date: `${NEXT}-12-25`, name: 'Christmas Day' }],
  firstWeekday: 1,
  financialYearMonth: 4,
  ...part,
});

function show(given = calendar(), answers: Answers = {}, mayEdit = true) {
  return renderScreen(<CalendarEditor plant={PLANT} calendar={given} mayEdit={mayEdit} />, {
    'PUT /api/calendars/1': given,
    ...answers,
  });
}
const saved = (sent: readonly { method: string; body: unknown }[]) =>
  sent.find(({ method }) => method === 'PUT')?.body;

describe('the working calendar of a plant', () => {
  it('says how long was worked in the last week, and has nothing to save at first', () => {
    show();
    // Five days of eight hours, whatever the day.
    expect(screen.getByText(/^40 h worked in the last 7 days, time of Europe\/London$/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Saved' }).getAttribute('aria-disabled')).toBe('true');
  });

  it('saves shifts with their days', async () => {
    const { person, sent } = show();
    await person.click(screen.getByRole('button', { name: 'Sat, off' }));
    await person.click(screen.getByRole('button', { name: 'Mon, worked' }));
    await person.click(screen.getByRole('button', { name: 'Add a shift' }));
    await person.click(screen.getByRole('button', { name: 'Save calendar' }));
    await waitFor(() =>
      expect(saved(sent)).toMatchObject({
        shifts: [
          { name: 'Early', days: [2, 3, 4, 5, 6], from: '06:00', to: '14:00' },
          { name: 'Shift 2', days: [1, 2, 3, 4, 5] },
        ],
      }),
    );
  });

  it('is only read where the role may not change it', () => {
    show(calendar(), {}, false);
    expect(screen.getByText('06:00 to 14:00, Mon, Tue, Wed, Thu, Fri')).toBeTruthy();
    expect(screen.getByText('Apr')).toBeTruthy();
    expect(screen.queryAllByRole('button')).toEqual([]);
    expect(screen.queryAllByRole('radio')).toEqual([]);
    expect(screen.queryAllByRole('textbox')).toEqual([]);
  });

  it('cannot be saved with a time that is none', async () => {
    const { person } = show();
    const from = screen.getByLabelText<HTMLInputElement>('From');
    await person.clear(from);
    await person.type(from, '6 am');
    expect(screen.getByText('such as 06:00')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Save calendar' }).getAttribute('aria-disabled')).toBe('true');
    await person.clear(from);
    await person.type(from, '07:00');
    expect(screen.queryByText('such as 06:00')).toBeNull();
    expect(screen.getByRole('button', { name: 'Save calendar' }).getAttribute('aria-disabled')).toBeNull();
  });

  it('without shifts works around the clock', async () => {
    const { person } = show();
    await person.click(screen.getByRole('button', { name: 'Remove shift Early' }));
    expect(screen.getByText(/counts as working around the clock/)).toBeTruthy();
    expect(screen.getByText(/^7 days worked/)).toBeTruthy();
  });

  it('changes weeks and years', async () => {
    const { person, sent } = show();
    await person.click(screen.getByText('Weeks and years'));
    await person.click(
      within(screen.getByRole('radiogroup', { name: 'First weekday' })).getByRole('radio', { name: 'Sun' }),
    );
    await person.click(screen.getByRole('radio', { name: 'Jul' }));
    await person.click(screen.getByRole('button', { name: 'Save calendar' }));
    await waitFor(() => expect(saved(sent)).toMatchObject({ firstWeekday: 7, financialYearMonth: 7 }));
  });

  it('says why it was not saved, and keeps what was typed', async () => {
    const { person } = show(calendar(), {
      'PUT /api/calendars/1': new Refused(422, {
        code: 'BAD_INPUT',
        message: 'Two shifts have the same name.',
      }),
    });
    await person.click(screen.getByRole('button', { name: 'Sat, off' }));
    await person.click(screen.getByRole('button', { name: 'Save calendar' }));
    expect(await screen.findByText(/Two shifts have the same name/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Sat, worked' })).toBeTruthy();
  });

  it('is only shown to those who may not change it', () => {
    show(calendar(), {}, false);
    expect(screen.queryByRole('button', { name: 'Add a shift' })).toBeNull();
    expect(screen.queryByRole('button', { name: /Save/ })).toBeNull();
    expect(screen.queryByRole('button', { name: /^Work on/ })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Add the day' })).toBeNull();
  });
});

describe('holidays', () => {
  it('are typed in, each day once, and can be worked on again', async () => {
    const { person, sent } = show();
    const field = screen.getByLabelText<HTMLInputElement>('A day off');
    const add = screen.getByRole('button', { name: 'Add the day' });
    await person.type(field, `${NEXT}-02-30`);
    expect(add.getAttribute('aria-disabled')).toBe('true');
    await person.clear(field);
    await person.type(field, `${NEXT}-12-24`);
    await person.click(add);
    expect(field.value).toBe('');
    expect(screen.getByText('2 to come, 2 in all')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: `Work on ${NEXT}-12-25` }));
    await person.click(screen.getByRole('button', { name: 'Save calendar' }));
    await waitFor(() =>
      expect(saved(sent)).toMatchObject({ holidays: [{ date: `${NEXT}-12-24`, name: 'Day off' }] }),
    );
  });

  it('show the next eight first, those that are over with all', async () => {
    const many = Array.from({ length: 12 }, (_, i) => ({
      date: `${NEXT}-03-${String(i + 10)}`,
      name: `Day ${i}`,
    }));
    const { person } = show(
      calendar({ holidays: [{ date: `${YEAR - 1}-12-25`, name: 'Last year' }, ...many] }),
    );
    expect(screen.getByText('12 to come, 13 in all')).toBeTruthy();
    expect(screen.queryByText('Last year')).toBeNull();
    expect(screen.queryByText('Day 8')).toBeNull();
    await person.click(screen.getByRole('button', { name: 'Show all 13' }));
    expect(screen.getByText('Last year')).toBeTruthy();
    expect(screen.getByText('Day 11')).toBeTruthy();
  });

  it('are taken from a country and a region of it', async () => {
    const { person, sent } = show(calendar({ holidays: [] }), {
      'GET /api/holidays/countries': ({ path }: { path: string }) =>
        path.includes('?') ? [{ code: 'SCT', name: 'Scotland' }] : [{ code: 'GB', name: 'United Kingdom' }],
      'GET /api/holidays': [{ date: `${NEXT}-11-30`, name: 'St Andrew’s Day' }],
    });
    await person.click(screen.getByRole('button', { name: 'Public holidays' }));
    await person.click(await screen.findByText('United Kingdom'));
    await person.click(await screen.findByText('Scotland'));
    await person.click(screen.getByRole('button', { name: /^Take holidays of/ }));
    expect(await screen.findByText('St Andrew’s Day')).toBeTruthy();
    expect(sent.at(-1)?.path).toBe(`/api/holidays?country=GB&region=SCT&from=${YEAR - 1}&to=${YEAR + 2}`);
  });

  it('are read from a calendar file, or it is said why not', async () => {
    let times = 0;
    show(calendar({ holidays: [] }), {
      'POST /api/calendars/1/read': () =>
        ++times === 1
          ? new Refused(422, { code: 'BAD_INPUT', message: 'This is no iCalendar file.' })
          : [{ date: `${NEXT}-08-03`, name: 'Works outing' }],
    });
    const input = screen.getByLabelText('Calendar file');
    const file = { text: async () => 'BEGIN:VCALENDAR' };
    fireEvent.change(input, { target: { files: [file] } });
    expect(await screen.findByText(/This is no iCalendar file/)).toBeTruthy();
    fireEvent.change(input, { target: { files: [file] } });
    expect(await screen.findByText('Works outing')).toBeTruthy();
    expect(screen.queryByText(/This is no iCalendar file/)).toBeNull();
  });
});

describe('the calendars', () => {
  const session = (role: Role) => ({
    'GET /api/session': signedIn(personOf(role, 'Dele Marsh', '1')),
  });

  it('are those of the plants, one after another', async () => {
    const other = { ...PLANT, id: '2', name: 'Foundry Lane', plantId: '2' };
    const { person } = renderScreen(<CalendarsScreen />, {
      ...session('analyst'),
      'GET /api/assets': [PLANT, other, { ...PLANT, id: '3', parentId: '1', name: 'Washer' }],
      'GET /api/calendars/1': calendar(),
      'GET /api/calendars/2': calendar({ shifts: [{ name: 'Day', days: [1], from: '07:00', to: '19:00' }] }),
    });
    expect((await screen.findByLabelText<HTMLInputElement>('Shift')).value).toBe('Early');
    expect(screen.queryByRole('radio', { name: 'Washer' })).toBeNull();
    await person.click(screen.getByRole('radio', { name: 'Foundry Lane' }));
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Shift').value).toBe('Day'));
  });

  it('say where plants come from when there are none', async () => {
    renderScreen(<CalendarsScreen />, { ...session('viewer'), 'GET /api/assets': [] });
    expect(await screen.findByText('There are no plants yet. Add one under Assets.')).toBeTruthy();
  });
});
