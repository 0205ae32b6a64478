import { emptyReadout, boardDocumentSchema, BOARD_FORMAT_VERSION, type Readout } from '../board/board';
import { changeForm } from '../board/changeForm';
import { WHOLE_SCOPE } from '../domain/query';
import { isOverTime, READOUT_FORMS, showsWords, traitsOfForm } from './forms';

const COLUMNS = 12;
const MEASURE: Readout['measures'][number] = { metricId: '1', summary: 'mean', per: null };

describe.each(READOUT_FORMS)('the form %s', (form) => {
  const traits = traitsOfForm(form);

  it('fits a line of the sheet, with one value and with many', () => {
    const { one, many } = traits.columns;
    expect(one).toBeGreaterThan(0);
    expect(many).toBeGreaterThanOrEqual(one);
    expect(many).toBeLessThanOrEqual(COLUMNS);
  });

  it('begins as a readout that a board takes, without measures only where it shows words', () => {
    const board = (measures: Readout['measures']): object => ({
      version: BOARD_FORMAT_VERSION,
      window: { kind: 'toDate', unit: 'day' },
      scope: WHOLE_SCOPE,
      hours: null,
      readouts: [{ ...emptyReadout('r', form), measures }],
    });
    expect(boardDocumentSchema.isValidSync(board([MEASURE]))).toBe(true);
    expect(boardDocumentSchema.isValidSync(board([]))).toBe(showsWords({ form }));
  });

  it('keeps a size that was chosen only where the other form is alike in time', () => {
    const sized: Readout = {
      ...emptyReadout('r', 'gauge'),
      measures: [MEASURE],
      size: { columns: 4, rows: 2 },
    };
    expect(changeForm(sized, form).size === null).toBe(isOverTime({ form }));
  });

  it('is compared from the start unless it is drawn over time', () => {
    expect(emptyReadout('r', form).compare).toBe(isOverTime({ form }) ? 'none' : 'before');
  });
});
