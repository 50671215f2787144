/** What browsers with Trusted Types have, as far as it is used here. */
interface Policies {
  createPolicy(
    name: string,
    rules: { createScriptURL: (url: string) => string; createHTML: (html: string) => string },
  ): unknown;
}

/**
 * Workers are started, and the service worker is registered, from addresses of this origin and no other. Markup is made
 * from text by nobody but Angular's own, which cleans it.
 */
export function trustOwnAddresses(): void {
  const policies = (globalThis as { trustedTypes?: Policies }).trustedTypes;
  policies?.createPolicy('default', {
    createScriptURL: (url) => {
      if (new URL(url, location.href).origin !== location.origin) throw new TypeError('not from here');
      return url;
    },
    // A tooltip empties itself so before it writes plain text.
    createHTML: (html) => {
      if (html !== '') throw new TypeError('no markup from text');
      return html;
    },
  });
}
