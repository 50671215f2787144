import { Type } from '@sinclair/typebox';
import { PARTS, PUBLISHED, VALIDATED } from './schema';

const json = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

describe('schemas as plain JSON', () => {
  it('say the same as those of the package, for everything that is kept', async () => {
    const real = json({ ...VALIDATED, ...PUBLISHED, ...PARTS });
    jest.resetModules();
    jest.doMock('@sinclair/typebox', () => jest.requireActual<object>('../../base/plain-schemas.js'));
    const plain = await import('./schema');
    expect(plain.VALIDATED).not.toBe(VALIDATED);
    expect(json({ ...plain.VALIDATED, ...plain.PUBLISHED, ...plain.PARTS })).toEqual(real);
    jest.dontMock('@sinclair/typebox');
  });
  it('can be told from them: nothing of the package is left in one', async () => {
    const plain = await import('../../base/plain-schemas.js');
    expect(Object.getOwnPropertySymbols(Type.String())).not.toEqual([]);
    expect(Object.getOwnPropertySymbols(plain.Type.String())).toEqual([]);
    const { Type: own } = plain;
    expect(json(own.Object({ a: own.Optional(own.Null()), b: own.Literal(3) }))).toEqual(
      json(Type.Object({ a: Type.Optional(Type.Null()), b: Type.Literal(3) })),
    );
  });
});
