import type { StringSchema } from 'yup';

/** What is wrong with a password as it is typed; undefined = nothing that can be seen here. */
export function passwordProblem(schema: StringSchema, password: string): string | undefined {
  try {
    schema.validateSync(password);
    return undefined;
  } catch (error) {
    return (error as Error).message;
  }
}
