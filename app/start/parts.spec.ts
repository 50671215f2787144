import { fetchParts } from './parts';

const named = (): string[] =>
  [...document.head.querySelectorAll<HTMLLinkElement>('link[rel=modulepreload]')].map(
    (l) => l.getAttribute('href') ?? '',
  );

describe('what a place is made of', () => {
  beforeEach(() => document.head.replaceChildren());

  it('is named to the browser, each script once, from the list that the build wrote', () => {
    document.head.innerHTML =
      '<script type="application/json" id="parts">{"names":["a.js","b.js","c.js"],"places":{"bench":[2,0],"log":[1]}}</script>';
    fetchParts('bench');
    expect(named()).toEqual(['c.js', 'a.js']);
  });

  it('is left to the imports where there is no list, or no such place', () => {
    fetchParts('bench');
    document.head.innerHTML =
      '<script type="application/json" id="parts">{"names":["a.js"],"places":{"log":[0]}}</script>';
    fetchParts('nowhere');
    expect(named()).toEqual([]);
  });
});
