import { DEFAULT_RULE } from '@vivid-beacon/core';
import type { RuleParts } from '@vivid-beacon/server';
import type { IdOf } from './layout';

const MINUTE = 60_000;

const PEOPLE_TOLD = { lead: 'Dele Marsh', technician: 'Marit Oduya', analyst: 'Ines Varga' } as const;

/** Alarm rules; `personOf` gives the id of a person, `assetOf` of an asset by name ("plant" or "plant/asset"). */
export function demoRules(
  id: IdOf,
  personOf: (name: string) => string,
  assetOf: (name: string) => string,
): RuleParts[] {
  const lead = personOf(PEOPLE_TOLD.lead);
  const high = (
    name: string,
    metric: string,
    limit: number,
    minutes: number,
    deadband: number,
    part: Partial<RuleParts> = {},
  ): RuleParts => ({
    ...DEFAULT_RULE,
    name,
    metricId: id(metric),
    test: { kind: 'limit', side: 'above', limit, deadband },
    onDelayMs: minutes * MINUTE,
    ...part,
  });
  const network = { level: 'caution', priority: 'low' } as const;
  return [
    high('Ironer 2 bed temperature high', 'Quayside/Ironer 2/Bed temperature', 205, 10, 4, {
      priority: 'high',
      told: [lead],
      toDo: 'Slow the feed. If it does not come down in ten minutes, check steam trap B and call the technician.',
      escalation: { afterMs: 30 * MINUTE, to: [personOf(PEOPLE_TOLD.analyst)] },
    }),
    high('Ironer 1 bed temperature high', 'Quayside/Ironer 1/Bed temperature', 205, 10, 4, {
      priority: 'high',
      told: [lead],
    }),
    high('Boiler house pressure high', 'Foundry Lane/Boiler/Steam pressure', 6, 5, 0.2, {
      told: [lead, personOf(PEOPLE_TOLD.technician)],
      toDo: 'Open the relief to the condensate tank and look at the burner.',
    }),
    high('Gateway G-07 late reads', 'Upper Weir/Gateway G-07/Late reads', 30, 15, 5, network),
    high('Portal P-11 packet loss', 'Upper Weir/Portal P-11/Packet loss', 4, 20, 1, network),
    {
      ...DEFAULT_RULE,
      name: 'Steam meter S-03 silent',
      metricId: id('Quayside/Steam meter S-03/Steam flow'),
      test: { kind: 'silence', forMs: 60 * MINUTE },
      level: 'caution',
      priority: 'low',
      told: [personOf(PEOPLE_TOLD.technician)],
    },
    {
      ...DEFAULT_RULE,
      name: 'Washer lines stand still',
      metricId: id('Quayside/Washer line 1/State'),
      under: assetOf('Quayside'),
      test: { kind: 'state', code: 1, is: false },
      onDelayMs: 30 * MINUTE,
      hours: { kind: 'working', inside: true },
      level: 'caution',
      priority: 'low',
    },
    {
      ...DEFAULT_RULE,
      name: 'Compressed air low',
      metricId: id('Quayside/Compressor A/Air pressure'),
      test: { kind: 'limit', side: 'below', limit: 6.2, deadband: 0.2 },
      onDelayMs: 2 * MINUTE,
      suppress: { metricId: id('Quayside/Compressor A/State'), code: 1, is: false },
    },
    {
      ...DEFAULT_RULE,
      name: 'Water of the day above plan',
      metricId: id('Quayside/Water meter/Meter reading'),
      test: { kind: 'consumption', limit: 150, per: 'day', pace: false },
      level: 'caution',
      priority: 'low',
    },
  ];
}

/** Rules on derived metrics, judged hour by hour. @param id of a derived metric by "asset/metric". */
export function periodRules(id: (name: string) => string, technician: string): RuleParts[] {
  return [
    {
      ...DEFAULT_RULE,
      name: 'Gas per kg of the dryers high',
      metricId: id('Dryers/Gas per kg of all dryers'),
      over: { period: 'hour', summary: 'mean', indicatorId: null },
      test: { kind: 'limit', side: 'above', limit: 1.15, deadband: 0.02 },
      caution: {
        test: { kind: 'limit', side: 'above', limit: 1.12, deadband: 0.02 },
        priority: 'low',
        message: '',
        toDo: '',
        told: [],
        escalation: null,
      },
      told: [technician],
      toDo: 'Look for a dryer that runs half empty, then at the lint screens.',
    },
  ];
}
