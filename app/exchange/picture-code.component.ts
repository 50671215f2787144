import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { PictureCode } from './picture-code';

/** A link as a picture that a telephone reads: dark on light in either room, as cameras want it. */
@Component({
  selector: 'ls-picture-code',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      class="code"
      [attr.viewBox]="'-2 -2 ' + (code().side + 4) + ' ' + (code().side + 4)"
      role="img"
      aria-label="The link as a code to scan with a phone"
    >
      <rect x="-2" y="-2" [attr.width]="code().side + 4" [attr.height]="code().side + 4" fill="#fff" />
      <path [attr.d]="code().path" fill="#000" shape-rendering="crispEdges" />
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    .code {
      display: block;
      width: min(100%, 280px);
      border: 1px solid var(--line);
      border-radius: var(--radius);
    }
  `,
})
export class PictureCodeComponent {
  readonly code = input.required<PictureCode>();
}
