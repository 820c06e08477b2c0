/** A request that no page of ours would make: like one in some places, and strange in others. */
export interface FuzzRequest {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** From `/api` on. */
  url: string;
  /** As it is sent; null for none. */
  body: string | null;
}

interface Schema {
  $ref?: string;
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  prefixItems?: Schema[];
  additionalProperties?: Schema | boolean;
  propertyNames?: Schema;
  minimum?: number;
  maximum?: number;
  minItems?: number;
  minLength?: number;
  format?: string;
}
interface Parameter {
  name: string;
  in: string;
  required?: boolean;
  schema?: Schema;
}
interface Operation {
  operationId?: string;
  parameters?: Parameter[];
  requestBody?: { content: Record<string, { schema: Schema }> };
}
export interface OpenApi {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
}

/** Numbers from 0 to 1, the same for the same seed (mulberry32, Tommy Ettinger, public domain). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const deep = (levels: number) => JSON.parse('['.repeat(levels) + ']'.repeat(levels)) as unknown;
/** What has broken programs before; strings as JavaScript has them, lone surrogates among them. */
const strange: readonly unknown[] = [
  '',
  ' ',
  '\u0000',
  'a\u0000b',
  '\uD800',
  '\uDC00x',
  '\uFEFF',
  '\u202Eabc',
  '\u2028',
  "'; drop table study; --",
  '<script>alert(1)</script>',
  '=1+1',
  '%',
  '%00',
  '../../etc/passwd',
  '99999999999999999999',
  '-1',
  '0',
  '1e999',
  'NaN',
  'null',
  'true',
  '2147483648',
  '1.5',
  'a'.repeat(5000),
  '👩‍👩‍👧‍👦'.repeat(300),
  'e' + '\u0301'.repeat(2000),
  '*'.repeat(50),
  '11111111-1111-4111-8111-111111111111',
  '2024-02-30',
  '9999999-01-01T00:00:00.000Z',
  0,
  -1,
  -0,
  1.5,
  2_147_483_647,
  2_147_483_648,
  9_007_199_254_740_992,
  1e308,
  -1e308,
  null,
  true,
  false,
  [],
  {},
  [null],
  [[[[]]]],
  { constructor: { prototype: {} } },
  deep(1000),
];

/** Texts that are no JSON, or JSON that a parser may trip over. */
const broken: readonly string[] = [
  '',
  '{',
  '[1,',
  '"\\ud800',
  'null',
  '1e999',
  '{"a":1e999}',
  'undefined',
  '\u0000',
  '{"__proto__":{"a":1}}',
  '{"constructor":{"prototype":{"a":1}}}',
  '['.repeat(20_000),
];

/**
 * Requests to every operation that an API describes of itself.
 *
 * @param places values of path parameters that there are, by name
 * @param each how many to each operation
 * @param only with these, nothing is strange: what stands in queries and bodies under these names
 */
export function* fuzzRequests(
  api: OpenApi,
  places: Record<string, string | number>,
  seed: number,
  each: number,
  only?: Record<string, unknown>,
): Generator<FuzzRequest & { operationId: string }> {
  const random = seeded(seed);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
  const odd = () => pick(strange);

  const valueOf = (given: Schema, oddness: number, depth = 0): unknown => {
    const schema = given.$ref
      ? (api.components.schemas[given.$ref.split('/').at(-1)!] ?? {})
      : given;
    if (random() < oddness || depth > 12) return only ? null : odd();
    const inside = (one: Schema) => valueOf(one, oddness, depth + 1);
    if (schema.const !== undefined) return schema.const;
    if (schema.enum) return pick(schema.enum);
    const either = schema.anyOf ?? schema.oneOf;
    if (either) return inside(pick(either));
    if (schema.allOf) return Object.assign({}, ...schema.allOf.map((one) => inside(one))) as object;
    switch (Array.isArray(schema.type) ? pick(schema.type) : schema.type) {
      case 'integer':
      case 'number': {
        const least = schema.minimum ?? -5;
        return Math.floor(least + random() * Math.min(50, (schema.maximum ?? 50) - least));
      }
      case 'boolean':
        return random() < 0.5;
      case 'null':
        return null;
      case 'array':
        return (
          schema.prefixItems?.map(inside) ??
          Array.from({ length: Math.max(schema.minItems ?? 0, Math.floor(random() * 4)) }, () =>
            inside(schema.items ?? {}),
          )
        );
      case 'object':
        return Object.fromEntries([
          ...Object.entries(schema.properties ?? {}).flatMap(([name, one]) =>
            schema.required?.includes(name) || random() < 0.5
              ? [[name, only?.[name] ?? inside(one)]]
              : [],
          ),
          ...(typeof schema.additionalProperties === 'object'
            ? [[String(only ? 'a' : pick(['a', 'b', odd()])), inside(schema.additionalProperties)]]
            : []),
        ]) as object;
      default:
        if (schema.format === 'uuid') return crypto.randomUUID();
        if (schema.format === 'date-time') return '2026-01-02T03:04:05.000Z';
        return pick(['boat', 'late boats', 'a', 'x'.repeat(Math.max(1, schema.minLength ?? 1))]);
    }
  };
  const inAddress = (value: unknown) =>
    encodeURIComponent(
      (typeof value === 'string' ? value : JSON.stringify(value)).toWellFormed().slice(0, 2000),
    );

  for (const [path, operations] of Object.entries(api.paths))
    for (const [method, operation] of Object.entries(operations)) {
      const parameters = operation.parameters ?? [];
      const schema = operation.requestBody?.content['application/json']?.schema;
      for (let n = 0; n < each; n++) {
        // one or two strange things each, or nearly everything
        const oddness = only ? 0 : n % 4 === 3 ? 0.5 : 0.08;
        const address = path.replaceAll(/\{(\w+)\}/gu, (_, name: string) =>
          random() < oddness ? inAddress(odd()) : String(places[name] ?? 1),
        );
        const query = parameters
          .filter((one) => one.in === 'query' && (one.required || random() < 0.4))
          .map(
            (one) =>
              `${one.name}=${inAddress(only?.[one.name] ?? valueOf(one.schema ?? {}, oddness))}`,
          );
        yield {
          operationId: operation.operationId ?? path,
          method: method.toUpperCase() as FuzzRequest['method'],
          url: `${address}${query.length > 0 ? `?${query.join('&')}` : ''}`,
          body:
            method === 'get'
              ? null
              : random() < 0.05 && !only
                ? pick(broken)
                : JSON.stringify(schema ? valueOf(schema, oddness) : {}),
        };
      }
    }
}
