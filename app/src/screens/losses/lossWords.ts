import { formatLength, formatNumber, type IndicatorLoss } from '@vivid-beacon/core';
import { levelsByWords } from '../../readouts/levelsByWords';
import type { FlagSubject } from '../../flags/FlagForm';

/** How long an indicator lay in Breach and Caution, in words. */
export function lossWords({ breachMs, cautionMs, clearMs, nodataMs, by }: IndicatorLoss): string {
  const known = breachMs + cautionMs + clearMs;
  if (known === 0) return 'No data';
  const share = formatNumber((100 * breachMs) / known, 0);
  const missing = nodataMs > 0 ? `, ${formatLength(nodataMs)} without data` : '';
  return `${formatLength(breachMs)} in Breach (${share} %), ${formatLength(cautionMs)} in Caution${missing}, ${levelsByWords(by)}`;
}

/** What a flag says that is handed out for a loss, with its numbers as they are now and the way to the indicator. */
export function flagOfLoss(loss: IndicatorLoss): FlagSubject {
  const { id, name, assetId, assetName, metricId, window } = loss;
  return {
    title: `Investigate losses: ${name}, ${assetName}`,
    kind: 'loss',
    assetId,
    metricId,
    alarmId: null,
    evidence: {
      title: name,
      address: `/indicators/${id}`,
      window,
      numbers: [
        { name: 'In Breach', text: formatLength(loss.breachMs) },
        { name: 'In Caution', text: formatLength(loss.cautionMs) },
        { name: 'Clear', text: formatLength(loss.clearMs) },
        { name: 'No data', text: formatLength(loss.nodataMs) },
      ],
    },
  };
}
