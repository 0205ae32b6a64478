import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Refused, renderScreen, type Answers } from '../../testing/renderScreen';
import { LogImport } from './LogImport';

jest.setTimeout(30_000);

const ASSETS = [
  { id: '1', parentId: null, name: 'Quayside', kind: 'plant' },
  { id: '2', parentId: '1', name: 'Ironer 2' },
  { id: '5', parentId: null, name: 'Weir', kind: 'plant' },
  { id: '6', parentId: '5', name: 'Ironer 2' },
];
const show = (log: 'stops' | 'jobs', answers: Answers = {}) =>
  renderScreen(<LogImport log={log} />, {
    'GET /api/assets': ASSETS,
    'POST /api/stops/list': { added: 1, changed: 0, refused: [] },
    'POST /api/jobs/list': { added: 1, changed: 1, refused: [] },
    ...answers,
  });
const paste = (text: string): void =>
  void fireEvent.change(screen.getByLabelText('Or paste the table'), { target: { value: text } });
const STOPS =
  'Asset,Start,End,Reason\nWeir / Ironer 2,2026-11-19 06:00,2026-11-19 06:30,Belt\nIroner 2,2026-11-19 07:00,,Belt\nDryer 9,2026-11-19 07:00,,Lint\n';

describe('a log from a file', () => {
  it('asks only for the assets it names, and refuses doubtful and unknown ones by line', async () => {
    const { person, sent } = show('stops');
    expect(screen.getByRole('button', { name: 'Import stops' }).getAttribute('aria-disabled')).toBe('true');
    paste(STOPS);
    const bring = await screen.findByRole('button', { name: 'Import 1 stops' });
    const asked = sent.find(({ path }) => path === '/api/assets/named')!.body as { names: string[] };
    expect(asked.names).toEqual(['ironer 2', 'dryer 9']);
    expect(screen.getByText(/^Line 3: there is no single asset named "Ironer 2"/)).toBeTruthy();
    expect(screen.getByText(/^Line 4: there is no single asset named "Dryer 9"/)).toBeTruthy();
    await person.click(bring);
    expect(await screen.findByText('1 added, 0 updated, 2 refused')).toBeTruthy();
    const { entries } = sent.find(({ path }) => path === '/api/stops/list')!.body as { entries: object[] };
    expect(entries).toMatchObject([{ assetId: '6', reason: 'Belt' }]);
  });

  it('asks how times are meant before anything is taken', async () => {
    const { person } = show('jobs');
    paste('asset,number,at,status\nWeir,7,03/04/2026 09:00,Done\nWeir,7,03/04/2026 08:00,Received\n');
    expect(await screen.findByText(/the file itself cannot tell, please choose/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /Import 1/ })).toBeNull();
    await person.click(screen.getByRole('radio', { name: /^day first/i }));
    await person.click(await screen.findByRole('button', { name: 'Import 1 jobs' }));
    expect(await screen.findByText('1 added, 1 updated, 0 refused')).toBeTruthy();
  });

  it('says what the first row lacks, and why the server refused', async () => {
    const { person } = show('stops', {
      'POST /api/stops/list': new Refused(503, {
        code: 'NOT_READY',
        message: 'The database does not answer.',
      }),
    });
    paste('place,Start\nWeir,2026-11-19 06:00\n');
    expect(await screen.findByText(/"asset" is missing/)).toBeTruthy();
    paste(STOPS);
    await person.click(await screen.findByRole('button', { name: 'Import 1 stops' }));
    await waitFor(() => expect(screen.getByText('The database does not answer.')).toBeTruthy());
  });

  it('reads a file, and shows what the server refused with the line of the file', async () => {
    const { person } = show('stops', {
      'POST /api/stops/list': {
        added: 0,
        changed: 0,
        refused: [{ index: 0, reason: 'The time is in the future.' }],
      },
    });
    const file = new File([STOPS], 'stops.csv');
    Object.defineProperty(file, 'arrayBuffer', { value: async () => new TextEncoder().encode(STOPS).buffer });
    fireEvent.change(screen.getByLabelText('File with the log'), { target: { files: [file] } });
    await person.click(await screen.findByRole('button', { name: 'Import 1 stops' }));
    expect(await screen.findByText('Line 2: The time is in the future.')).toBeTruthy();
  });
});
