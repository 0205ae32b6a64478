import { readFileSync } from 'node:fs';
import path from 'node:path';
import { boardDocumentSchema, BOARD_FORMAT_VERSION, emptyReadout, type Readout } from '../board';
import { readBoardFile, writeBoardFile } from '../boardFile';

/* Board files as older versions wrote them: what they show must stay as it was. */

const read = (name: string) => readBoardFile(readFileSync(path.join(__dirname, name), 'utf8'));

describe.each(['version1.json', 'version2.json'])('a board file of %s', (name) => {
  const file = read(name);

  it('is one of this version, with the members of its forms and no others', () => {
    expect(file.document.version).toBe(BOARD_FORMAT_VERSION);
    expect(boardDocumentSchema.isValidSync(file.document)).toBe(true);
    for (const readout of file.document.readouts)
      expect(Object.keys(readout).sort()).toEqual(Object.keys(emptyReadout('r', readout.form)).sort());
  });

  it('comes back as it is once it was written anew', () => {
    const metrics = file.metrics.map(({ asset, ...metric }) => {
      const [plantName, assetName] = asset.split(' / ');
      return { ...metric, plantName, assetName };
    });
    expect(readBoardFile(writeBoardFile(file.title, file.document, metrics as never)).document).toEqual(
      file.document,
    );
  });
});

it('a readout of version 1 keeps its measure, its period and its band', () => {
  const [gauge, trend] = read('version1.json').document.readouts;
  expect(gauge).toMatchObject({
    form: 'gauge',
    measures: [{ metricId: '7' }],
    decimals: 2,
    band: { breach: 1.5 },
  });
  expect(trend).toMatchObject({
    form: 'trend',
    title: 'Gas by the hour',
    bucket: 'hour',
    measures: [{ metricId: '7' }],
  });
});

it('a readout of version 2 keeps of the choices of all forms those of its own', () => {
  const { readouts } = read('version2.json').document;
  const of = <Form extends Readout['form']>(form: Form): Readout =>
    readouts.find((readout) => readout.form === form)!;
  expect(readouts).toHaveLength(8);
  expect(of('trend')).toMatchObject({
    bucket: 'hour',
    mark: 'columns',
    pointLabels: true,
    normalise: { by: 'first' },
    align: { attribute: 'Installed', days: 60 },
    secondBand: { breach: 1.5 },
    scale: { ends: [0, 2], reversed: true, broken: true },
  });
  const scale = { ends: [0, 2], fromTarget: false, reversed: true, logarithmic: false };
  expect(of('gauge')).toMatchObject({ scale: { ...scale, sectors: 'outside' }, band: { breach: 1.5 } });
  expect(of('tank')).toHaveProperty('scale', scale);
  expect(of('note')).toMatchObject({ text: 'Kept **low**.', title: 'The note' });
  expect(of('lamp')).not.toHaveProperty('mark');
});
