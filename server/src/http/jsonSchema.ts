import type { ISchema, SchemaDescription } from 'yup';

type Json = Readonly<Record<string, unknown>>;

/** What a schema says of itself (core/src/schemas/shape.ts) where its members cannot be seen, and what it is called. */
interface Meta {
  readonly name?: string;
  readonly jsonSchema?: Json;
  readonly variants?: Readonly<Record<string, ISchema<unknown>>>;
  readonly left?: { readonly union: ISchema<unknown>; readonly usual: unknown };
  readonly members?: ISchema<unknown>;
  readonly shape?: ISchema<unknown>;
}

type Described = SchemaDescription & {
  readonly fields?: Readonly<Record<string, Described>>;
  readonly innerType?: Described;
};

/** JSON Schemas (2020-12, as OpenAPI 3.1 takes them) of schemas; those with a name are told once and referred to. */
export class JsonSchemas {
  /** Those with a name. */
  readonly named: Record<string, Json> = {};

  of(schema: ISchema<unknown>): Json {
    return this.convert(schema.describe({}) as Described);
  }

  private convert(described: Described): Json {
    const { name } = (described.meta ?? {}) as Meta;
    if (name === undefined) return this.whole(described);
    if (!(name in this.named)) {
      // Stands there before it is looked into: it may hold itself.
      this.named[name] = {};
      this.named[name] = this.whole({ ...described, nullable: false, default: undefined });
    }
    const reference = { $ref: `#/components/schemas/${name}` };
    return described.nullable ? { oneOf: [reference, { type: 'null' }] } : reference;
  }

  private whole(described: Described): Json {
    const { jsonSchema, variants, left, members, shape } = (described.meta ?? {}) as Meta;
    if (variants) return { oneOf: Object.values(variants).map((each) => this.of(each)) };
    if (left) {
      const union = this.of(left.union);
      return left.usual === null ? { oneOf: [union, { type: 'null' }] } : { ...union, default: left.usual };
    }
    if (members) return { type: 'object', additionalProperties: this.of(members) };
    if (shape) return this.of(shape);
    return jsonSchema ?? this.plain(described);
  }

  private plain(described: Described): Json {
    const { type, nullable, oneOf, fields, innerType } = described;
    const usual = described.default;
    const own = type === 'mixed' ? {} : { type: nullable ? [type, 'null'] : type };
    const listed = oneOf.length === 0 ? {} : { enum: nullable ? [...oneOf, null] : oneOf };
    const told = usual === undefined || type === 'object' ? {} : { default: usual };
    const inside = fields ? this.members(fields) : innerType ? { items: this.convert(innerType) } : {};
    return { ...own, ...limitsOf(described), ...listed, ...told, ...inside };
  }

  private members(fields: Readonly<Record<string, Described>>): Json {
    const told = Object.entries(fields);
    const required = told.filter(([, each]) => !each.optional);
    return {
      properties: Object.fromEntries(told.map(([name, each]) => [name, this.convert(each)])),
      ...(required.length === 0 ? {} : { required: required.map(([name]) => name) }),
    };
  }
}

const LIMITS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  array: { min: 'minItems', max: 'maxItems' },
  string: { min: 'minLength', max: 'maxLength' },
  number: { min: 'minimum', max: 'maximum', more: 'exclusiveMinimum', less: 'exclusiveMaximum' },
};

function limitsOf({ type, nullable, tests }: Described): Json {
  const limits: Record<string, unknown> = {};
  for (const { name, params = {} } of tests) {
    for (const [limit, keyword] of Object.entries(LIMITS[type] ?? {})) {
      if (typeof params[limit] === 'number') limits[keyword] = params[limit];
    }
    if (name === 'integer') limits.type = nullable ? ['integer', 'null'] : 'integer';
    if (params.regex instanceof RegExp) limits.pattern = params.regex.source;
    if (name === 'id') limits.pattern = '^[1-9][0-9]*$';
  }
  return limits;
}
