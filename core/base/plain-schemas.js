// Stands in for TypeBox in the browser (package.json, `browser`): there, only the types that are drawn from schemas are
// wanted and the validators that were compiled from them, so the schemas are plain JSON and cost next to nothing.
// Tests and tools have the real one; core/formats/shelf-file/plain-schemas.spec.ts holds both against each other.
const optional = Symbol('optional');

const object = (properties, options) => {
  const required = Object.keys(properties).filter((key) => !(optional in properties[key]));
  return { ...options, type: 'object', ...(required.length > 0 ? { required } : {}), properties };
};

export const Type = {
  Array: (items, options) => ({ ...options, type: 'array', items }),
  Boolean: (options) => ({ ...options, type: 'boolean' }),
  Integer: (options) => ({ ...options, type: 'integer' }),
  Literal: (value, options) => ({ ...options, const: value, type: typeof value }),
  Null: (options) => ({ ...options, type: 'null' }),
  Number: (options) => ({ ...options, type: 'number' }),
  Object: object,
  Optional: (schema) => ({ ...schema, [optional]: true }),
  Record: ({ pattern = '^(.*)$' }, value, options) => ({
    ...options,
    type: 'object',
    patternProperties: { [pattern]: value },
  }),
  String: (options) => ({ ...options, type: 'string' }),
  Union: (anyOf, options) => ({ ...options, anyOf }),
  Unknown: (options) => ({ ...options }),
  Unsafe: (options) => ({ ...options }),
};
