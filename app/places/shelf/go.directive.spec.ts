import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router, RouterLink } from '@angular/router';
import { addressPart, GoDirective } from './go.directive';

@Component({
  imports: [GoDirective, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <a [lsGo]="'/bench/' + encoded() + '?kept=1'">ours</a>
    <a [routerLink]="['/bench', id()]" [queryParams]="{ kept: 1 }">the router’s</a>
  `,
})
class LinksComponent {
  readonly id = signal('rope');
  readonly encoded = (): string => addressPart(this.id());
}

function links() {
  TestBed.configureTestingModule({ providers: [provideRouter([])] });
  const went: string[] = [];
  const router = TestBed.inject(Router);
  jest.spyOn(router, 'navigateByUrl').mockImplementation((url) => {
    went.push(router.serializeUrl(typeof url === 'string' ? router.parseUrl(url) : url));
    return Promise.resolve(true);
  });
  const fixture = TestBed.createComponent(LinksComponent);
  fixture.detectChanges();
  const [ours, theirs] = [...(fixture.nativeElement as HTMLElement).querySelectorAll('a')] as [
    HTMLAnchorElement,
    HTMLAnchorElement,
  ];
  return { fixture, ours, theirs, went };
}

describe('a link to an address that is written out', () => {
  it.each(['rope', 'salt-1', 'a.b', 'ö 7', 'x+y', 'a:b@c$d,e', '50%', 'a?b#c', "it's (1)(2)!"])(
    'leads to where the router’s own link to “%s” leads',
    (id) => {
      const { fixture, ours, theirs, went } = links();
      fixture.componentInstance.id.set(id);
      fixture.detectChanges();
      ours.click();
      theirs.click();
      expect(went).toHaveLength(2);
      expect(went[0]).toBe(went[1]);
      // What the browser opens in a tab of its own is read as the same address.
      const router = TestBed.inject(Router);
      expect(router.serializeUrl(router.parseUrl(ours.getAttribute('href')!))).toBe(went[1]);
    },
  );

  it('pressed with a key or with another button it is the browser’s', () => {
    const { ours, went } = links();
    for (const held of [{ ctrlKey: true }, { metaKey: true }, { shiftKey: true }, { altKey: true }, { button: 1 }]) {
      const press = new MouseEvent('click', { bubbles: true, cancelable: true, ...held });
      // The browser of the tests can open nothing: what was left to it is seen before it tries.
      let left = false;
      const seen = (event: Event): void => {
        left = !event.defaultPrevented;
        event.preventDefault();
      };
      document.addEventListener('click', seen, { once: true });
      document.body.append(ours);
      ours.dispatchEvent(press);
      expect(left).toBe(true);
    }
    expect(went).toEqual([]);
    const plain = new MouseEvent('click', { bubbles: true, cancelable: true });
    ours.dispatchEvent(plain);
    expect([plain.defaultPrevented, went]).toEqual([true, ['/bench/rope?kept=1']]);
  });
});
