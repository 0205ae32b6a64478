import type { ISchema } from 'yup';
import { API } from '@vivid-beacon/core/src/api/api';
import type { Address, Contract } from '@vivid-beacon/core';

const ROUTES = (Object.entries(API) as [Address, Contract][]).map(([address, contract]) => ({
  address,
  contract,
  pattern: new RegExp(`^${address.replace(/[.]/g, '\\.').replace(/:\w+/g, '[^/]+')}$`),
}));

type Checks = ISchema<unknown> & { readonly validateSync: (value: unknown, how?: object) => unknown };

function hold(schema: ISchema<unknown>, value: unknown, how: object, what: string): void {
  try {
    (schema as Checks).validateSync(value, { ...how, abortEarly: false });
  } catch (error) {
    throw new Error(
      `${what}: ${((error as { errors?: string[] }).errors ?? [(error as Error).message]).join('; ')} – ${JSON.stringify(value)?.slice(0, 400)}`,
    );
  }
}

/** A request of a screen. */
interface Request {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/**
 * Checks what a screen sends, and what a test has the stand-in answer to a question, against the contract.
 * The answer to a change may be partial: few screens look at it.
 *
 * @param refused whether the test is about a request that the server refuses. @throws where they differ.
 */
export function checkExchange(
  { method, path, body }: Request,
  answer: { readonly json: unknown } | null,
  refused: boolean,
): void {
  const [place] = path.split('?');
  const route = ROUTES.find(({ pattern }) => pattern.test(`${method} ${place}`));
  if (!route) throw new Error(`There is no endpoint ${method} ${place}`);
  const { address, contract } = route;
  if (contract.body && !refused) hold(contract.body, body, { stripUnknown: false }, `${address} is sent`);
  const isQuestion = method === 'GET' || place.startsWith('/api/readings');
  if (answer && isQuestion && 'json' in contract.answer) {
    hold(contract.answer.json, answer.json, { strict: true }, `${address} answers`);
  }
}
