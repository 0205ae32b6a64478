import { alarmHealthApi, alarmsApi } from './alarms';
import { assetsApi } from './assets';
import { boardsApi } from './boards';
import { calendarsApi } from './calendars';
import { derivedApi } from './derived';
import { firstStepsApi } from './firstSteps';
import { flagCausesApi, flagsApi, flagStepsApi } from './flags';
import { handoverApi } from './handover';
import { indicatorsApi } from './indicators';
import { intakesApi } from './intakes';
import { logsApi } from './logs';
import { feedsApi, metricsApi } from './metrics';
import { removalsApi } from './removals';
import { removedMetricsApi } from './removedMetrics';
import { noticesApi } from './notices';
import { accountsApi, invitationsApi, ownAccountApi, peopleApi } from './people';
import { providerApi, secondFactorApi } from './signIn';
import { picturesApi } from './pictures';
import { readingsApi } from './readings';
import { referenceApi } from './reference';
import { remarksApi } from './remarks';
import { pushApi, samplesApi } from './samples';
import { healthApi, liveApi } from './server';
import { tokensApi } from './tokens';
import { trailApi } from './trail';
import { watchApi } from './watch';

/** All endpoints by address. */
export const API = {
  ...healthApi,
  ...liveApi,
  ...peopleApi,
  ...accountsApi,
  ...invitationsApi,
  ...ownAccountApi,
  ...secondFactorApi,
  ...providerApi,
  ...trailApi,
  ...tokensApi,
  ...assetsApi,
  ...metricsApi,
  ...removalsApi,
  ...removedMetricsApi,
  ...feedsApi,
  ...pushApi,
  ...samplesApi,
  ...calendarsApi,
  ...derivedApi,
  ...logsApi,
  ...referenceApi,
  ...remarksApi,
  ...readingsApi,
  ...intakesApi,
  ...boardsApi,
  ...picturesApi,
  ...alarmsApi,
  ...alarmHealthApi,
  ...firstStepsApi,
  ...flagsApi,
  ...flagStepsApi,
  ...flagCausesApi,
  ...noticesApi,
  ...indicatorsApi,
  ...watchApi,
  ...handoverApi,
};
export type Api = typeof API;
