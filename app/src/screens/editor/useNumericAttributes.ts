import { useAttributes } from '../../api/catalogue';

/** Names of the attributes by which something can be divided: those that are a number above 0 somewhere. */
export function useNumericAttributes(): readonly string[] {
  const attributes = useAttributes().data ?? [];
  return attributes
    .filter(({ values }) => values.some((value) => typeof value === 'number' && value > 0))
    .map(({ name }) => name);
}
