/** What the build knows of the places: names of scripts, and which of them each place is made of. */
interface Parts {
  readonly names: readonly string[];
  readonly places: Readonly<Record<string, readonly number[]>>;
}

/**
 * Has all that a place is made of fetched at once. Left alone, the browser finds it import by import, and goes on only
 * when the page has a moment for it. Where the build wrote no list (development) it stays so.
 */
export function fetchParts(place: string): void {
  const list = document.getElementById('parts')?.textContent;
  if (!list) return;
  const { names, places } = JSON.parse(list) as Parts;
  const links = (places[place] ?? []).map((n) => {
    const link = document.createElement('link');
    link.rel = 'modulepreload';
    link.href = names[n] ?? '';
    return link;
  });
  document.head.append(...links);
}
