import { freshUuid } from './ids';

describe('ids', () => {
  it('are UUIDs of chance, and no two are the same', () => {
    const ids = Array.from({ length: 1000 }, freshUuid);
    for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(new Set(ids).size).toBe(ids.length);
  });
});
