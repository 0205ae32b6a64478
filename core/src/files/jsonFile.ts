import * as yup from 'yup';
import { BeaconError } from '../errors';

/* Files of the product itself: JSON whose first member says what it is. */

/**
 * Parses the text of a file.
 *
 * @param kind what its "kind" must be. @param called what such a file is called: "a board file".
 * @throws {BeaconError} BAD_INPUT with the line of broken JSON, or for a file of another kind
 */
export function parseFile<File extends { readonly kind: string }>(
  text: string,
  kind: File['kind'],
  called: string,
): Partial<File> {
  const file = parsed(text) as Partial<File> | null;
  if (typeof file === 'object' && file !== null && file.kind === kind) return file;
  throw new BeaconError('BAD_INPUT', `This is not ${called}: its "kind" is not "${kind}".`, 'kind');
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    const { message } = error as Error;
    const at = /position (\d+)/.exec(message);
    const line = at ? text.slice(0, Number(at[1])).split('\n').length : null;
    throw new BeaconError(
      'BAD_INPUT',
      `The file is not valid JSON${line ? `, line ${line}` : ''}: ${message}.`,
    );
  }
}

/** @throws {BeaconError} BAD_INPUT with the place of what is wrong */
export function checkedPart<S extends yup.ISchema<unknown>>(
  schema: S,
  value: unknown,
  place: string,
): yup.InferType<S> {
  try {
    return (schema as unknown as yup.Schema<yup.InferType<S>>).validateSync(value);
  } catch (error) {
    const { path, errors } = error as yup.ValidationError;
    const where = path ? `${place}${path.startsWith('[') ? '' : '.'}${path}` : place;
    throw new BeaconError('BAD_INPUT', `${where}: ${errors[0]}.`, where);
  }
}
