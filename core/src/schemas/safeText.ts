import * as yup from 'yup';

/**
 * Lets `trim()` leave alone what is no text, so that an object in the place of a text is refused as such. The
 * library's own fails on it with an error of the program.
 */
yup.addMethod(yup.string, 'trim', function trimText(this: yup.StringSchema) {
  return this.transform((value: unknown) => (typeof value === 'string' ? value.trim() : value));
});
