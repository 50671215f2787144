import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import type { Demands } from '@core/compose';

/** What another place asks the Bench for: it opens there with these demands, and the rest as they usually are. */
@Injectable({ providedIn: 'root' })
export class WantedService {
  private readonly router = inject(Router);
  private wanted: Partial<Demands> | null = null;

  /** Opens the Bench on a phrase that is asked for. */
  async ask(demands: Partial<Demands>): Promise<void> {
    this.wanted = demands;
    await this.router.navigate(['/bench'], { queryParams: { asks: Date.now() } });
  }

  /** What was asked for elsewhere, once; null where nothing was. */
  take(): Partial<Demands> | null {
    const { wanted } = this;
    this.wanted = null;
    return wanted;
  }
}
