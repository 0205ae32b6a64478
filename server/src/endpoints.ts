import { alarmEndpoints } from './alarms/endpoints';
import { alarmHealthEndpoints } from './alarms/health';
import { assetEndpoints } from './assets/endpoints';
import { boardEndpoints } from './boards/endpoints';
import { flagCauseEndpoints } from './flags/causes';
import { firstStepsEndpoints } from './firstSteps/endpoints';
import { flagEndpoints } from './flags/endpoints';
import { flagFollowUpEndpoints } from './flags/followUp';
import { handoverEndpoints } from './handover/endpoints';
import { healthEndpoints } from './health/endpoints';
import { calendarEndpoints } from './calendars/endpoints';
import { derivedEndpoints } from './derived/endpoints';
import { logEndpoints } from './logs/endpoints';
import { referenceEndpoints } from './reference/endpoints';
import { remarkEndpoints } from './remarks/endpoints';
import { feedEndpoints } from './feeds/endpoints';
import { exportEndpoints } from './exports/endpoints';
import type { Endpoint } from './http/endpoint';
import { indicatorEndpoints } from './indicators/endpoints';
import { intakeEndpoints } from './intake/endpoints';
import { liveEndpoints } from './live/endpoints';
import { metricEndpoints } from './metrics/endpoints';
import { removedMetricEndpoints } from './metrics/removed';
import { removalEndpoints } from './removals/endpoints';
import { noticeEndpoints } from './notices/endpoints';
import { accountEndpoints } from './people/accounts';
import { peopleEndpoints } from './people/endpoints';
import { invitationEndpoints } from './people/invitations';
import { ownAccountEndpoints } from './people/ownAccount';
import { providerEndpoints } from './provider/endpoints';
import { secondFactorEndpoints } from './people/secondFactor';
import { pictureEndpoints } from './pictures/endpoints';
import { readingEndpoints } from './readings/endpoints';
import { sampleEndpoints } from './arrivals/endpoints';
import { tokenEndpoints } from './tokens/endpoints';
import { trailEndpoints } from './trail/endpoints';
import { watchEndpoints } from './watch/endpoints';

/** Every way into the server. Routes and the OpenAPI description are both made from this list. */
export const ENDPOINTS: readonly Endpoint[] = [
  ...healthEndpoints,
  ...peopleEndpoints,
  ...accountEndpoints,
  ...invitationEndpoints,
  ...ownAccountEndpoints,
  ...secondFactorEndpoints,
  ...providerEndpoints,
  ...trailEndpoints,
  ...tokenEndpoints,
  ...assetEndpoints,
  ...metricEndpoints,
  ...removalEndpoints,
  ...removedMetricEndpoints,
  ...sampleEndpoints,
  ...calendarEndpoints,
  ...derivedEndpoints,
  ...logEndpoints,
  ...referenceEndpoints,
  ...remarkEndpoints,
  ...feedEndpoints,
  ...exportEndpoints,
  ...readingEndpoints,
  ...intakeEndpoints,
  ...boardEndpoints,
  ...pictureEndpoints,
  ...alarmEndpoints,
  ...alarmHealthEndpoints,
  ...firstStepsEndpoints,
  ...flagEndpoints,
  ...flagFollowUpEndpoints,
  ...flagCauseEndpoints,
  ...noticeEndpoints,
  ...indicatorEndpoints,
  ...watchEndpoints,
  ...handoverEndpoints,
  ...liveEndpoints,
];
