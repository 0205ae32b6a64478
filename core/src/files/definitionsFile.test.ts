import type { RuleInput } from '../api/alarms';
import type { Metric } from '../api/metrics';
import type { IndicatorDefinition } from '../indicators/definition';
import { alarmRuleSchema } from '../schemas/alarmRule';
import {
  matchPeople,
  namedIn,
  readDefinitionsFile,
  takeIndicators,
  takeRules,
  writeDefinitionsFile,
  type DefinitionsHere,
  type FiledIndicator,
} from './definitionsFile';

const rule = (parts: object = {}): RuleInput =>
  alarmRuleSchema.validateSync({
    name: 'Too hot',
    metricId: '10',
    test: { kind: 'limit', side: 'above', limit: 205, deadband: 4 },
    onDelayMs: 0,
    offDelayMs: 0,
    level: 'breach',
    told: ['3'],
    escalation: { afterMs: 600_000, to: ['4'] },
    suppress: { metricId: '11', code: 2, is: true },
    under: '7',
    ...parts,
  }) as RuleInput;
const definition = (parts: object = {}): IndicatorDefinition =>
  ({
    name: 'Gas per kg',
    description: '',
    assetId: '7',
    ownerId: '3',
    measure: {
      metricId: '10',
      summary: 'sum',
      per: { metricId: '11', summary: 'sum', factor: 1, unit: null },
    },
    window: { kind: 'toDate', unit: 'month' },
    hours: null,
    judge: { kind: 'limits', band: { direction: 'lower', caution: 1, breach: 2, target: null } },
    target: { kind: 'periods', period: 'month', prorate: 'calendar' },
    reference: { kind: 'measure', measure: { metricId: '12', summary: 'sum', per: null } },
    decimals: 2,
    display: 'units',
    boardId: '5',
    ...parts,
  }) as IndicatorDefinition;
const filed: FiledIndicator = {
  id: '20',
  definition: definition(),
  targets: [{ start: '2026-11-01', value: 1.1, month: false }],
};
const over = rule({
  name: 'Gas high',
  over: { period: 'day', summary: 'sum', indicatorId: '20' },
  suppress: null,
});
const metric = (id: string): Metric =>
  ({
    id,
    key: `key-${id}`,
    name: `Metric ${id}`,
    assetName: 'Dryer 1',
    plantName: 'Quayside',
    unit: 'kWh',
  }) as Metric;
const NAMED = {
  metrics: ['10', '11', '12'].map(metric),
  assets: [{ id: '7', title: 'Quayside / Dryer 1' }],
  boards: [{ id: '5', title: 'Dryers' }],
  indicators: [],
  people: [
    { id: '3', name: 'Ines Varga' },
    { id: '4', name: 'Dele Marsh' },
  ],
};
const written = (): string => writeDefinitionsFile({ definitions: [filed], rules: [rule(), over] }, NAMED);
const elsewhere = (parts: Partial<DefinitionsHere> = {}): DefinitionsHere => ({
  metrics: new Map(['10', '11', '12'].map((id) => [id, `1${id}`])),
  assets: new Map([['7', '107']]),
  boards: new Map([['5', '105']]),
  indicators: new Map([['20', '120']]),
  people: new Map([
    ['3', '103'],
    ['4', '104'],
  ]),
  ...parts,
});

