import { defaultMetadataStorage } from 'class-transformer/cjs/storage';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { PARTS, SHAPES } from '../part/plate/feature';
import { Job } from './job';
import type { StoredKind, StoredKinds } from './read';

type Schema = Record<string, unknown>;

const REF = '#/$defs/';

/** No object may hold a field nobody knows. */
function closed(schema: Schema): Schema {
  return { ...schema, additionalProperties: false };
}

/** Where a class is described: a class without fields of its own is what it extends. */
function described(defs: Record<string, Schema>, cls: { name: string }): string {
  const parent = Object.getPrototypeOf(cls) as { name: string };
  return defs[cls.name] || !parent.name ? cls.name : described(defs, parent);
}

/** Values of a class that depend on its kind. */
function byKind(defs: Record<string, Schema>, cls: string, kinds: StoredKind[]): void {
  const schema = defs[cls] as { properties: Schema; allOf?: Schema[] };
  schema.properties.kind = { enum: kinds.map((k) => k.kind) };
  schema.properties.params = { type: 'object' };
  schema.allOf = kinds.map((k) => ({
    if: { properties: { kind: { const: k.kind } } },
    then: { properties: { params: { $ref: REF + described(defs, k.Params) } } },
  }));
}

/** What a schema names, and what that names: what else happens to be known is none of its own. */
function namedBy(schema: Schema, defs: Record<string, Schema>, named = new Set<string>()): Set<string> {
  for (const [, name] of JSON.stringify(schema).matchAll(/"#\/\$defs\/(\w+)"/g))
    if (!named.has(name)) namedBy(defs[name], defs, named.add(name));
  return named;
}

/**
 * JSON Schema (2020-12) of the job file, made from the classes that check it: the fields, ranges, choices, the shapes by
 * their type, and each operation's own values by its kind.
 * @param kinds every kind of operation and of holding there is
 */
export function jobSchema(kinds: StoredKinds): Schema {
  const made = validationMetadatasToSchemas({
    refPointerPrefix: REF,
    classTransformerMetadataStorage: defaultMetadataStorage,
  }) as Record<string, Schema>;
  const defs = Object.fromEntries(Object.entries(made).map(([name, schema]) => [name, closed(schema)]));
  const feature = defs.Feature as { properties: Schema };
  feature.properties.shape = { oneOf: SHAPES.map((s) => ({ $ref: REF + s.value.name })) };
  const job = defs[Job.name] as { properties: Schema };
  job.properties.part = { oneOf: PARTS.map((p) => ({ $ref: REF + p.value.name })) };
  byKind(defs, 'Operation', kinds.operations);
  byKind(defs, 'Holding', kinds.holdings);
  const named = namedBy(job, defs);
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Tidy Path job',
    ...defs[Job.name],
    $defs: Object.fromEntries(Object.entries(defs).filter(([name]) => named.has(name))),
  };
}
