import { ENDPOINTS } from '../endpoints';
import { errorsOf } from '../http/openapi';

const ROUTES = ENDPOINTS.map((endpoint) => ({
  endpoint,
  method: endpoint.method.toUpperCase(),
  pattern: new RegExp(`^${endpoint.path.replace(/[.]/g, '\\.').replace(/:\w+/g, '[^/]+')}$`),
}));

/** An answer as it came over the wire. */
export interface CameBack {
  readonly status: number;
  readonly contentType: string;
  /** The parsed JSON. */
  readonly body: unknown;
}

/**
 * Checks an answer against the contract of its endpoint: status, content type and shape. @throws where they
 * differ.
 */
export function checkAnswer(method: string, address: string, { status, contentType, body }: CameBack): void {
  const [path] = address.split('?');
  // A fixed address stands before one with an id in its place.
  const route = ROUTES.find((each) => each.method === method && each.pattern.test(path));
  if (!route) return;
  const { endpoint } = route;
  const differs = (how: string): Error => new Error(`${method} ${endpoint.path}: ${how}`);
  const { answer } = endpoint;
  if (status >= 500 && status !== 503) return;
  if (status >= 400) {
    if (errorsOf(endpoint)[status] === undefined) {
      throw differs(`status ${status} is not in its contract: ${JSON.stringify(body)}`);
    }
    return;
  }
  if ('nothing' in answer) {
    if (status !== 204) throw differs(`status ${status} instead of 204`);
    return;
  }
  if (status !== 200) throw differs(`status ${status} instead of 200`);
  const type = contentType.split(';')[0];
  if ('content' in answer) {
    if (!answer.content.includes(type)) throw differs(`content type ${type}`);
    return;
  }
  if (answer.bytes !== undefined && type === 'application/octet-stream') return;
  if (type !== 'application/json') throw differs(`content type ${type}`);
  try {
    (answer.json as unknown as { validateSync: (value: unknown, how: object) => void }).validateSync(body, {
      strict: true,
    });
  } catch (error) {
    throw differs(`${(error as Error).message} – ${JSON.stringify(body)?.slice(0, 600)}`);
  }
}
