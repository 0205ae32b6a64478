import { alarmEndpoints } from './alarms/endpoints';
import { assetEndpoints } from './assets/endpoints';
import { boardEndpoints } from './boards/endpoints';
import { flagEndpoints } from './flags/endpoints';
import { healthEndpoints } from './health/endpoints';
import type { Endpoint } from './http/endpoint';
import { indicatorEndpoints } from './indicators/endpoints';
import { intakeEndpoints } from './intake/endpoints';
import { liveEndpoints } from './live/endpoints';
import { metricEndpoints } from './metrics/endpoints';
import { peopleEndpoints } from './people/endpoints';
import { readingEndpoints } from './readings/endpoints';
import { sampleEndpoints } from './samples/endpoints';
import { tokenEndpoints } from './tokens/endpoints';
import { watchEndpoints } from './watch/endpoints';

/** Every way into the server. Routes and the OpenAPI description are both made from this list. */
export const ENDPOINTS: readonly Endpoint[] = [
  ...healthEndpoints,
  ...peopleEndpoints,
  ...tokenEndpoints,
  ...assetEndpoints,
  ...metricEndpoints,
  ...sampleEndpoints,
  ...readingEndpoints,
  ...intakeEndpoints,
  ...boardEndpoints,
  ...alarmEndpoints,
  ...flagEndpoints,
  ...indicatorEndpoints,
  ...watchEndpoints,
  ...liveEndpoints,
];
