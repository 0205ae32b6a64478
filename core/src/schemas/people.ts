import * as yup from 'yup';
import { ROLES } from '../domain/roles';
import { isId } from './parts';
import { dictionary, oneOf } from './shape';

/**
 * NIST SP 800-63B-4, section 3.1.1.2 (from memory): 15 characters or more where a password is all that is asked for, at least
 * 64 allowed, any characters, none prescribed.
 */
export const MIN_PASSWORD = 15;
const MAX_PASSWORD = 200;

/** A password as somebody chooses it. Whether it is known from breaches is looked up on the server. */
export const newPasswordSchema = yup
  .string()
  .min(
    MIN_PASSWORD,
    `A password has at least ${MIN_PASSWORD} characters. A few words in a row are easy to keep in mind`,
  )
  .max(MAX_PASSWORD, `A password has at most ${MAX_PASSWORD} characters`)
  .required(`Give a password of at least ${MIN_PASSWORD} characters`);

/** Where somebody begins when they open the app: On watch, a list, or one board. */
export const START_SCREENS = [
  '/',
  '/boards',
  '/alarms',
  '/flags',
  '/indicators',
  '/losses',
  '/handover',
] as const;
const BOARD_ADDRESS = /^\/boards\/[1-9]\d{0,17}$/;

export const startScreenSchema = yup
  .string()
  .test(
    'start',
    `\${path} is one of ${START_SCREENS.join(', ')}, or a board such as /boards/7`,
    (at) => at == null || (START_SCREENS as readonly string[]).includes(at) || BOARD_ADDRESS.test(at),
  )
  .required('Choose where you begin');

/**
 * Why somebody was not signed in by the provider: it gave no answer that fits, it refused, it took too long or began in another
 * browser, no account here has their address, the account here belongs to another one there, or a second factor was not asked.
 */
export const SIGN_IN_PROBLEMS = [
  'provider',
  'refused',
  'expired',
  'unknown',
  'taken',
  'secondFactor',
] as const;
export type SignInProblem = (typeof SIGN_IN_PROBLEMS)[number];

/** An address within the app: "/boards/7?window=…". */
export const ownAddressSchema = yup
  .string()
  .max(1000)
  .matches(/^\/(?![/\\]|api\/)[^\s\\]*$/, '${path} is an address of the app, such as /boards/7');

export const personNameSchema = yup.string().trim().min(1, 'Give a name').max(120).required('Give a name');
const emailSchema = yup
  .string()
  .trim()
  .email('Give an e-mail address')
  .max(200)
  .required('Give an e-mail address');

/** More plants than these are given as a role everywhere. */
const MAX_PLANTS = 500;

const rightsInput = yup
  .object({
    everywhere: oneOf(ROLES).optional().nullable().default(null),
    plants: dictionary(oneOf(ROLES))
      .optional()
      .default(() => ({}))
      .test('ids', '${path} must name plants by their ids', (plants) => Object.keys(plants ?? {}).every(isId))
      .test(
        'count',
        `A person can have a role of their own at ${MAX_PLANTS} plants at most; give a role everywhere`,
        (plants) => Object.keys(plants ?? {}).length <= MAX_PLANTS,
      ),
  })
  .noUnknown()
  .required()
  .test(
    'any',
    'Give a role everywhere, or at one plant at least',
    ({ everywhere, plants }) => everywhere !== null || Object.keys(plants ?? {}).length > 0,
  );

/** An account as an administrator enters it. */
export const accountSchema = yup
  .object({ name: personNameSchema, email: emailSchema, rights: rightsInput })
  .noUnknown();

/** Longest time for which an invitation holds, in hours. */
const MAX_INVITATION_H = 30 * 24;

/** For how long a link to choose a password holds. */
export const invitationLifeSchema = yup
  .object({
    holdsForH: yup
      .number()
      .integer()
      .min(1, 'The link holds for an hour at least')
      .max(MAX_INVITATION_H, 'The link holds for 30 days at most')
      .default(72),
  })
  .noUnknown();

/** 256 random bits in base64url. */
export const invitationTokenSchema = yup
  .string()
  .matches(/^[\w-]{43}$/, 'This is not the link of an invitation')
  .required('This is not the link of an invitation');
