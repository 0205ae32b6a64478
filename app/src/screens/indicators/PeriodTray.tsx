import { useState } from 'react';
import type { IndicatorReading, IndicatorVersion, IndicatorPast, JudgedPeriod } from '@vivid-beacon/core';
import { mayAct } from '../../api/mayAct';
import { useReading } from '../../api/queries';
import { usePerson } from '../../api/session';
import { localWindow } from '@vivid-beacon/core';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { ProvenanceTray } from '../../components/ProvenanceTray';
import { Tray } from '../../components/Tray';
import { FlagForm } from '../../flags/FlagForm';
import { flagOfPeriod, periodName } from './periodWords';

interface PeriodTrayProps {
  readonly indicator: IndicatorReading;
  readonly versions: readonly IndicatorVersion[];
  readonly past: IndicatorPast;
  /** The period that is looked at; null = none. */
  readonly period: JudgedPeriod | null;
  readonly onClose: () => void;
}

/** How the value of one past period was made, by the definition that judged it; from here it is handed to a person. */
export function PeriodTray({ indicator, versions, past, period, onClose }: PeriodTrayProps) {
  const act = mayAct(usePerson(), indicator.plantId);
  const [flagging, setFlagging] = useState(false);
  const judgedBy = versions.find(({ version }) => version === period?.version)?.definition;
  const query = useReading(
    period && judgedBy
      ? {
          measure: judgedBy.measure,
          window: localWindow(period, past.zone),
          band: null,
          hours: judgedBy.hours,
        }
      : null,
  );
  if (!period) return null;
  const called = periodName(period, past);
  const close = (): void => {
    setFlagging(false);
    onClose();
  };
  if (flagging) {
    return (
      <Tray title="Flag" open onClose={close}>
        <FlagForm subject={flagOfPeriod(indicator, period, called)} onDone={close} />
      </Tray>
    );
  }
  const title = `${indicator.name}, ${called}`;
  if (!query.data || query.isPlaceholderData) {
    return (
      <Tray title={title} open onClose={close}>
        <QueryResult query={{ ...query, data: undefined }} reading="Loading how it was made">
          {() => null}
        </QueryResult>
      </Tray>
    );
  }
  return (
    <ProvenanceTray
      title={title}
      reading={query.data}
      decimals={indicator.definition.decimals}
      open
      onClose={close}
    >
      {act && period.value !== null && <Button label="Flag this period" onPress={() => setFlagging(true)} />}
    </ProvenanceTray>
  );
}
