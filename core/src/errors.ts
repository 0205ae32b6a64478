/**
 * An error with a message a person can act on.
 *
 * `code` is fixed and listed in {@link ErrorCode}; `message` says what is allowed and what came; `path` names
 * the field or place, if there is one; `status` is what HTTP answers with it.
 */
export class BeaconError extends Error {
  readonly code: ErrorCode;
  readonly path: string | undefined;
  /** Seconds until a retry, sent as Retry-After (RFC 9110, section 10.2.3). */
  readonly retryAfterS: number | undefined;

  constructor(code: ErrorCode, message: string, path?: string, retryAfterS?: number) {
    super(message);
    this.name = 'BeaconError';
    this.code = code;
    this.path = path;
    this.retryAfterS = retryAfterS;
  }

  get status(): number {
    return STATUS_OF[this.code];
  }
}

const STATUS_OF = {
  BAD_INPUT: 422,
  BAD_SHAPE: 400,
  NOT_SIGNED_IN: 401,
  WRONG_TOKEN: 401,
  WRONG_PASSWORD: 401,
  CODE_NEEDED: 401,
  SECOND_FACTOR: 403,
  NOT_ALLOWED: 403,
  STALE_FORM: 403,
  NOT_FOUND: 404,
  CHANGED_MEANWHILE: 409,
  WRONG_STATE: 409,
  TOO_LARGE: 413,
  TOO_SLOW: 408,
  TOO_MANY: 429,
  BROKEN_DATA: 500,
  INTERNAL: 500,
  NOT_READY: 503,
} as const;

/** All error codes. */
export type ErrorCode = keyof typeof STATUS_OF;

/** One error as it travels over HTTP: `{ error: ErrorBody }`. */
export interface ErrorBody {
  readonly code: ErrorCode;
  readonly message: string;
  readonly path?: string;
}
