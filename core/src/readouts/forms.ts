import { breakdown } from './breakdown';
import { figure } from './figure';
import { gauge } from './gauge';
import { grid } from './grid';
import { lamp } from './lamp';
import { multiplesOf } from './multiples';
import { note } from './note';
import type { BaseReadout } from '../board/choices';
import type { FormTraits, ReadoutFormOf } from './readoutForm';
import type { Problem, ReadData } from './readoutData';
import { ranking } from './ranking';
import { ring } from './ring';
import { scatter } from './scatter';
import { straight } from './straight';
import { tableForm } from './tableForm';
import { tank } from './tank';
import { trend } from './trend';

/** Every form of readout, in the order the editor offers them. A new form is a file and a line here. */
const FORMS = {
  gauge,
  straight,
  tank,
  lamp,
  figure,
  trend,
  ranking,
  table: tableForm,
  breakdown,
  scatter,
  grid,
  ring,
  note,
} as const satisfies Readonly<Record<string, ReadoutFormOf<object, ReadData>>>;

export type ReadoutForm = keyof typeof FORMS;
export const READOUT_FORMS = Object.keys(FORMS) as readonly ReadoutForm[];

export const isForm = (form: unknown): form is ReadoutForm =>
  typeof form === 'string' && Object.hasOwn(FORMS, form);

/** The traits of a form. */
export const traitsOfForm = (form: ReadoutForm): FormTraits => FORMS[form];

/** A form. Its data type is private: `data` makes it, `scene` and `table` take it. */
export const formOf = (form: ReadoutForm): ReadoutFormOf<object, ReadData> => FORMS[form];

const COPIES = new Map(
  READOUT_FORMS.map((form) => [form, multiplesOf<ReadData>(FORMS[form] as ReadoutFormOf<object, ReadData>)]),
);

/** A form as a readout has it: drawn once, or in small copies for each group of another grouping. */
export const formFor = ({
  form,
  groupBy,
  multiplesBy,
}: Pick<BaseReadout, 'groupBy' | 'multiplesBy'> & { readonly form: ReadoutForm }): ReadoutFormOf<
  object,
  ReadData
> =>
  isInCopies({ groupBy, multiplesBy }) ? (COPIES.get(form)! as ReadoutFormOf<object, ReadData>) : FORMS[form];

/** Whether it is drawn once for each group of another grouping. */
export const isInCopies = ({ groupBy, multiplesBy }: Pick<BaseReadout, 'groupBy' | 'multiplesBy'>): boolean =>
  groupBy !== null && (multiplesBy ?? null) !== null;

/** Whether it shows words instead of measures. */
export const showsWords = ({ form }: { readonly form: ReadoutForm }): boolean =>
  FORMS[form].measures === 'none';

/** Whether it shows values over time instead of one value of its window. */
export const isOverTime = ({ form }: { readonly form: ReadoutForm }): boolean => FORMS[form].overTime;

/** Whether its groups show all of its measures, not only the first. */
export const takesAllMeasures = ({ form }: { readonly form: ReadoutForm }): boolean =>
  FORMS[form].groupedMeasures === 'all';

/** The choices of a form besides those of every readout. */
export type ChoicesOf<Form extends ReadoutForm> = (typeof FORMS)[Form]['defaults'];

/** The data of a form. */
export type DataOf<Form extends ReadoutForm> = Exclude<ReturnType<(typeof FORMS)[Form]['data']>, Problem>;
