import { readFile, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { read, utils } from '@e965/xlsx';
import { allows, ROLES, type Rights, type Role } from '@vivid-beacon/core';
import { ENDPOINTS } from '../endpoints';
import { addPerson } from '../people/sql';
import { hashPassword } from '../people/passwords';
import type { Concern } from '../testing/rights/siteRequest';
import { siteRequests } from '../testing/rights/siteRequests';
import { makeSite, type Site } from '../testing/rights/siteWorld';
import { onTestServer, PASSWORD, TEST_NOW, type Visitor } from '../testing/testServer';
import type { Endpoint } from './endpoint';

/* Every endpoint × every role × own, other and no site: made from the list of endpoints, so that a new one must be in it. */

const { test, administrator } = onTestServer('administrator');
const REQUESTS = siteRequests(TEST_NOW);
const nameOf = ({ method, path }: Endpoint): string => `${method.toUpperCase()} ${path}`;
const isRole = (access: string): access is Role => (ROLES as readonly string[]).includes(access);

let own: Site;
let other: Site;
/** A role at the own plant only; `elsewhere`: administrator of a third plant; `mixed`: administrator here, viewer there. */
const people = new Map<Role | 'elsewhere' | 'mixed', Visitor>();
const ids: string[] = [];

async function join(name: Role | 'elsewhere' | 'mixed', rights: Rights): Promise<void> {
  const email = `${name}@plant.example`;
  const passwordHash = await hashPassword(PASSWORD);
  ids.push(await addPerson(test.server.app.pool, { email, name, rights, passwordHash, at: TEST_NOW }));
  const visitor = test.visitor();
  await visitor.signIn(email);
  people.set(name, visitor);
}

beforeAll(async () => {
  own = await makeSite(test, administrator, 'Ownside');
  other = await makeSite(test, administrator, 'Otherside');
  const third = await administrator.call<{ id: string }>('POST', '/api/assets', {
    name: 'Third',
    kind: 'plant',
    zone: 'Europe/London',
  });
  for (const role of ROLES) await join(role, { everywhere: null, plants: { [own.plantId]: role } });
  await join('elsewhere', { everywhere: null, plants: { [third.body.id]: 'administrator' } });
  await join('mixed', {
    everywhere: null,
    plants: { [own.plantId]: 'administrator', [other.plantId]: 'viewer' },
  });
}, 120_000);

interface Answer {
  readonly status: number;
  readonly text: string;
  readonly code: string | undefined;
}

async function ask(by: Visitor, endpoint: Endpoint, site: Site): Promise<Answer> {
  const { path, body } = REQUESTS[nameOf(endpoint)];
  const address = path?.(site) ?? endpoint.path.replace(/:\w+/g, '1');
  const answer = await by.call<{ error?: { code?: string } } | undefined>(
    endpoint.method.toUpperCase(),
    address,
    body?.(site, TEST_NOW) ?? (endpoint.method === 'get' || endpoint.method === 'delete' ? undefined : {}),
  );
  return { status: answer.status, text: JSON.stringify(answer.body) ?? '', code: answer.body?.error?.code };
}

/** Whether the endpoint got as far as what was asked about; what is wrong with the request besides does not matter. */
const reached = ({ status, code, text }: Answer): boolean =>
  status < 400 ||
  // Only its taker takes a flag in hand; that is said to those who see it.
  text.includes('This flag is ') ||
  !['NOT_ALLOWED', 'NOT_FOUND', 'NOT_SIGNED_IN'].includes(code ?? '');
/** Refused, or a list each of whose lines was refused. */
const refused = ({ status, text, code }: Answer): boolean =>
  ['NOT_ALLOWED', 'NOT_FOUND', 'BAD_INPUT'].includes(code ?? '') ||
  (status === 200 && /"added":0,"changed":0,"refused":\[\{/.test(text));

/** What these people have changed so far. */
async function changes(): Promise<number> {
  const { rows } = await test.server.app.pool.query<{ n: number }>(
    `select count(*)::int as n from trail where person_id = any($1::bigint[]) and action in ('added', 'changed', 'removed')`,
    [ids],
  );
  return rows[0].n;
}

// What reads comes first, what removes last.
const ORDER = ['get', 'post', 'put', 'delete'];
const inOrder = [...ENDPOINTS].sort(
  (a, b) => ORDER.indexOf(a.method) - ORDER.indexOf(b.method) || b.path.length - a.path.length,
);
const about = (concern: Concern) =>
  inOrder
    .filter((each) => REQUESTS[nameOf(each)]?.concern === concern)
    .map((each) => [nameOf(each), each] as const);
/** Rows of the table that is printed, by endpoint. */
const table = new Map<string, string>();
const row = (endpoint: Endpoint, ownPlant: string, otherPlant: string): void => {
  table.set(nameOf(endpoint), `| ${nameOf(endpoint)} | ${endpoint.access} | ${ownPlant} | ${otherPlant} |`);
};

describe('the list', () => {
  it('says of every endpoint what it has to do with plants', () => {
    expect(ENDPOINTS.map(nameOf).filter((each) => !REQUESTS[each])).toEqual([]);
  });
});

describe('what is at a plant', () => {
  it.each(about('plant'))('%s: for its role at this plant, and nobody else', async (_name, endpoint) => {
    const needed = endpoint.access as Role;
    expect(isRole(needed)).toBe(true);
    const before = await changes();
    for (const role of [...ROLES, 'elsewhere'] as const) {
      const there = await ask(people.get(role)!, endpoint, other);
      expect([role, there.status, there.code, refused(there)]).toEqual([
        role,
        there.status,
        there.code,
        true,
      ]);
      if (there.status !== 200) expect(there.text.replace(/"message":"[^"]*"/, '')).not.toContain(other.mark);
      if (role === 'elsewhere') expect(refused(await ask(people.get(role)!, endpoint, own))).toBe(true);
      else if (!allows(role, needed)) {
        expect(await ask(people.get(role)!, endpoint, own)).toMatchObject({
          status: 403,
          code: 'NOT_ALLOWED',
        });
      }
    }
    if (needed !== 'viewer') expect(refused(await ask(people.get('mixed')!, endpoint, other))).toBe(true);
    expect(await changes()).toBe(before);
    // Reached by exactly those who have the role: else the refusals above would prove nothing.
    const here = await ask(people.get(needed)!, endpoint, own);
    expect([here.status, here.code, reached(here)]).toEqual([here.status, here.code, true]);
    expect(here.status).toBeLessThan(500);
    row(endpoint, `${needed} and above`, 'refused');
  });
});

describe('what is listed', () => {
  it.each(about('list'))('%s: of the plants that are seen, and no others', async (_name, endpoint) => {
    const needed = endpoint.access as Role;
    // Whoever sees every plant is told of the other one: else its absence below would prove nothing.
    const everything = await ask(administrator, endpoint, other);
    expect(everything.status).toBe(200);
    for (const role of ROLES.filter((each) => allows(each, needed))) {
      for (const site of [own, other]) {
        const { status, text } = await ask(people.get(role)!, endpoint, site);
        expect([role, status]).toEqual([role, 200]);
        expect(text).not.toContain(other.mark);
      }
    }
    const { text } = await ask(people.get('elsewhere')!, endpoint, own);
    expect(text).not.toContain(own.mark);
    row(endpoint, `${needed} and above`, 'left out');
  });

  it('is told of the other plant to those who see it', async () => {
    const silent: string[] = [];
    for (const [name, endpoint] of about('list')) {
      if (!(await ask(administrator, endpoint, other)).text.includes(other.mark)) silent.push(name);
    }
    // Numbers and ids without names; what they are is tried below.
    expect(silent.sort()).toEqual([
      'GET /api/alarms/on-time',
      'GET /api/desks/:id/statuses',
      'GET /api/latest',
    ]);
  });
});

describe('what has ids only', () => {
  it('has those of plants that are seen', async () => {
    const viewer = people.get('viewer')!;
    const latest = async (by: Visitor): Promise<readonly string[]> =>
      (await by.call<{ id: string[] }>('GET', '/api/latest')).body.id;
    expect(await latest(administrator)).toEqual(expect.arrayContaining([own.metricId, other.metricId]));
    expect(await latest(viewer)).toContain(own.metricId);
    expect(await latest(viewer)).not.toContain(other.metricId);
    const ask = `metricIds=${other.metricId}&from=${TEST_NOW - 86_400_000}&to=${TEST_NOW + 1}`;
    expect((await administrator.call('GET', `/api/alarms/on-time?${ask}`)).body).not.toEqual([]);
    expect((await viewer.call('GET', `/api/alarms/on-time?${ask}`)).body).toEqual([]);
    const statuses = `/api/desks/${other.machineId}/statuses`;
    expect((await administrator.call('GET', statuses)).body).not.toEqual([]);
    expect((await viewer.call('GET', statuses)).body).toEqual([]);
  });
});

describe('a board as a workbook', () => {
  it('says of what lies at a plant that is not seen only that it was not read', async () => {
    const told = async (by: Visitor): Promise<string> => {
      const address = `${test.url}/api/boards/${other.boardId}/numbers.xlsx`;
      const answer = await fetch(address, { headers: by.headers() });
      expect(answer.status).toBe(200);
      const { Sheets } = read(await answer.arrayBuffer());
      return JSON.stringify(Object.values(Sheets).map((sheet) => utils.sheet_to_json(sheet, { header: 1 })));
    };
    const whole = await told(administrator);
    expect(whole).toContain('Least coverage');
    expect(whole).not.toContain('Not read');
    const seen = await told(people.get('viewer')!);
    expect(seen).toContain('Not read');
    expect(seen).not.toContain(other.mark);
    expect(seen).not.toContain('Least coverage');
  });
});

describe('what belongs to no plant', () => {
  it.each(about('all'))('%s: takes the role at every plant', async (_name, endpoint) => {
    expect(endpoint.everywhere).toBe(true);
    for (const visitor of people.values()) {
      expect(await ask(visitor, endpoint, own)).toMatchObject({ status: 403, code: 'NOT_ALLOWED' });
    }
    row(endpoint, 'refused', 'refused');
  });

  it('is marked so on every endpoint that takes the role everywhere', () => {
    const marked = ENDPOINTS.filter(({ everywhere }) => everywhere).map(nameOf);
    expect(marked.sort()).toEqual(
      about('all')
        .map(([name]) => name)
        .sort(),
    );
  });
});

const TABLE = fileURLToPath(new URL('../../../docs/rights.md', import.meta.url));

describe('docs/rights.md', () => {
  it('is the table of what was tried here', async () => {
    for (const [, each] of [...about('board'), ...about('none')]) row(each, 'no plant', 'no plant');
    const rows = ENDPOINTS.map((each) => table.get(nameOf(each)));
    const text = `# Rights by site, endpoint by endpoint

Printed by \`server/src/http/rightsBySite.test.ts\`, which tries each of them with every role at one plant only
(\`npm run endpoints\` writes this file anew). The second column is the role that is needed; "refused" and "left out" hold for
every role up to administrator, when it is held at another plant only.

| endpoint | role | at the own plant | at another plant |
| --- | --- | --- | --- |
${rows.join('\n')}
`;
    if (process.env.WRITE_ENDPOINTS) await writeFile(TABLE, text);
    expect(await readFile(TABLE, 'utf8')).toBe(text);
  });
});