describe('a file of rules and indicators', () => {
  it('is read as it was written', () => {
    const { file, refused } = readDefinitionsFile(written());
    expect(refused).toEqual([]);
    expect(file.rules).toEqual([rule(), over]);
    expect(file.definitions).toEqual([filed]);
    expect(file.metrics[0]).toEqual({
      id: '10',
      key: 'key-10',
      name: 'Metric 10',
      asset: 'Quayside / Dryer 1',
      unit: 'kWh',
    });
  });

  it('names everything that its rules and indicators speak of, and not its own indicators', () => {
    expect(namedIn({ definitions: [filed], rules: [rule(), over] })).toEqual({
      metrics: ['10', '11', '12'],
      assets: ['7'],
      indicators: [],
      boards: ['5'],
      people: ['4', '3'],
    });
    expect(namedIn({ definitions: [], rules: [over] }).indicators).toEqual(['20']);
  });

  it('gets the ids of another server everywhere, so that no id of its own is left', () => {
    const { file } = readDefinitionsFile(written());
    const here = elsewhere();
    const content = {
      rules: takeRules(file, here).map(({ input }) => input!),
      definitions: takeIndicators(file, here).map(({ id, input, targets }) => ({
        id,
        definition: input!,
        targets,
      })),
    };
    expect(
      Object.values(namedIn(content))
        .flat()
        .every((id) => id.startsWith('1') && id.length === 3),
    ).toBe(true);
    expect(content.rules[1].over?.indicatorId).toBe('120');
  });

  it('refuses by itself what has no metric, place or indicator here, and says which', () => {
    const { file } = readDefinitionsFile(written());
    const [first] = takeRules(file, elsewhere({ metrics: new Map([['10', '110']]) }));
    expect(first).toEqual({
      name: 'Too hot',
      input: null,
      told: ['Metric 11, Quayside / Dryer 1 is not here.'],
    });
    expect(takeRules(file, elsewhere({ assets: new Map() }))[0].told).toEqual([
      'Quayside / Dryer 1 is not here.',
    ]);
    expect(takeRules(file, elsewhere({ indicators: new Map() }))[1].told).toEqual([
      'The indicator Gas per kg is not here.',
    ]);
  });

  it('leaves out people and boards that are not here, tells them, and escalates to nobody no longer', () => {
    const { file } = readDefinitionsFile(written());
    const here = elsewhere({ people: new Map(), boards: new Map() });
    const [first] = takeRules(file, here);
    expect(first.input).toMatchObject({ told: [], escalation: null });
    expect(first.told).toEqual([
      'Dele Marsh is not here and is left out.',
      'Ines Varga is not here and is left out.',
    ]);
    const [indicator] = takeIndicators(file, here);
    expect(indicator.input).toMatchObject({ ownerId: null, boardId: null });
    expect(indicator.told).toContain('Dryers is not here and is left out.');
  });

  it('with one wrong rule keeps the others', () => {
    const broken = JSON.parse(written()) as { rules: object[] };
    broken.rules[0] = { ...broken.rules[0], level: 'red' };
    broken.rules.push(null as never);
    const { file, refused } = readDefinitionsFile(JSON.stringify(broken));
    expect(file.rules.map(({ name }) => name)).toEqual(['Gas high']);
    expect(refused).toMatchObject([
      { kind: 'rule', name: 'Too hot', words: expect.stringMatching(/^rules\[0\]\.level: /) as string },
      { kind: 'rule', name: 'rules[2]' },
    ]);
  });

  it.each([
    ['a board', '{"kind":"vivid-beacon-board"}', 'This is not a file of rules and indicators'],
    ['broken JSON', '{\n"kind": \n}', 'not valid JSON'],
    ['a list that is none', '{"kind":"vivid-beacon-definitions","rules":3,"metrics":[]}', 'rules:'],
    ['no metrics', '{"kind":"vivid-beacon-definitions","rules":[]}', 'metrics'],
  ])('that is %s is refused whole', (_what, text, words) => {
    expect(() => readDefinitionsFile(text)).toThrow(words);
  });

  it('finds people by name, unless two bear it', () => {
    const people = [{ id: '3', name: 'Ines Varga' }];
    expect(matchPeople({ people }, [{ id: '9', name: 'ines varga ' }]).get('3')).toBe('9');
    const two = ['8', '9'].map((id) => ({ id, name: 'Ines Varga' }));
    expect(matchPeople({ people }, two).size).toBe(0);
  });
});
