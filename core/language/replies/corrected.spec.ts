import { correctedLines } from './corrected';

describe('a correction', () => {
  const isThat = (part: string): boolean => part === 'the rights';
  it('puts what is said behind it in the place of what it takes back', () => {
    for (const line of [
      'ghost the rights, no, the lefts',
      'ghost the rights, I mean the lefts',
      'ghost the rights, no wait, the lefts',
    ])
      expect(correctedLines(line, isThat)).toEqual(['ghost the lefts']);
    expect(correctedLines('put the rights on the ride, sorry, the lefts', isThat)).toEqual([
      'put the lefts on the ride',
    ]);
  });
  it('is none where nothing is taken back, or nothing stands before or behind it', () => {
    for (const line of ['fill a bar, no kick', 'no accents', 'no, the lefts', 'ghost the rights, no,'])
      expect([line, correctedLines(line, isThat) ?? []]).toEqual([line, []]);
  });
});
