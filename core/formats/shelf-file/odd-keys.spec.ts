import { EMPTY_SHELF, merged } from '../../shelf';
import { readShelf, writeShelf } from '.';

/** Names that every object has from the language: as keys of a file they are names like any other. */
const ODD = ['constructor', '__proto__', 'toString', 'valueOf', 'hasOwnProperty', 'prototype'];

describe('a shelf file with keys that every object has', () => {
  const written = writeShelf(EMPTY_SHELF);
  it.each(ODD)('“%s” as the name of something kept, of any value, is read and written back or told', (key) => {
    for (const value of ['null', '1', '"x"', '{}', '{"constructor":1}', '[]']) {
      const text = written.replace('"named":[', `"named":[\n{"key":${JSON.stringify(key)},"value":${value}}`);
      for (const form of [text, JSON.stringify(JSON.parse(text))]) {
        const read = readShelf(form);
        if (!read.ok) throw new Error(read.problems[0].message);
        const named = read.value.contents.named;
        expect(named).toEqual([{ key, value: JSON.parse(value) as unknown }]);
        expect(merged(read.value.contents, EMPTY_SHELF).named).toMatchObject([{ key }]);
      }
    }
  });
  it.each(ODD)('“%s” as a field beside the lists stays as it is, in lines and as a whole', (key) => {
    for (const value of ['null', '1', '{}', '[1]']) {
      const text = written.replace('"phrases":[', `${JSON.stringify(key)}:${value},\n"phrases":[`);
      for (const form of [text, JSON.stringify(JSON.parse(text))]) {
        const read = readShelf(form);
        if (!read.ok) throw new Error(read.problems[0].message);
        expect(Object.getOwnPropertyDescriptor(read.value.contents.others, key)?.value).toEqual(JSON.parse(value));
        const again = readShelf(writeShelf(read.value.contents));
        if (!again.ok) throw new Error(again.problems[0].message);
        expect(Object.getOwnPropertyDescriptor(again.value.contents.others, key)?.value).toEqual(JSON.parse(value));
      }
    }
  });
});
