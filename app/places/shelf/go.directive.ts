import { Location } from '@angular/common';
import { computed, Directive, inject, input } from '@angular/core';
import { Router } from '@angular/router';

/** One part of an address. Parentheses stand for something of the router's own, and are encoded as well. */
export function addressPart(text: string): string {
  return encodeURIComponent(text).replaceAll('(', '%28').replaceAll(')', '%29');
}

/**
 * A link within the application to an address that is written out. For long lists: the router's own link puts its
 * address together part by part for every line that shows something else, a fifth of what a key in the box of the
 * shelf has drawn anew. Pressed with a key held, or with another button, it is the browser's.
 */
@Directive({ selector: 'a[lsGo]', host: { '[attr.href]': 'href()', '(click)': 'go($event)' } })
export class GoDirective {
  /** From the application's root, its parts encoded: "/bench/rope?kept=1". */
  readonly lsGo = input.required<string>();
  private readonly location = inject(Location);
  private readonly router = inject(Router);
  readonly href = computed(() => this.location.prepareExternalUrl(this.lsGo()));

  go(event: MouseEvent): void {
    if (event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    void this.router.navigateByUrl(this.lsGo());
  }
}
