export { loadDemo, DEMO_DAYS } from './load';
export { SimulatedPlant } from './plant';
export { scenario, samplesBetween, PLANTS } from './scenario';
export { metricKey } from './keys';
