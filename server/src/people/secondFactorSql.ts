import { moment } from '../db/columns';
import { one, type Queryable } from '../db/database';

/** How a person's second factor stands. */
export interface SecondFactor {
  /** Sealed; null = it is off. */
  readonly secret: Buffer | null;
  readonly pending: Buffer | null;
  readonly lastStep: number | null;
  readonly required: boolean;
}

/** Locked until the transaction ends, so that a code is used once by two who send it at the same moment. */
export async function lockSecondFactor(db: Queryable, personId: string): Promise<SecondFactor> {
  await db.query('select 1 from person where id = $1 for update', [personId]);
  return (await one<SecondFactor>(
    db,
    `select otp_secret as secret, otp_pending as pending, otp_last_step::float8 as "lastStep", second_factor_required as required
     from person where id = $1`,
    [personId],
  ))!;
}

export async function recoveryLeft(db: Queryable, personId: string): Promise<number> {
  const text = 'select count(*)::int as n from recovery_code where person_id = $1 and used_at is null';
  return (await one<{ n: number }>(db, text, [personId]))!.n;
}

export async function writePending(db: Queryable, personId: string, pending: Buffer): Promise<void> {
  await db.query('update person set otp_pending = $2 where id = $1', [personId, pending]);
}

/** What was pending holds from now on, with new recovery codes. */
export async function confirmPending(
  db: Queryable,
  personId: string,
  step: number,
  codeHashes: readonly Buffer[],
): Promise<void> {
  await db.query(
    'update person set otp_secret = otp_pending, otp_pending = null, otp_last_step = $2 where id = $1',
    [personId, step],
  );
  await db.query('delete from recovery_code where person_id = $1', [personId]);
  await db.query('insert into recovery_code (person_id, code_hash) select $1::bigint, unnest($2::bytea[])', [
    personId,
    codeHashes,
  ]);
}

export async function writeLastStep(db: Queryable, personId: string, step: number): Promise<void> {
  await db.query('update person set otp_last_step = $2 where id = $1', [personId, step]);
}

/** Uses a recovery code up. @returns false when there is none, or it was used. */
export async function consumeRecoveryCode(
  db: Queryable,
  personId: string,
  codeHash: Buffer,
  at: number,
): Promise<boolean> {
  const row = await one(
    db,
    `update recovery_code set used_at = $3 where person_id = $1 and code_hash = $2 and used_at is null returning person_id`,
    [personId, codeHash, moment(at)],
  );
  return row !== undefined;
}

export async function removeSecondFactor(db: Queryable, personId: string): Promise<void> {
  await db.query(
    'update person set otp_secret = null, otp_pending = null, otp_last_step = null where id = $1',
    [personId],
  );
  await db.query('delete from recovery_code where person_id = $1', [personId]);
}

export async function writeRequired(
  db: Queryable,
  personId: string,
  required: boolean,
  at: number,
): Promise<void> {
  await db.query('update person set second_factor_required = $2, rights_changed_at = $3 where id = $1', [
    personId,
    required,
    moment(at),
  ]);
}
