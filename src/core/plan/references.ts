import * as z from 'zod';

/**
 * What refers to what is said once, where a schema names its field: `reference('media')`. Everything else that has to know
 * (dangling ids, "used by", the database's own keys) reads the paths off the schemas.
 */

/** A new schema of an id: 1 to 80 of a-z, 0-9, "-" and "_". */
export const idField = () =>
  z
    .string()
    .max(80, 'An id has at most 80 characters.')
    .regex(/^[a-z0-9][a-z0-9_-]*$/, 'An id is made of a-z, 0-9, “-” and “_”, and begins with a letter or digit.');

const targets = z.registry<{ readonly kind: string }>();

/** The id of another object of a kind. */
export const reference = (kind: string) => idField().register(targets, { kind });

/** Where a document may refer to a kind: keys from its top, `*` for each entry of a list or record. */
export interface ReferencePath {
  readonly path: readonly (string | number)[];
  readonly kind: string;
}

/** The reference paths of a schema, in order of its fields. */
export function referencePaths(schema: z.core.$ZodType, path: readonly (string | number)[] = []): ReferencePath[] {
  const target = targets.get(schema);
  if (target) return [{ path, kind: target.kind }];
  const { def } = (schema as z.core.$ZodTypes)._zod;
  switch (def.type) {
    case 'object':
      return Object.entries(def.shape).flatMap(([key, field]) => referencePaths(field, [...path, key]));
    case 'array':
      return referencePaths(def.element, [...path, '*']);
    case 'record':
      return referencePaths(def.valueType, [...path, '*']);
    case 'tuple':
      return def.items.flatMap((item, i) => referencePaths(item, [...path, i]));
    case 'union':
      return def.options.flatMap((option) => referencePaths(option, path));
    case 'optional':
    case 'nullable':
    case 'default':
    case 'readonly':
      return referencePaths(def.innerType, path);
    case 'pipe':
      return referencePaths(def.in, path);
    default:
      return [];
  }
}

/** One reference in a document. */
export interface Link {
  readonly path: readonly (string | number)[];
  readonly kind: string;
  readonly id: string;
}

/** Every reference that a document holds along the given paths. Reads documents that are not known to be well-formed. */
export function linksOf(document: unknown, paths: readonly ReferencePath[]): Link[] {
  return paths.flatMap(({ path, kind }) => follow(document, path, []).map((one) => ({ ...one, kind })));
}

function follow(
  value: unknown,
  [key, ...rest]: readonly (string | number)[],
  path: readonly (string | number)[],
): { path: readonly (string | number)[]; id: string }[] {
  if (key === undefined) return typeof value === 'string' ? [{ path, id: value }] : [];
  if (typeof value !== 'object' || value === null) return [];
  if (key !== '*') return follow((value as Record<string, unknown>)[key], rest, [...path, key]);
  return Array.isArray(value)
    ? value.flatMap((one, i) => follow(one, rest, [...path, i]))
    : Object.entries(value).flatMap(([name, one]) => follow(one, rest, [...path, name]));
}
